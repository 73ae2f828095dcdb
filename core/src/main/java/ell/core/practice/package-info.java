/// Practice: faults that are hidden in a board, what shows of them, and how a search for one went
/// against the best that could have been.
package ell.core.practice;
