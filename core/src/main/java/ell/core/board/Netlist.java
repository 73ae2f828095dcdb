package ell.core.board;

import java.util.List;

/// What a netlist file holds.
///
/// @param joints pins and pads of parts, in file order
/// @param vias holes that only join layers, as joints without a part
/// @param comments comment and parameter lines that carry a title, in file order
/// @param lines line of each joint in its file, 1-based, or empty when it came from no file
public record Netlist(
    List<Joint> joints, List<Joint> vias, List<String> comments, List<Integer> lines) {
  /// A netlist that came from no file.
  public Netlist(List<Joint> joints, List<Joint> vias, List<String> comments) {
    this(joints, vias, comments, List.of());
  }

  public Netlist {
    joints = List.copyOf(joints);
    vias = List.copyOf(vias);
    comments = List.copyOf(comments);
    lines = lines instanceof LineNumbers ? lines : List.copyOf(lines);
  }
}
