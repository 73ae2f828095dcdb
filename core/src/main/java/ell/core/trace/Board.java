package ell.core.trace;

import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.Ladder;
import ell.core.pulse.PulsePlan;
import ell.core.talk.TalkPlan;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/// What is traced: a revision as a board of it stands.
///
/// @param standing links as they are, as faults of the board model
/// @param stands how links stand and what is plugged in, as the book has it
public record Board(
    Revision revision,
    Ladder ladder,
    PulsePlan pulse,
    TalkPlan talk,
    List<Fault> standing,
    Map<String, Boolean> stands) {
  /// So many joints of a part are seen with it.
  private static final int FEW_JOINTS = 8;

  /// What a look at each further one takes, minutes; typical, no source.
  private static final double EACH_JOINT = 0.02;

  /// What each joint takes where a net is read along, minutes; typical, no source.
  private static final double EACH_READING = 0.2;

  // a change of a part with two joints, few, many, and with joints under it, minutes; typical, no
  // source
  private static final double TWO = 5;
  private static final double FEW = 9;
  private static final double MANY = 14;
  private static final double UNDER = 20;
  private static final Pattern UNDERNEATH = Pattern.compile("BGA|QFN|DFN|LGA|CSP|MODULE");

  public Board {
    standing = List.copyOf(standing);
    stands = Map.copyOf(stands);
  }

  /// What a measurement takes by itself, minutes: a look at a part with many joints takes longer,
  /// and to change a part takes the longer the more joints it has, the most where they lie under
  /// it.
  public double minutes(Probe p) {
    int joints = revision.jointsOf(p.a()).size();
    return switch (p.kind()) {
      case LOOK -> p.kind().minutes() + EACH_JOINT * Math.max(0, joints - FEW_JOINTS);
      case ALONG -> p.kind().minutes() + EACH_READING * p.places().size();
      case SWAP -> hidden(p.a()) ? UNDER : joints <= 2 ? TWO : joints <= FEW_JOINTS ? FEW : MANY;
      default -> p.kind().minutes();
    };
  }

  /// Whether the joints of a part lie under it, where nobody sees them.
  boolean hidden(String part) {
    return revision
        .part(part)
        .map(x -> x.packageName().toUpperCase(Locale.ROOT))
        .filter(n -> UNDERNEATH.matcher(n).find())
        .isPresent();
  }
}
