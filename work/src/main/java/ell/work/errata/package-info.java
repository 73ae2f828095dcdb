/// Errata as the book has them, for every stage that has to know of them.
package ell.work.errata;
