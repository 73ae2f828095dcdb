/// The window put together: shell and stages, the commands on their keys, what is laid over them,
/// and what is shown before there is a board.
///
/// Open [ell.desk.window.MainWindow] first, then [ell.desk.window.Commands].
package ell.desk.window;
