/// The application in a window: start-up, settings, and the ways of running it without a monitor.
///
/// In: a workspace file, keys, the mouse. Out: a window. Open [ell.desk.App] first, then
/// [ell.desk.shell.DeskModel] for what it holds.
package ell.desk;
