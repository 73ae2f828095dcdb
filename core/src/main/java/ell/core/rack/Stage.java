package ell.core.rack;

import java.util.Locale;


/// The stages in the order of the work.
public enum Stage {
  /// Can I start.
  KIT("Kit", true),
  /// Which part next.
  ORDER("Order", true),
  /// Paste and stencil.
  PRINT("Print", true),
  /// Profiles and irons.
  HEAT("Heat", true),
  /// Inspect joints.
  LOOK("Look", true),
  /// Before any power.
  BEEP("Beep", true),
  /// First power and rails.
  POWER("Power", true),
  /// Clocks and edges.
  PULSE("Pulse", false),
  /// Load and answer.
  TALK("Talk", false),
  /// Find the fault.
  TRACE("Trace", false),
  /// Test jigs.
  JIG("Jig", false),
  /// Pass, and how sure.
  PROVE("Prove", false),
  /// What changes next.
  REVISE("Revise", false);

  private final String title;
  private final boolean built;

  Stage(String title, boolean built) {
    this.title = title;
    this.built = built;
  }

  /// The name as it is shown.
  public String title() {
    return title;
  }

  /// Whether this Ell can do it already.
  public boolean built() {
    return built;
  }

  /// The name as a key in files.
  public String key() {
    return name().toLowerCase(Locale.ROOT);
  }
}
