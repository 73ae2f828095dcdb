package ell.core.power;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import java.util.Locale;
import java.util.Optional;

/// Faults in words, the same wherever one is written: `open U3.4`, `resistive J1.1 3.3ohm`, `bridge
/// U4.2 U4.3 0.5ohm` (joints or nets), `value R5 47k`, `turned D1`, `dead U2`, `short C9`, `missing
/// C4`, `tied U6.7 3V3`, `loose U1.8`, `link L1 open`, `setting scope ac`, `firmware WORDS`,
/// `sometimes 0.3 open U3.4`.
public final class FaultWords {
  private static final double BRIDGE_OHM = 0.1;
  private static final String EXPECTED =
      "expected such as open U3.4, resistive J1.1 3.3ohm, bridge U4.2 U4.3 0.5ohm, value R5 47k,"
          + " turned D1, dead U2, short C9, missing C4, tied U6.7 3V3, loose U1.8, link L1 open,"
          + " setting meter current-jack, firmware WORDS or sometimes 0.3 open U3.4";

  private FaultWords() {}

  /// Reads a fault.
  ///
  /// @throws IllegalArgumentException saying what was expected
  public static Fault parse(String text) {
    String[] w = text.strip().split("\\s+");
    String kind = w[0].toLowerCase(Locale.ROOT);
    return switch (kind) {
      case "open" -> {
        String[] j = joint(w, 2, text);
        yield new Fault.Open(j[0], j[1]);
      }
      case "loose" -> {
        String[] j = joint(w, 2, text);
        yield new Fault.Loose(j[0], j[1]);
      }
      case "resistive" -> {
        String[] j = joint(w, 3, text);
        yield new Fault.Resistive(j[0], j[1], ohms(w[2], text));
      }
      case "tied" -> {
        String[] j = joint(w, 3, text);
        yield new Fault.Tied(j[0], j[1], w[2]);
      }
      case "bridge" -> {
        counted(w, 3, 4, text);
        yield new Fault.Bridge(w[1], w[2], w.length == 4 ? ohms(w[3], text) : BRIDGE_OHM);
      }
      case "value" -> {
        counted(w, 3, 3, text);
        yield new Fault.WrongValue(w[1], notNegative(value(w[2], text), text));
      }
      case "turned" -> new Fault.Turned(part(w, text));
      case "dead" -> new Fault.Dead(part(w, text));
      case "short" -> new Fault.Short(part(w, text));
      case "missing" -> new Fault.Missing(part(w, text));
      case "link" -> {
        counted(w, 3, 3, text);
        boolean open = w[2].equalsIgnoreCase("open");
        if (!open && !w[2].equalsIgnoreCase("closed")) {
          throw wrong(text);
        }
        yield new Fault.Link(w[1], open);
      }
      case "setting" -> {
        counted(w, 3, 3, text);
        boolean jig = w[1].equalsIgnoreCase("jig"); // behind it stands a net, in its own spelling
        yield new Fault.Setting(
            w[1].toLowerCase(Locale.ROOT), jig ? w[2] : w[2].toLowerCase(Locale.ROOT));
      }
      case "firmware" -> {
        counted(w, 2, Integer.MAX_VALUE, text);
        yield new Fault.Firmware(text.strip().substring(w[0].length()).strip());
      }
      case "sometimes" -> {
        counted(w, 3, Integer.MAX_VALUE, text);
        String rest = text.strip().split("\\s+", 3)[2];
        if (w[2].equalsIgnoreCase("sometimes")) {
          throw wrong(text); // one chance is enough
        }
        yield new Fault.Sometimes(value(w[1], text), parse(rest));
      }
      default -> throw wrong(text);
    };
  }

  private static IllegalArgumentException wrong(String text) {
    return new IllegalArgumentException(
        "'" + text.strip() + "' is no fault that is known; " + EXPECTED);
  }

  private static void counted(String[] w, int least, int most, String text) {
    if (w.length < least || w.length > most) {
      throw wrong(text);
    }
  }

  private static String part(String[] w, String text) {
    counted(w, 2, 2, text);
    return w[1];
  }

  private static String[] joint(String[] w, int words, String text) {
    counted(w, words, words, text);
    int dot = w[1].lastIndexOf('.');
    if (dot < 1 || dot == w[1].length() - 1) {
      throw wrong(text);
    }
    return new String[] {w[1].substring(0, dot), w[1].substring(dot + 1)};
  }

  private static double ohms(String text, String whole) {
    return notNegative(value(text.replaceFirst("(?i)(ohms?|Ω)$", ""), whole), whole);
  }

  /// A value in the part's own unit, which may stand behind it: `47k`, `11.0592MHz`.
  private static double value(String text, String whole) {
    try {
      return EngineeringNumber.read(text, Unit.ONE).value();
    } catch (NumberFormatException e) {
      throw wrong(whole);
    }
  }

  private static double notNegative(double v, String text) {
    if (!(v >= 0)) {
      throw wrong(text);
    }
    return v;
  }

  /// A fault in words, as [#parse] reads it.
  public static String words(Fault fault) {
    return switch (fault) {
      case Fault.Open f -> "open " + f.part() + "." + f.pin();
      case Fault.Loose f -> "loose " + f.part() + "." + f.pin();
      case Fault.Resistive f ->
          "resistive " + f.part() + "." + f.pin() + " " + number(f.ohms()) + "ohm";
      case Fault.Tied f -> "tied " + f.part() + "." + f.pin() + " " + f.net();
      case Fault.Bridge f -> "bridge " + f.a() + " " + f.b() + " " + number(f.ohms()) + "ohm";
      case Fault.WrongValue f -> "value " + f.part() + " " + number(f.ohms());
      case Fault.Turned f -> "turned " + f.part();
      case Fault.Dead f -> "dead " + f.part();
      case Fault.Short f -> "short " + f.part();
      case Fault.Missing f -> "missing " + f.part();
      case Fault.Link f -> "link " + f.part() + (f.open() ? " open" : " closed");
      case Fault.Setting f -> "setting " + f.instrument() + " " + f.what();
      case Fault.Firmware f -> "firmware " + f.words();
      case Fault.Sometimes f -> "sometimes " + number(f.chance()) + " " + words(f.fault());
    };
  }

  private static String number(double d) {
    return new java.math.BigDecimal(d)
        .round(new java.math.MathContext(6))
        .stripTrailingZeros()
        .toPlainString();
  }

  /// What of a fault does not fit a board, or cannot be shown on this bench; empty when it can be.
  public static Optional<String> unfit(Fault fault, Revision revision) {
    return switch (fault) {
      case Fault.Open f -> joint(f.part(), f.pin(), revision);
      case Fault.Loose f -> joint(f.part(), f.pin(), revision);
      case Fault.Resistive f -> joint(f.part(), f.pin(), revision);
      case Fault.Tied f ->
          joint(f.part(), f.pin(), revision).or(() -> place(f.net(), revision, false));
      case Fault.Bridge f -> place(f.a(), revision, true).or(() -> place(f.b(), revision, true));
      case Fault.WrongValue f -> part(f.part(), revision);
      case Fault.Turned f ->
          part(f.part(), revision)
              .or(() ->
                  switch (revision.part(f.part()).map(Part::kind).orElse(PartKind.OTHER)) {
                    case DIODE, LED, RESISTOR, CAPACITOR, INDUCTOR, FERRITE, FUSE ->
                        Optional.empty();
                    default ->
                        Optional.of(
                            "what "
                                + f.part()
                                + " does when it is turned is not known to this bench");
                  });
      case Fault.Dead f -> part(f.part(), revision);
      case Fault.Short f -> part(f.part(), revision).or(() -> twoNets(f.part(), revision));
      case Fault.Missing f -> part(f.part(), revision);
      case Fault.Link f -> // a link of solder is no part of the bill
          revision.jointsOf(f.part()).isEmpty()
              ? part(f.part(), revision)
              : twoNets(f.part(), revision);
      case Fault.Setting(String instrument, String what)
          when instrument.equals("meter") && what.equals("current-jack")
              || instrument.equals("scope") && (what.equals("ac") || what.equals("x10")) ->
          Optional.empty();
      case Fault.Setting f ->
          Optional.of("this bench has no " + f.instrument() + " that could be set to " + f.what());
      case Fault.Firmware _ -> Optional.empty();
      case Fault.Sometimes f -> unfit(f.fault(), revision);
    };
  }

  private static Optional<String> part(String part, Revision revision) {
    return revision.part(part).isPresent()
        ? Optional.empty()
        : Optional.of(revision.title() + " has no part '" + part + "'");
  }

  private static Optional<String> joint(String part, String pin, Revision revision) {
    return revision.joint(part, pin).isPresent()
        ? Optional.empty()
        : Optional.of(revision.title() + " has no joint '" + part + "." + pin + "'");
  }

  private static Optional<String> place(String name, Revision revision, boolean orJoint) {
    if (!revision.net(name).isEmpty()) {
      return Optional.empty();
    }
    int dot = name.lastIndexOf('.');
    return orJoint && dot > 0
        ? joint(name.substring(0, dot), name.substring(dot + 1), revision)
        : Optional.of(revision.title() + " has no net '" + name + "'");
  }

  private static Optional<String> twoNets(String part, Revision revision) {
    return revision.jointsOf(part).stream().map(Joint::net).distinct().count() >= 2
        ? Optional.empty()
        : Optional.of(part + " does not lie between two nets");
  }
}
