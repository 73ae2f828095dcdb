/// Where each board of a build stands: stage, phrase, progress, what comes next.
///
/// In: a board's folded state and the plans of its revision. Out: [ell.core.rack.Standing]. Open
/// that first. Knows nothing of the store or the screen.
package ell.core.rack;
