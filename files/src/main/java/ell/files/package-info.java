/// Readers and writers of open formats.
///
/// In: bytes from a [ell.files.Source]. Out: a [ell.files.Read]: the whole value with warnings, or
/// every problem found with file, line and column, never half a value. Open [ell.files.Read] first.
/// Knows nothing of the store or the screen.
package ell.files;
