package ell.core.talk;

/// Something that is plugged in and speaks on the controller's line as well.
///
/// @param part what is plugged in, such as a radio module
/// @param out joint at which it speaks
public record Sharer(String part, String out) {}
