package ell.core.kit.substitute;

import static ell.core.kit.substitute.Trait.*;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/// Which parameters decide for a kind of part; common practice, no source.
public enum Template {
  /// Resistor.
  RESISTOR(RESISTANCE, List.of(RESISTANCE, TOLERANCE, POWER, OUTLINE)),
  /// Capacitor.
  CAPACITOR(CAPACITANCE, List.of(CAPACITANCE, VOLTAGE, DIELECTRIC, TOLERANCE, OUTLINE)),
  /// Crystal.
  CRYSTAL(
      FREQUENCY,
      List.of(FREQUENCY, LOAD_CAPACITANCE, SERIES_RESISTANCE, DRIVE_LEVEL, TOLERANCE, OUTLINE)),
  /// Oscillator.
  OSCILLATOR(
      FREQUENCY, List.of(FREQUENCY, SUPPLY_LOW, SUPPLY_HIGH, OUTPUT, TOLERANCE, ENABLE, OUTLINE)),
  /// Diode.
  DIODE(null, List.of(TYPE, REVERSE_VOLTAGE, CURRENT, FORWARD_VOLTAGE, OUTLINE)),
  /// Transistor that switches at logic level.
  SWITCH(null, List.of(POLARITY, SWITCH_VOLTAGE, GATE_VOLTAGE, CURRENT, PINOUT, OUTLINE)),
  /// Regulator.
  REGULATOR(
      OUTPUT_VOLTAGE,
      List.of(OUTPUT_VOLTAGE, DROPOUT, INPUT_VOLTAGE, CURRENT, ENABLE, PINOUT, OUTLINE)),
  /// Memory.
  MEMORY(null, List.of(INTERFACE, SIZE, PAGE, SUPPLY_LOW, SUPPLY_HIGH, PINOUT, OUTLINE)),
  /// Connector.
  CONNECTOR(null, List.of(TYPE, PINS, PITCH, GENDER, MOUNTING, CURRENT, OUTLINE)),
  /// Anything else.
  OTHER(null, List.of(TYPE, SUPPLY_LOW, SUPPLY_HIGH, INTERFACE, PINOUT, OUTLINE));

  private final Trait main;
  private final List<Trait> traits;

  Template(Trait main, List<Trait> traits) {
    this.main = main;
    this.traits = traits;
  }

  /// The parameters, the one that is asked first first.
  public List<Trait> traits() {
    return traits;
  }

  /// The parameter that a bill gives as the value.
  public Optional<Trait> mainTrait() {
    return Optional.ofNullable(main);
  }

  /// The template for a part of a revision.
  public static Template of(Revision revision, Ladder ladder, Part part) {
    PartKind kind = part.kind();
    String words =
        (part.value() + " " + part.code() + " " + part.description()).toLowerCase(Locale.ROOT);
    boolean regulates =
        ladder.steps().stream().anyMatch(s -> s.part().equals(part.reference()) && s.regulates());
    if (regulates) {
      return REGULATOR;
    }
    return switch (kind) {
      case RESISTOR -> RESISTOR;
      case CAPACITOR -> CAPACITOR;
      case CRYSTAL ->
          words.contains("oscillator") || powered(revision, ladder, part) ? OSCILLATOR : CRYSTAL;
      case DIODE, LED -> DIODE;
      case TRANSISTOR -> SWITCH;
      case CONNECTOR, CELL -> CONNECTOR;
      default -> words.matches(".*(eeprom|flash|sram|fram|memory|\\beep).*") ? MEMORY : OTHER;
    };
  }

  /// Whether a pin is on a rail, as that of an oscillator is.
  private static boolean powered(Revision revision, Ladder ladder, Part part) {
    return revision.jointsOf(part.reference()).stream()
        .map(Joint::net)
        .anyMatch(n -> ladder.rail(n).isPresent());
  }
}
