/// A board on a phone or a tablet: its step, its beep list and its record as pages that can only be
/// looked at, served on one address and opened with a code.
package ell.work.page;
