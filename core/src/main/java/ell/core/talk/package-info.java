/// Loading a board and talking to it: links and the order of operations that spares the iron, pins
/// of firmware matched to pins of a controller, chains, scripts of what is sent and expected, the
/// loader's frames, what is written into a board's memory, how healthy a line is.
///
/// In: what is said of a revision, tables of pins, bytes with their times. Out: plans and verdicts.
/// Open [ell.core.talk.TalkPlan] first.
package ell.core.talk;
