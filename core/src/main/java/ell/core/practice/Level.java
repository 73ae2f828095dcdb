package ell.core.practice;

import ell.core.power.Fault;
import java.util.List;

/// How hard a practice is: a course, from one lesson to the next.
public enum Level {
  /// A short that the beeper finds before any power.
  BEEP(
      1,
      "beep before power",
      "A short between a rail and ground. It was not powered yet: the beeper finds it, and a supply"
          + " would have found it with smoke."),
  /// A rail that is not there.
  RAIL(
      2,
      "a rail that is not there",
      "An open joint, a part that is missing, dead or turned: follow the rail from where it is to"
          + " where it is not."),
  /// Something that is only nearly right.
  VALUE(
      3,
      "nearly right",
      "A wrong value, a bad joint, a bridge between signals: it works a little, and no rail is"
          + " plainly wrong."),
  /// Something that comes and goes.
  INTERMITTENT(
      4,
      "it comes and goes",
      "The fault is there at some tries only. One good reading proves nothing; several do."),
  /// Something that is on every board.
  DESIGN(
      5,
      "the drawing is wrong",
      "Every board of the build has it. Look at a second board before you mend the first.");

  /// Chance at each try of what comes and goes.
  private static final double SOMETIMES = 0.5;

  private final int number;
  private final String title;
  private final String lesson;

  Level(int number, String title, String lesson) {
    this.number = number;
    this.title = title;
    this.lesson = lesson;
  }

  /// 1 to 5.
  public int number() {
    return number;
  }

  /// In a few words.
  public String title() {
    return title;
  }

  /// What is to be learned.
  public String lesson() {
    return lesson;
  }

  /// The level of a number.
  ///
  /// @throws IllegalArgumentException when there is none
  public static Level of(int number) {
    for (Level l : values()) {
      if (l.number == number) {
        return l;
      }
    }
    throw new IllegalArgumentException(
        "a level is from 1 to " + values().length + ", found " + number);
  }

  /// How many boards a build of it has.
  public int boards() {
    return this == DESIGN ? 3 : 1;
  }

  /// Whether a fault is of this level.
  boolean takes(Fault f) {
    return switch (this) {
      case BEEP -> f instanceof Fault.Bridge || f instanceof Fault.Short;
      case RAIL, INTERMITTENT ->
          f instanceof Fault.Open
              || this == RAIL
                  && (f instanceof Fault.Missing
                      || f instanceof Fault.Dead
                      || f instanceof Fault.Turned);
      case VALUE ->
          f instanceof Fault.WrongValue
              || f instanceof Fault.Resistive
              || f instanceof Fault.Bridge;
      case DESIGN -> f instanceof Fault.Tied || f instanceof Fault.Loose;
    };
  }

  /// The fault as it is hidden.
  Fault hidden(Fault f) {
    return this == INTERMITTENT ? new Fault.Sometimes(SOMETIMES, f) : f;
  }

  /// What the five are about, for a list.
  public static List<Level> course() {
    return List.of(values());
  }
}
