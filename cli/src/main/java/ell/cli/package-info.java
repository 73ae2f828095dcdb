/// The command line: every act without a window.
///
/// In: words. Out: text for people or one JSON object, problems on standard error, and an exit
/// code: 0 done, 1 a check did not hold, 2 bad input with nothing changed. Open [ell.cli.Main]
/// first.
package ell.cli;
