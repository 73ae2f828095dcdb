package ell.trials.trace;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.Ladder;
import ell.core.practice.MadeFaults;
import java.util.List;
import java.util.Random;

/// What is wrong with a board of a trial.
///
/// @param kind of what kind
/// @param faults one, or two at once
public record Trouble(Kind kind, List<Fault> faults) {
  /// At how many tries what comes and goes is there.
  static final double SOMETIMES = 0.5;

  public Trouble {
    faults = List.copyOf(faults);
  }

  /// Of what kind it is, and how many of a hundred are.
  public enum Kind {
    /// One fault of the build.
    SINGLE(70),
    /// Two of them at once.
    PAIR(10),
    /// A pin of a chip that is drawn wrongly.
    DESIGN(10),
    /// One that is there at some tries only.
    SOMETIMES(5),
    /// The lead of the meter in its jack for currents.
    INSTRUMENT(5);

    private final int ofHundred;

    Kind(int ofHundred) {
      this.ofHundred = ofHundred;
    }

    static Kind of(Random random) {
      int at = random.nextInt(100);
      for (Kind k : values()) {
        at -= k.ofHundred;
        if (at < 0) {
          return k;
        }
      }
      throw new IllegalStateException("the shares of the kinds are not a hundred");
    }
  }

  /// One of any kind; on a board without chips none whose pin is drawn wrongly.
  public static Trouble of(Revision r, Ladder l, Random random) {
    Kind kind = Kind.of(random);
    if (kind == Kind.DESIGN && chips(r).isEmpty()) {
      kind = Kind.SINGLE;
    }
    return new Trouble(
        kind,
        switch (kind) {
          case SINGLE -> List.of(MadeFaults.of(r, random));
          case PAIR -> pair(r, random);
          case DESIGN -> List.of(design(r, l, random));
          case SOMETIMES -> List.of(new Fault.Sometimes(SOMETIMES, comes(r, random)));
          case INSTRUMENT -> List.of(new Fault.Setting("meter", "current-jack"));
        });
  }

  private static List<Fault> pair(Revision r, Random random) {
    Fault a = MadeFaults.of(r, random);
    Fault b = MadeFaults.of(r, random);
    while (b.equals(a)) {
      b = MadeFaults.of(r, random);
    }
    return List.of(a, b);
  }

  private static Fault comes(Revision r, Random random) {
    while (true) {
      Fault f = MadeFaults.of(r, random);
      if (f instanceof Fault.Open || f instanceof Fault.Resistive || f instanceof Fault.Bridge) {
        return f;
      }
    }
  }

  private static List<Part> chips(Revision r) {
    return r.parts().stream().filter(p -> p.fitted() && p.kind() == PartKind.CHIP).toList();
  }

  private static Fault design(Revision r, Ladder l, Random random) {
    List<Part> chips = chips(r);
    while (true) {
      List<Joint> pins = r.jointsOf(chips.get(random.nextInt(chips.size())).reference());
      Joint j = pins.get(random.nextInt(pins.size()));
      String to = l.rails().get(random.nextInt(l.rails().size())).net();
      Fault f =
          random.nextBoolean()
              ? new Fault.Loose(j.part(), j.pin())
              : new Fault.Tied(j.part(), j.pin(), random.nextBoolean() ? l.ground() : to);
      boolean own = f instanceof Fault.Tied t && t.net().equals(j.net());
      if (j.connected() && !own && FaultWords.unfit(f, r).isEmpty()) {
        return f;
      }
    }
  }

  /// As it is while it is there.
  List<Fault> steady() {
    return faults.stream()
        .map(f -> f instanceof Fault.Sometimes(double _, Fault g) ? g : f)
        .toList();
  }
}
