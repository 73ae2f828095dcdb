package ell.core.board;

/// Where one part sits.
///
/// @param line line of the file, 1-based
/// @param reference of the part
/// @param xMm centre
/// @param yMm centre
/// @param rotationDeg counter-clockwise, seen from the first side
/// @param side on which its body is
/// @param packageName as written, may be empty
public record Placement(
    int line,
    String reference,
    double xMm,
    double yMm,
    double rotationDeg,
    Side side,
    String packageName) {}
