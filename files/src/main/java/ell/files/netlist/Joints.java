package ell.files.netlist;

import ell.core.board.Joint;
import ell.core.board.Joint.Reach;
import ell.core.board.LineNumbers;
import ell.core.board.Netlist;
import ell.core.board.PartKind;
import ell.files.Findings;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/// The joints of a netlist while it is read: each is held against those before it, and the whole of
/// them is looked at in the end.
final class Joints {
  private static final int SEVERAL = -1;
  private static final int FEW = 4;
  private static final Reach[] REACHES = Reach.values();

  private final Findings f;
  private final PlaceIndex places = new PlaceIndex();
  private final Set<Integer> told = new HashSet<>();

  /// Line of a net's only joint, 0 for none, [#SEVERAL] for more than one.
  private int[] onlyJoint = new int[1 << 10];

  private final ArrayList<Joint> joints = new ArrayList<>();
  private int[] lines = {};
  private final List<Joint> vias = new ArrayList<>();
  private int masked;

  /// From where tips would reach each joint if there were no mask, by its place in [#REACHES].
  private byte[] unmasked = {};

  Joints(Findings f) {
    this.f = f;
  }

  /// Makes room for so many joints.
  void room(int expected) {
    joints.ensureCapacity(expected);
    lines = Arrays.copyOf(lines, expected);
    onlyJoint = Arrays.copyOf(onlyJoint, Math.max(onlyJoint.length, expected / 2));
    unmasked = Arrays.copyOf(unmasked, expected);
  }

  /// How many there are, vias too.
  int size() {
    return joints.size() + vias.size();
  }

  boolean none() {
    return joints.isEmpty();
  }

  Joint last() {
    return joints.getLast();
  }

  /// From where tips would reach the last one if there were no mask.
  Reach lastReach() {
    return REACHES[unmasked[joints.size() - 1]];
  }

  /// A hole that only joins layers.
  void via(Joint j) {
    masked += j.mask() == 3 ? 1 : 0;
    vias.add(j);
  }

  /// A joint of a part.
  ///
  /// @param reach from where tips would reach it if there were no mask
  /// @param net number of its net, -1 for none
  /// @param part number of its part
  /// @param pin number of its pin
  /// @param line of the file
  void add(Joint j, Reach reach, int net, int part, int pin, int line) {
    masked += j.mask() == 3 ? 1 : 0;
    if (joints.size() == lines.length) {
      room(2 * joints.size());
    }
    lines[joints.size()] = line;
    unmasked[joints.size()] = (byte) reach.ordinal();
    joints.add(j);
    check(j, net, part, pin, line);
  }

  /// Holds a joint against those before it.
  private void check(Joint j, int net, int part, int pin, int line) {
    if (net >= 0) {
      if (net >= onlyJoint.length) {
        onlyJoint = Arrays.copyOf(onlyJoint, 4 * net);
      }
      onlyJoint[net] = onlyJoint[net] == 0 ? line : SEVERAL;
    }
    int before = places.putIfAbsent(part, pin, joints.size() - 1);
    if (before < 0) {
      return;
    }
    Joint o = joints.get(before);
    if (!o.net().equals(j.net())) {
      f.error(
          line,
          4,
          j.place()
              + " is on net "
              + j.net()
              + " here and on "
              + o.net()
              + " on line "
              + lines[before]);
    } else if (o.distanceMm(j) < 1e-6 && told.add(before)) {
      f.warn(
          line,
          21,
          "joint " + j.place() + " is already on line " + lines[before] + " at the same place");
    }
  }

  /// What is told of the whole, once all records are taken in.
  Netlist done(NamePool nets, List<String> comments) {
    cutNames(nets);
    unmask();
    if (!vias.isEmpty()) {
      f.pass(0, vias.size() + " vias, which are no joints");
    }
    lonelyNets(nets);
    return new Netlist(joints, vias, comments, LineNumbers.of(lines, joints.size()));
  }

  /// Where every record says that mask lies on both sides, the writer did not know the mask.
  private void unmask() {
    if (masked < joints.size() + vias.size() || masked <= FEW) {
      return;
    }
    for (int i = 0; i < joints.size(); i++) {
      joints.set(i, joints.get(i).uncovered(REACHES[unmasked[i]]));
    }
    f.guess("the mask over the joints", "every record says both sides: none", "");
  }

  /// A name that fills its columns may have been cut, and two nets with it become one.
  private void cutNames(NamePool nets) {
    List<String> full = new ArrayList<>();
    for (int net = 0; net < nets.size() && net < onlyJoint.length; net++) {
      if (onlyJoint[net] != 0 && nets.full(net)) {
        full.add(nets.name(net));
      }
    }
    if (!full.isEmpty()) {
      f.warn(
          0,
          0,
          full.size()
              + (full.size() == 1 ? " net name fills" : " net names fill")
              + " all 14 columns and may have been cut: "
              + String.join(", ", full.subList(0, Math.min(FEW, full.size()))));
    }
  }

  private void lonelyNets(NamePool nets) {
    for (int net = 0; net < nets.size() && net < onlyJoint.length; net++) {
      if (onlyJoint[net] > 0 && !PartKind.of(nets.name(net)).bare()) {
        f.warn(onlyJoint[net], 4, "one joint only: net " + nets.name(net));
      }
    }
  }
}
