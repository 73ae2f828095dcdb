package ell.core.order;

/// Typical times of steps, in seconds; no source, corrected by the book later.
final class StepTimes {
  static final double PLACE = 6;
  static final double REEL = 15;
  static final double TWO_ENDED = 20;
  static final double PIN = 4;
  static final double CONNECTOR = 30;
  static final double HOT_AIR = 25;
  static final double PASTE = 120;
  static final double PASTE_DOT = 5;
  static final double REFLOW = 480;
  static final double GATE = 120;

  private StepTimes() {}
}
