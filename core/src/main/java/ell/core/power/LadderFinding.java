package ell.core.power;

import static ell.core.quantity.EngineeringNumber.print;

import ell.core.power.Ladder.Kind;
import ell.core.power.Ladder.Load;
import ell.core.power.Ladder.Source;
import ell.core.power.LadderState.RailLoad;
import ell.core.power.LadderState.RegulatorHeat;
import ell.core.quantity.Unit;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/// Something of a ladder that does not add up in a state: a regulator that lacks volts or gives
/// more than it can, a fuse or a source that is asked for too much.
///
/// @param part that it is about, or the rail of a source
/// @param text a sentence
/// @param asks whether it rests on currents that nobody said: it is a question then
public record LadderFinding(String part, String text, boolean asks) {
  /// What a fuse carries for long, of what is written on it. Source: makers' advice of 75 %, common
  /// practice.
  private static final double FUSE_SHARE = 0.75;

  /// Above which silicon is too warm, and from which it is to be looked at, °C; typical, no source.
  private static final double HOT = 125;

  private static final double BURNS = 150;

  /// Before a device has been configured, and after. Source: USB 2.0, 7.2.1.
  private static final double USB_FIRST = 0.1;

  private static final double USB_MOST = 0.5;

  static List<LadderFinding> of(Ladder ladder, LadderState state) {
    List<LadderFinding> all = new ArrayList<>();
    for (RegulatorHeat r : state.regulators()) {
      regulator(ladder, r, guessed(ladder, r.step().to()), all);
    }
    for (Ladder.Step s : ladder.downwards()) {
      if (!s.regulates() && s.limit() > 0) {
        fuse(ladder, state, s, all);
      }
    }
    for (Source s : ladder.sources()) {
      source(ladder, state, s, all);
    }
    return all;
  }

  private static void regulator(
      Ladder ladder, RegulatorHeat r, boolean asks, List<LadderFinding> all) {
    String part = r.step().part();
    double low = r.headroomLow();
    if (low < 0 && ladder.lifts(r.step())) {
      all.add(
          new LadderFinding(
              part,
              part
                  + " lifts to "
                  + print(r.step().volts(), Unit.VOLT)
                  + " and its highest input is "
                  + print(-low, Unit.VOLT, 3)
                  + " above that: its output follows its input",
              false));
    } else if (low < 0) {
      all.add(
          new LadderFinding(
              part,
              part
                  + " lacks "
                  + print(-low, Unit.VOLT, 3)
                  + " at its lowest input: its output "
                  + r.step().to()
                  + " falls with the input",
              false));
    }
    if (r.step().limit() > 0 && r.current() > r.step().limit()) {
      all.add(
          new LadderFinding(
              part,
              part
                  + " is asked for "
                  + print(r.current(), Unit.AMPERE, 3)
                  + " and gives "
                  + print(r.step().limit(), Unit.AMPERE, 3),
              asks));
    }
    if (r.step().theta() > 0 && r.junction() > HOT) {
      all.add(
          new LadderFinding(
              part,
              part
                  + " comes to "
                  + print(r.junction(), Unit.CELSIUS, 3)
                  + " inside with "
                  + print(r.dissipation(), Unit.WATT, 2)
                  + (r.junction() > BURNS
                      ? ": more than silicon bears"
                      : ": close to what silicon bears"),
              asks));
    }
  }

  private static void fuse(
      Ladder ladder, LadderState state, Ladder.Step s, List<LadderFinding> all) {
    double amps = current(state, s.to());
    boolean fuse = s.kind() == Kind.PASS && s.part().toUpperCase(Locale.ROOT).startsWith("F");
    double most = fuse ? FUSE_SHARE * s.limit() : s.limit();
    if (amps > most) {
      all.add(
          new LadderFinding(
              s.part(),
              s.part()
                  + " carries "
                  + print(amps, Unit.AMPERE, 3)
                  + " of "
                  + print(s.limit(), Unit.AMPERE, 3)
                  + (fuse && amps <= s.limit() ? ": more than three quarters" : ": too much"),
              guessed(ladder, s.to())));
    }
  }

  private static void source(Ladder ladder, LadderState state, Source s, List<LadderFinding> all) {
    double amps = current(state, s.rail());
    boolean asks = guessed(ladder, s.rail());
    if (s.limit() > 0 && amps > s.limit()) {
      all.add(
          new LadderFinding(
              s.rail(),
              s.rail()
                  + " is asked for "
                  + print(amps, Unit.AMPERE, 3)
                  + " and bears "
                  + print(s.limit(), Unit.AMPERE, 3),
              asks));
    }
    boolean usb = s.rail().toUpperCase(Locale.ROOT).matches(".*(USB|VBUS).*");
    double most = state.state().equals("boot") ? USB_FIRST : USB_MOST;
    if (usb && amps > most) {
      all.add(
          new LadderFinding(
              s.rail(),
              s.rail()
                  + " draws "
                  + print(amps, Unit.AMPERE, 3)
                  + (state.state().equals("boot")
                      ? "; a port gives 100 mA before it has configured the device"
                      : "; a port gives 500 mA")
                  + " (USB 2.0)",
              asks));
    }
  }

  private static double current(LadderState state, String rail) {
    return state.rails().stream()
        .filter(r -> r.rail().net().equals(rail))
        .mapToDouble(RailLoad::current)
        .findFirst()
        .orElse(0);
  }

  /// Whether loads behind a rail are guessed.
  static boolean guessed(Ladder ladder, String rail) {
    Set<String> behind = new HashSet<>(Set.of(rail));
    for (Ladder.Step s : ladder.downwards()) {
      if (behind.contains(s.from())) {
        behind.add(s.to());
      }
    }
    return ladder.loads().stream().filter(Load::guessed).anyMatch(l -> behind.contains(l.rail()));
  }
}
