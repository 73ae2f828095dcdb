/// What the next revision must know: mistakes of revisions and how boards are mended, what is worth
/// doing, and what the next drawing should have.
package ell.core.revise;
