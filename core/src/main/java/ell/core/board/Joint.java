package ell.core.board;

/// One pin or pad of one part. Lengths in millimetre in the board's own coordinates.
///
/// @param part reference of the part
/// @param pin name of the pin, unique within the part unless the part has several pads for it
/// @param net the net that it belongs to, empty when it is connected to nothing
/// @param xMm place
/// @param yMm place
/// @param reach from which side a tip can touch it
/// @param hole true when a lead goes through
/// @param drillMm diameter of the hole, 0 when unknown or none
/// @param plated whether the hole is plated
/// @param widthMm size of the pad along x, 0 when unknown
/// @param heightMm size of the pad along y, 0 when unknown
/// @param rotationDeg rotation of the pad
/// @param middle true when the netlist marks it as a middle point of its net
/// @param mask which sides are under solder mask: 0 none, 1 first, 2 second, 3 both
public record Joint(
    String part,
    String pin,
    String net,
    double xMm,
    double yMm,
    Reach reach,
    boolean hole,
    double drillMm,
    boolean plated,
    double widthMm,
    double heightMm,
    double rotationDeg,
    boolean middle,
    int mask) {

  /// From which side a tip can touch a joint.
  public enum Reach {
    /// From either side.
    BOTH,
    /// From the first side only.
    FIRST,
    /// From the second side only.
    SECOND,
    /// It is inside the board.
    NONE
  }

  /// `part.pin`, as it is typed on the tape.
  public String place() {
    return part + "." + pin;
  }

  /// Whether it is connected to anything.
  public boolean connected() {
    return !net.isEmpty();
  }

  /// The same joint without mask over it.
  ///
  /// @param from which side a tip reaches it then
  public Joint uncovered(Reach from) {
    return new Joint(
        part,
        pin,
        net,
        xMm,
        yMm,
        from,
        hole,
        drillMm,
        plated,
        widthMm,
        heightMm,
        rotationDeg,
        middle,
        0);
  }

  /// Distance to another joint, in millimetre.
  public double distanceMm(Joint other) {
    return Math.hypot(xMm - other.xMm, yMm - other.yMm);
  }
}
