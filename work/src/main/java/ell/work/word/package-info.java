/// What is shown, in the language and with the numbers and dates of whoever looks. Everything that
/// Ell computes is said once, in English, where it is computed; a table has each phrase with its
/// translations beside it, and what goes onto a screen passes through it. Files, the tape and the
/// command line are the same everywhere and never pass through it.
package ell.work.word;
