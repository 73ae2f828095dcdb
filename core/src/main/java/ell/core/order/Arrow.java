package ell.core.order;

/// One part before another, with the reason.
///
/// @param before index of the part that comes first
/// @param after index of the part that comes later
/// @param reason a phrase for the part that comes first
/// @param cost how much is lost when the arrow is dropped to break a loop, higher is worse
record Arrow(int before, int after, String reason, int cost) {}
