/// The demo: its files imported through the readers that a maker uses, its script replayed as typed
/// lines.
///
/// Open [ell.work.demo.DemoWorkspace].
package ell.work.demo;
