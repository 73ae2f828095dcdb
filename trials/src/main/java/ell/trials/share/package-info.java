/// Several benches over one book, measured.
package ell.trials.share;
