/// Several benches over one book: moving a workspace to a server and back, boards in hand, what
/// waits while the server does not answer, and who may come.
package ell.cli.share;
