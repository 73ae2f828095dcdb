package ell.core.prove;

import ell.core.entry.Entry;
import ell.core.quantity.Unit;
import ell.core.record.Section;
import ell.core.record.Section.Row;
import ell.core.record.Section.Tone;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Proofs in a board's record: the latest run, step by step.
public final class ProveSection {
  private ProveSection() {}

  /// The section, empty when the board was never proved.
  public static Optional<Section> of(ProveFacts facts) {
    Optional<ProveFacts.Run> last = facts.last();
    if (last.isEmpty() && facts.released().isEmpty()) {
      return Optional.empty();
    }
    List<Row> rows = new ArrayList<>();
    facts
        .released()
        .ifPresent(l ->
            rows.add(
                Section.cells(
                    Tone.GOOD,
                    "left the bench " + Section.time(l.at()),
                    ((Entry.Released) l.entry()).text())));
    last.ifPresent(r -> run(r, rows));
    for (ProveFacts.Run r : facts.runs().reversed()) {
      if (!r.equals(last.orElse(null))) {
        rows.add(
            Section.cells(
                Tone.SOFT,
                "before, " + Section.time(r.at()),
                r.verdict().map(ProveSection::word).orElse("cut off")
                    + ", plan "
                    + r.begun().plan()));
      }
    }
    return Optional.of(
        new Section(
            "Proof",
            last.map(r ->
                    r.verdict().map(ProveSection::word).orElse("not ended")
                        + " \u00b7 plan "
                        + r.begun().plan())
                .orElse(""),
            List.of(0.34, 0.5),
            rows));
  }

  private static void run(ProveFacts.Run r, List<Row> rows) {
    rows.add(
        Section.cells(Tone.PLAIN, "begun " + Section.time(r.at()), "with " + r.begun().with()));
    for (Entry.ProofStep s : r.made()) {
      String name = s.name() + (s.round() > 1 ? ", try " + s.round() : "");
      boolean strip =
          s.value().filter(Double::isFinite).isPresent()
              && s.limits().filter(ProveSection::both).isPresent();
      if (strip) {
        rows.add(
            new Section.Strip(name, s.value(), s.unit(), s.limits(), s.uncertainty(), s.verdict()));
        continue;
      }
      String shown =
          s.value().map(v -> number(v, s.unit())).orElse("")
              + s.limits().map(l -> " (" + l.text(s.unit(), 4) + ")").orElse("")
              + (s.words().isEmpty() ? "" : s.value().isPresent() ? ", " + s.words() : s.words());
      rows.add(
          s.verdict().isPresent()
              ? Section.judged(s.verdict().get(), name, shown)
              : Section.cells(Tone.SOFT, name, (s.left() ? "left out: " : "") + shown));
    }
    r.ended()
        .map(l -> (Entry.ProofEnded) l.entry())
        .filter(e -> !e.why().isEmpty())
        .ifPresent(e -> rows.add(Section.cells(Tone.SOFT, "ended", e.why())));
  }

  private static boolean both(ell.core.quantity.Limits l) {
    return Double.isFinite(l.low()) && Double.isFinite(l.high());
  }

  private static String number(double v, Unit unit) {
    return Double.isInfinite(v) ? "open" : ell.core.quantity.EngineeringNumber.print(v, unit, 4);
  }

  /// A verdict of a whole proof, as it is said.
  public static String word(ell.core.quantity.Verdict v) {
    return switch (v) {
      case WITHIN -> "passed";
      case CLOSE -> "not settled";
      case OUT -> "failed";
    };
  }
}
