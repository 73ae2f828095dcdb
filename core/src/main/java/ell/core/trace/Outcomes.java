package ell.core.trace;

import java.util.List;

/// The words that a measurement may show.
public final class Outcomes {
  private Outcomes() {}

  /// All of them, in their usual order; none where it shows a number.
  public static List<String> words(Choice c) {
    return switch (c.probe().kind()) {
      case LIT -> Views.LAMP_WORDS;
      case TOUCH -> Views.TOUCH_WORDS;
      case SWAP, PRESS -> Views.TRY_WORDS;
      case TALK -> Speaking.HEARD;
      case LOOK -> c.probe().a().contains(".") ? Views.JOINT_WORDS : Views.PART_WORDS;
      case SCOPE -> Views.SCOPE_WORDS;
      case VOLTS, OHMS, AMPS, WAVE -> List.of();
    };
  }
}
