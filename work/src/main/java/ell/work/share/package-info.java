/// Several benches over one book, as acts: boards in hand, and what waits to be taken over.
package ell.work.share;
