package ell.work.send;

import ell.book.Build;
import ell.core.beep.BeepCheck;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.Ladder.RailSpec;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.rack.Plan;
import ell.core.rack.Standing;
import ell.core.record.BoardRecord;
import ell.core.record.BoardRecord.CheckLine;
import ell.core.record.BoardRecord.LogLine;
import ell.core.record.BoardRecord.ReadingLine;
import ell.core.record.BoardRecord.StepLine;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;


/// Gathers the record of one board from the book.
public final class RecordMaker {
  /// How a time is written for people.
  public static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss", Locale.ROOT);

  private RecordMaker() {}

  /// The record as the book stands.
  public static BoardRecord of(Workshop w, String board, OffsetDateTime now)
      throws IOException, ActException {
    Build build = w.buildOf(board);
    Plan plan = w.plan(build);
    BoardState s = w.state(board);
    List<StepLine> steps =
        plan.order().steps().stream()
            .map(x ->
                new StepLine(
                    x.number(),
                    x.action().words(),
                    x.gate().map(g -> "gate " + g).orElse(String.join(" ", x.parts())),
                    Standing.stepDone(s, x)))
            .toList();
    List<CheckLine> checks =
        plan.beep().checks().stream()
            .filter(c -> s.checks().containsKey(c.key()))
            .map(c -> line(c, s))
            .toList();
    Set<String> onRails = new HashSet<>();
    List<ReadingLine> rails = new ArrayList<>();
    for (RailSpec r : plan.ladder().fromBench()) {
      onRails.add(r.net());
      onRails.add(r.readAt());
      Optional<Entry.Reading> read = Standing.railReading(s, r);
      rails.add(
          new ReadingLine(
              r.net() + (r.readAt().isEmpty() ? "" : " at " + r.readAt()),
              read.map(Entry.Reading::value),
              Unit.VOLT,
              Optional.of(new Limits(r.low(), r.high())),
              read.flatMap(Entry.Reading::uncertainty),
              read.flatMap(Entry.Reading::verdict)));
    }
    List<ReadingLine> others = new ArrayList<>();
    s.readings()
        .forEach((place, l) -> {
          if (!onRails.contains(place) && l.entry() instanceof Entry.Reading r) {
            others.add(
                new ReadingLine(
                    place,
                    Optional.of(r.value()),
                    r.unit(),
                    r.limits(),
                    r.uncertainty(),
                    r.verdict()));
          }
        });
    List<LogLine> log = new ArrayList<>();
    for (Logged l : w.entries(board)) {
      log.add(
          new LogLine(
              l.number(),
              l.at().format(TIME),
              EntryWords.of(l.entry()),
              s.struck().contains(l.number())));
    }
    return new BoardRecord(
        board,
        plan.revision().title(),
        build.method() + ", " + build.alloy() + ", build " + build.id(),
        Standing.of(s, plan).phrase(),
        now.format(TIME),
        w.book().seal(),
        steps,
        checks,
        rails,
        others,
        s.findings().stream().map(f -> f.place() + " " + f.what()).toList(),
        log);
  }

  private static CheckLine line(BeepCheck c, BoardState s) {
    Entry.Check e = (Entry.Check) s.checks().get(c.key()).entry();
    return new CheckLine(
        c.kind().key(),
        c.netA().equals(c.netB())
            ? c.netA() + ": " + c.a().place() + " to " + c.b().place()
            : c.netA() + " to " + c.netB(),
        EntryWords.ohms(e.ohms()),
        e.limits().text(Unit.OHM, 3),
        e.verdict().key());
  }
}
