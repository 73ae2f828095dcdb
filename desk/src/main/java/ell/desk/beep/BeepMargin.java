package ell.desk.beep;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepList;
import ell.core.beep.ShortPlaces;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.quantity.Accuracy;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import ell.desk.shell.Margin;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/// What the margin says of a check: what is expected and why, what the reading was, what to take
/// care of, where to look.
final class BeepMargin {
  private BeepMargin() {}

  /// Says it.
  ///
  /// @param reading of the check, when it was made
  static Margin say(
      BeepList list, BeepCheck c, Optional<Entry.Check> reading, List<ShortPlaces.Place> places) {
    BeepList.Coverage v = list.coverage();
    Worked.Builder s =
        Worked.of("beep.check", "Why " + c.expected().text(Unit.OHM, 3))
            .line(
                "between",
                c.kind().key(),
                c.netA().equals(c.netB()) ? c.netA() : c.netA() + " and " + c.netB())
            .line(
                "expected",
                "resistors of the netlist solved as a network",
                c.expected().text(Unit.OHM, 3));
    reading.ifPresent(r -> {
      s.line("read", "by the meter", EntryWords.ohms(r.ohms()));
      if (Double.isFinite(r.ohms())) {
        s.line(
            "U",
            "meter " + Accuracy.handheldOhms(r.ohms()),
            Accuracy.handheldOhms(r.ohms()).uncertainty(r.ohms()),
            Unit.OHM);
      }
      s.verdict(r.verdict());
    });
    s.source("nodal analysis, Kirchhoff's current law; JCGM 106:2012 for the verdict")
        .assume("chips and capacitors lead a little, a short leads like copper");
    List<Margin.Note> notes = new ArrayList<>();
    if (!places.isEmpty()) {
      notes.add(Margin.Note.plain("Where it may sit", where(places)));
    }
    notes.add(Margin.Note.plain("Why this check", List.of(c.why())));
    notes.add(
        Margin.Note.care(
            List.of(
                "No power on the board, no cell in its holder, capacitors discharged.",
                "Hold the tips without pressing: a cold joint beeps while it is pressed.")));
    notes.add(
        Margin.Note.wrong(
            c.kind() == BeepCheck.Kind.ISOLATION
                ? List.of(
                    "beeps for a moment, then stops: a capacitor charges",
                    "beeps steadily: look for a bridge at the finest pins of both nets",
                    "reads low without a beep: a part turned round, or flux")
                : List.of(
                    "no beep: the joint was never made, or is cold",
                    "touch the pin, not the pad, then the pad")));
    notes.add(
        Margin.Note.plain(
            "What the list catches",
            Stream.concat(
                    v.words().stream(),
                    Stream.of("an open one of several joints of a supply net does not show"))
                .toList()));
    return new Margin(Optional.of(s.done()), notes);
  }

  private static final int MOST = 5;

  private static List<String> where(List<ShortPlaces.Place> places) {
    List<String> lines = new ArrayList<>();
    for (int i = 0; i < Math.min(MOST, places.size()); i++) {
      ShortPlaces.Place p = places.get(i);
      lines.add(
          String.format(
              Locale.ROOT,
              "%d  %s – %s, %.0f %%: %s",
              i + 1,
              p.a().place(),
              p.b().place(),
              100 * p.probability(),
              String.join(", ", p.why())));
    }
    lines.add(
        "milliohms at three or more joints along one net point to it, the other tip staying where it"
            + " is: "
            + places.getFirst().a().place()
            + " 24mohm");
    lines.add(
        "or a small current, board unpowered, no more than 0.5 V and 0.1 A: log where it goes in, "
            + places.getFirst().a().place()
            + " 100mA, then millivolts along that net");
    return lines;
  }
}
