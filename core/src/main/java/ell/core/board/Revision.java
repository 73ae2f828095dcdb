package ell.core.board;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// A fabricated revision of a design: what the files said, joined. Immutable; the look-ups are
/// built once.
public final class Revision {
  private final String design;
  private final String name;
  private final List<Part> parts;
  private final List<Joint> joints;
  private final Outline outline;
  private final PackageSheet packages;
  private final Map<String, PackageShape> shapes = new HashMap<>();
  private final Map<String, Part> byReference = new LinkedHashMap<>();
  private final Map<String, List<Joint>> jointsOfPart = new LinkedHashMap<>();
  private final Map<String, List<Joint>> jointsOfNet = new LinkedHashMap<>();

  /// A revision whose bodies are found in the sheet that ships.
  public Revision(
      String design, String name, List<Part> parts, List<Joint> joints, Outline outline) {
    this(design, name, parts, joints, outline, PackageSheet.SHIPPED);
  }

  /// @param design name of the design
  /// @param name name of the revision
  /// @param parts each reference once
  /// @param joints in file order
  /// @param packages the sheet in which bodies are found
  /// @throws IllegalArgumentException when a reference is there twice
  public Revision(
      String design,
      String name,
      List<Part> parts,
      List<Joint> joints,
      Outline outline,
      PackageSheet packages) {
    this.packages = packages;
    this.design = design;
    this.name = name;
    this.parts = List.copyOf(parts);
    this.joints = List.copyOf(joints);
    this.outline = outline;
    for (Part p : this.parts) {
      if (byReference.put(p.reference(), p) != null) {
        throw new IllegalArgumentException("part " + p.reference() + " is there twice");
      }
    }
    for (Joint j : this.joints) {
      jointsOfPart.computeIfAbsent(j.part(), _ -> new ArrayList<>(2)).add(j);
      if (j.connected()) {
        jointsOfNet.computeIfAbsent(j.net(), _ -> new ArrayList<>(4)).add(j);
      }
    }
  }

  /// The revision as it is built in a variant; itself when the variant has no name.
  public Revision in(String variant) {
    return variant.isEmpty()
        ? this
        : new Revision(
            design,
            name,
            parts.stream().map(p -> p.in(variant)).toList(),
            joints,
            outline,
            packages);
  }

  /// The revision with some parts left off.
  ///
  /// @param references of parts; others are passed over
  public Revision without(Set<String> references) {
    return references.isEmpty()
        ? this
        : new Revision(
            design,
            name,
            parts.stream().map(p -> references.contains(p.reference()) ? p.left() : p).toList(),
            joints,
            outline,
            packages);
  }

  /// The revision with bodies from another sheet.
  public Revision with(PackageSheet sheet) {
    return new Revision(design, name, parts, joints, outline, sheet);
  }

  /// The revision with another edge.
  public Revision with(Outline edge) {
    return new Revision(design, name, parts, joints, edge, packages);
  }

  /// The sheet in which bodies are found.
  public PackageSheet packages() {
    return packages;
  }

  /// Names of the variants that the bill speaks of, in its order.
  public List<String> variants() {
    return parts.stream()
        .flatMap(p -> p.variants().stream())
        .map(v -> v.startsWith("!") ? v.substring(1) : v)
        .distinct()
        .toList();
  }

  /// The design's name.
  public String design() {
    return design;
  }

  /// The revision's name.
  public String name() {
    return name;
  }

  /// Design and revision as one phrase.
  public String title() {
    return design + " rev " + name;
  }

  /// Every part, fitted or not, in file order.
  public List<Part> parts() {
    return parts;
  }

  /// Every joint, in file order.
  public List<Joint> joints() {
    return joints;
  }

  /// The edge of the board.
  public Outline outline() {
    return outline;
  }

  /// The part with this reference.
  public Optional<Part> part(String reference) {
    return Optional.ofNullable(byReference.get(reference));
  }

  /// The joints of a part or of bare copper such as a test point, empty when there are none.
  public List<Joint> jointsOf(String reference) {
    return Collections.unmodifiableList(jointsOfPart.getOrDefault(reference, List.of()));
  }

  /// The joints of a net, empty when there is no such net.
  public List<Joint> net(String net) {
    return Collections.unmodifiableList(jointsOfNet.getOrDefault(net, List.of()));
  }

  /// The joint at a place such as `U3.4`, the first if the part has several pads for that pin;
  /// empty where it names no joint.
  public Optional<Joint> joint(String place) {
    int dot = place.lastIndexOf('.');
    return dot < 1 ? Optional.empty() : joint(place.substring(0, dot), place.substring(dot + 1));
  }

  /// The one net at a place: that of this name, that of a joint such as `U3.4`, or the only one of
  /// a part; empty where there is none, or several.
  public Optional<String> netAt(String place) {
    if (!net(place).isEmpty()) {
      return Optional.of(place);
    }
    Optional<Joint> joint = joint(place);
    List<String> nets =
        (joint.isPresent() ? List.of(joint.get()) : jointsOf(place))
            .stream().filter(Joint::connected).map(Joint::net).distinct().toList();
    return nets.size() == 1 ? Optional.of(nets.getFirst()) : Optional.empty();
  }

  /// The joint `part.pin`, the first if the part has several pads for that pin.
  public Optional<Joint> joint(String part, String pin) {
    return jointsOf(part).stream().filter(j -> j.pin().equals(pin)).findFirst();
  }

  /// Names of all nets, in file order.
  public List<String> nets() {
    return List.copyOf(jointsOfNet.keySet());
  }

  /// References of everything that has joints: parts and bare copper.
  public List<String> withJoints() {
    return List.copyOf(jointsOfPart.keySet());
  }

  /// The body of a part.
  public PackageShape shape(Part part) {
    synchronized (shapes) {
      return shapes.computeIfAbsent(
          part.reference(), r -> PackageShape.of(part, jointsOf(r), packages));
    }
  }

  /// Whether a part's leads go through the board.
  public boolean throughHole(Part part) {
    List<Joint> own = jointsOf(part.reference());
    long holes = own.stream().filter(Joint::hole).count();
    return holes > 0 && 2 * holes >= own.size();
  }

  /// The room that the board takes: `{x0, y0, x1, y1}` in millimetre, from the outline or else from
  /// joints and parts; a 10 mm square when there is nothing.
  public double[] boxMm() {
    double[] b = {
      Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY,
      Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY
    };
    if (!outline.loops().isEmpty()) {
      outline.loops().getFirst().forEach(p -> stretch(b, p.xMm(), p.yMm(), 0));
    } else {
      joints.forEach(j -> stretch(b, j.xMm(), j.yMm(), 2));
      parts.forEach(p -> p.place().ifPresent(s -> stretch(b, s.xMm(), s.yMm(), 2)));
    }
    return b[0] <= b[2] ? b : new double[] {0, 0, 10, 10};
  }

  private static void stretch(double[] b, double x, double y, double grow) {
    b[0] = Math.min(b[0], x - grow);
    b[1] = Math.min(b[1], y - grow);
    b[2] = Math.max(b[2], x + grow);
    b[3] = Math.max(b[3], y + grow);
  }
}
