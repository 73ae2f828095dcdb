/// What the next revision must know: errata written down, boards mended, what is worth doing, and
/// the change list held against the next drawing.
package ell.work.revise;
