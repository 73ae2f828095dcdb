package ell.core.rack;

import java.util.List;

/// A stage of the work: what it is called, and the question that it answers.
///
/// Not an enum: whoever has rooms for a stage may put it on the list that a workshop or a window is
/// made with, as the tests do with one of their own.
///
/// @param key the name in files, on the command line and in keys of the interface
/// @param title the name as it is shown
/// @param question that it answers, for somebody who sees Ell for the first time
/// @param built whether this Ell can do it already
public record Stage(String key, String title, String question, boolean built) {
  /// Can I start.
  public static final Stage KIT = here("Kit", "Can I start, how far do I get, what do I order?");

  /// Which part next.
  public static final Stage ORDER = here("Order", "Which part next, and why?");

  /// Paste and stencil.
  public static final Stage PRINT =
      here("Print", "Will the paste release, how much, is it still good?");

  /// Profiles and irons.
  public static final Stage HEAT =
      here("Heat", "Which profile, did the run hold, how hot an iron?");

  /// Inspect joints.
  public static final Stage LOOK = here("Look", "Which joints, what is wrong, what caused it?");

  /// Before any power.
  public static final Stage BEEP = here("Beep", "Is it safe to power?");

  /// First power and rails.
  public static final Stage POWER = here("Power", "What limit, are the rails right?");

  /// Clocks and edges.
  public static final Stage PULSE = here("Pulse", "Are clocks and edges right?");

  /// Load and answer.
  public static final Stage TALK = here("Talk", "Does it load, answer, behave?");

  /// Find the fault.
  public static final Stage TRACE = here("Trace", "Where is the fault?");

  /// Test jigs.
  public static final Stage JIG = here("Jig", "Build one? How?");

  /// Pass, and how sure.
  public static final Stage PROVE = here("Prove", "Does it pass, how sure?");

  /// What changes next.
  public static final Stage REVISE =
      here("Revise", "What must the next revision know, and which boards are mended?");

  /// Every stage in the order of the work.
  public static final List<Stage> ALL =
      List.of(KIT, ORDER, PRINT, HEAT, LOOK, BEEP, POWER, PULSE, TALK, TRACE, JIG, PROVE, REVISE);

  /// A stage is known by its key.
  @Override
  public boolean equals(Object o) {
    return o instanceof Stage s && s.key.equals(key);
  }

  @Override
  public int hashCode() {
    return key.hashCode();
  }

  private static Stage here(String title, String question) {
    return new Stage(title.toLowerCase(java.util.Locale.ROOT), title, question, true);
  }
}
