/// The workshop: an open workspace with everything that stands on it, and the lists of stages.
///
/// Open [ell.work.Workshop] first, then [ell.work.Stages]. The acts of each stage stand in a
/// package of its own name; `space` is the ground, `act` the way into the book, `tape` what typed
/// lines mean, `bring` takes files in, `send` writes them out. Knows nothing of screens.
package ell.work;
