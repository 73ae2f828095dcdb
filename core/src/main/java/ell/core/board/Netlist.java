package ell.core.board;

import java.util.List;

/// What a netlist file holds.
///
/// @param joints pins and pads of parts, in file order
/// @param vias holes that only join layers, as joints without a part
/// @param comments comment and parameter lines that carry a title, in file order
public record Netlist(List<Joint> joints, List<Joint> vias, List<String> comments) {
  public Netlist {
    joints = List.copyOf(joints);
    vias = List.copyOf(vias);
    comments = List.copyOf(comments);
  }
}
