/// Sends out: records of boards, builds and lots, labels, and everything that a workspace holds as
/// files from which it can be made again.
///
/// Open [ell.work.send.Export] first, then [ell.work.send.Restore].
package ell.work.send;
