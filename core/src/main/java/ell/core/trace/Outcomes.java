package ell.core.trace;

import java.util.List;

/// The words that a measurement may show.
public final class Outcomes {
  private Outcomes() {}

  /// All of them, in their usual order; none where it shows a number.
  public static List<String> words(Choice c) {
    return switch (c.probe().kind()) {
      case LIT -> WordViews.LAMP_WORDS;
      case TOUCH -> WordViews.TOUCH_WORDS;
      case SWAP, PRESS -> WordViews.TRY_WORDS;
      case TALK -> Speaking.HEARD;
      case LOOK -> c.probe().a().contains(".") ? WordViews.JOINT_WORDS : WordViews.PART_WORDS;
      case SCOPE -> WordViews.SCOPE_WORDS;
      case VOLTS, OHMS, ALONG, AMPS, WAVE -> List.of();
    };
  }
}
