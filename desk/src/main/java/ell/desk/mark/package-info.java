/// Reusable pictures: the limit strip, verdict marks, the board in ink, the plot, and the ink they
/// are drawn with.
///
/// In: readings, limits, revisions as data. Out: nodes. Open [ell.desk.mark.LimitStrip] first.
/// Knows nothing of workspaces.
package ell.desk.mark;
