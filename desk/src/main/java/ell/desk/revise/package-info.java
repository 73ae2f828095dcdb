/// Errata against boards, what to do about them, and the change list for the next revision, in the
/// window.
package ell.desk.revise;
