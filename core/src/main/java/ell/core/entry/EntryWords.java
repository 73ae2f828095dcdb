package ell.core.entry;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;


/// An entry in one line of plain words, the same on the tape, in the terminal and in the record.
public final class EntryWords {
  private EntryWords() {}

  /// The words of an entry.
  public static String of(Entry entry) {
    return switch (entry) {
      case Entry.StepDone s ->
          "step " + s.number() + " " + s.action() + (s.parts().isEmpty() ? "" : " · " + parts(s));
      case Entry.Gate g ->
          "gate " + g.gate() + (g.held() ? " holds" : " does not hold") + tail(g.why());
      case Entry.Reading r ->
          r.place()
              + " "
              + EngineeringNumber.print(r.value(), r.unit(), 4)
              + r.verdict().map(v -> " · " + v.words()).orElse("");
      case Entry.Check c ->
          c.kind()
              + " "
              + c.netA()
              + (c.netA().equals(c.netB()) ? " " + c.a() + " " + c.b() : " to " + c.netB())
              + " "
              + ohms(c.ohms())
              + " · "
              + c.verdict().words();
      case Entry.Defect d -> d.place() + " " + d.defect() + tail(d.text());
      case Entry.Action a -> a.place() + " " + a.action() + tail(a.text());
      case Entry.Note n -> n.text();
      case Entry.Supply s ->
          "supply "
              + (s.on() ? "on" : "off")
              + " · "
              + EngineeringNumber.print(s.volts(), Unit.VOLT, 3)
              + " · limit "
              + EngineeringNumber.print(s.limit(), Unit.AMPERE, 3)
              + s.amps().map(a -> " · " + EngineeringNumber.print(a, Unit.AMPERE, 3)).orElse("")
              + tail(s.why());
      case Entry.Override o -> o.rule() + " set aside" + tail(o.why());
      case Entry.Fitted f -> f.place() + " fitted with " + f.code() + tail(f.why());
      case Entry.Lost l ->
          l.place() + (l.count() == 1 ? " lost" : " lost " + l.count() + " parts") + tail(l.why());
      case Entry.Stock s ->
          s.change().key()
              + " "
              + s.code()
              + " "
              + s.quantity()
              + (s.bin().isEmpty() ? "" : " in bin " + s.bin())
              + s.due().map(d -> " due " + d).orElse("")
              + tail(s.why());
      case Entry.Strike s -> "strikes " + s.target() + tail(s.why());
      case Entry.Printed p ->
          "printed the "
              + p.side()
              + " side"
              + (p.wiped() ? ", foil wiped" : "")
              + (p.jar().isEmpty() ? "" : " · jar " + p.jar());
      case Entry.PasteSeen p -> p.place() + " paste " + p.look().key();
      case Entry.Jar j -> "jar " + j.jar() + " " + j.move().key() + tail(j.why());
      case Entry.Bag b ->
          "bag of "
              + b.code()
              + (b.open() ? " opened" : " closed")
              + (b.level().isEmpty() ? "" : " · level " + b.level());
      case Entry.HeatRun h ->
          "profile"
              + (h.side().isEmpty() ? "" : " of the " + h.side() + " side")
              + " against "
              + h.window()
              + h.verdict().map(v -> " · " + v.words()).orElse("")
              + (Double.isFinite(h.pwi())
                  ? " · window index " + EngineeringNumber.print(h.pwi(), Unit.ONE, 3)
                  : "")
              + tail(h.source());
      case Entry.Seen s ->
          s.places().size() == 1
              ? s.places().getFirst() + " looks good"
              : s.places().size() + " joints look good, the last " + s.places().getLast();
      case Entry.Photo p -> p.place() + " photograph " + p.name();
      case Entry.Hands h -> "at the bench: " + h.who();
    };
  }

  /// What would settle a reading that is too close to call, empty for any other.
  public static String settling(Entry.Reading r) {
    if (r.verdict().filter(v -> v == Verdict.CLOSE).isEmpty() || r.limits().isEmpty()) {
      return "";
    }
    double needed = r.limits().get().settling(r.value());
    return "a meter or range known to better than ±"
        + EngineeringNumber.print(needed, r.unit(), 2)
        + " would settle it; this reading is known to ±"
        + EngineeringNumber.print(r.uncertainty().orElse(0.0), r.unit(), 2);
  }

  /// Ohms in words, an open loop as such.
  public static String ohms(double ohms) {
    return Double.isInfinite(ohms) ? "open loop" : EngineeringNumber.print(ohms, Unit.OHM, 3);
  }

  private static String parts(Entry.StepDone s) {
    return s.parts().size() <= 6
        ? String.join(" ", s.parts())
        : String.join(" ", s.parts().subList(0, 6)) + " and " + (s.parts().size() - 6) + " more";
  }

  private static String tail(String why) {
    return why.isEmpty() ? "" : " · " + why;
  }
}
