/// The board as fabricated: design, revision, nets, joints, parts, bodies, outline, sides, blocks.
///
/// In: what the files said, as records. Out: an immutable [ell.core.board.Revision] with its
/// look-ups. Open [ell.core.board.Revision] first. Knows nothing of files, stores or screens.
package ell.core.board;
