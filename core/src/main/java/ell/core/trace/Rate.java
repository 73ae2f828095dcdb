package ell.core.trace;

/// How often something goes wrong, per chance that it has to. First guesses for boards of small
/// series made by hand; common practice, no source. This bench's own book corrects them.
enum Rate {
  /// A joint that was never made, as a share of all defects of joints.
  OPEN(0.5, "a joint that does not lead"),
  /// One that leads badly.
  RESISTIVE(0.05, "a joint that leads badly"),
  /// Solder between two neighbours less than 0.25 mm apart.
  BRIDGE_NEAR(4e-4, "solder between pads less than 0.25 mm apart"),
  /// Less than 0.6 mm.
  BRIDGE(1.2e-4, "solder between pads less than 0.6 mm apart"),
  /// Wider.
  BRIDGE_WIDE(3e-5, "solder between pads further apart"),
  /// A part from the neighbouring bin.
  WRONG(2e-4, "a part of another value"),
  /// A part the wrong way round.
  TURNED(2.5e-4, "a part the wrong way round"),
  /// A part that was left off.
  MISSING(2e-4, "a part that is not there"),
  /// A chip that does nothing.
  DEAD(1e-4, "a part that does nothing"),
  /// A simple part that does nothing.
  DEAD_SIMPLE(1e-5, "a simple part that does nothing"),
  /// A part that joins its ends.
  SHORT(5e-5, "a part that joins its ends"),
  /// Another part that does.
  SHORT_SELDOM(1e-5, "another part that joins its ends"),
  /// A pin that is drawn to a wrong net.
  TIED(1e-5, "a pin drawn to another net"),
  /// A pin that is drawn to nothing.
  LOOSE(3e-5, "a pin drawn to nothing"),
  /// A pin that everything hangs on, drawn wrongly.
  KEY_PIN(1.5e-4, "a supply, reset, enable or strap pin drawn wrongly"),
  /// A link that is not as the book has it.
  LINK(4e-3, "a link that is not as the book has it"),
  /// A lead in the jack for currents.
  JACK(1e-3, "a lead in the current jack"),
  /// A scope that is set otherwise.
  SCOPE(5e-3, "a scope that is set otherwise"),
  /// Firmware for other pins.
  FIRMWARE(5e-3, "firmware for another board, or other pins"),
  /// A probe of a jig that does not touch.
  JIG(3e-3, "a probe of the jig that does not touch"),
  /// A cable that leads badly.
  CABLE(2e-3, "a cable that does not lead"),
  /// What nobody thought of.
  OTHER(3e-3, "what nobody thought of");

  private final double first;
  private final String words;

  Rate(double first, String words) {
    this.first = first;
    this.words = words;
  }

  double first() {
    return first;
  }

  String words() {
    return words;
  }
}
