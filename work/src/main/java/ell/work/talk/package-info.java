/// Loading boards and talking to them: what is said of a revision's links and line, recordings of
/// lines, scripts that are run, the loader, modules and their pins.
///
/// Open [ell.work.talk.TalkRun] first.
package ell.work.talk;
