package ell.work.talk;

import ell.core.entry.Entry;
import ell.core.pulse.Baud;
import ell.core.pulse.PulseFacts;
import ell.core.pulse.Wanted;
import ell.core.quantity.Verdict;
import ell.core.rack.Plan;
import ell.core.talk.HeardText;
import ell.core.talk.RateGuess;
import ell.core.talk.SerialPort;
import ell.core.talk.TalkFacts;
import ell.core.talk.TalkReasons;
import ell.core.talk.TalkSymptom;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What it may mean when a board does not say what was expected: how it behaves, and which single
/// faults of the board model behave like that.
final class TalkMeaning {
  private static final int MOST = 20;

  /// Share of bytes that are no text above which it is garbage; typical, no source.
  private static final double GARBAGE = 0.2;

  private TalkMeaning() {}

  /// Sentences.
  ///
  /// @param spoke whether anything came
  /// @param heard the first of it
  /// @param healthy what a healthy board says, where it is kept
  static List<String> of(
      Plan plan,
      TalkFacts facts,
      PulseFacts pulse,
      boolean spoke,
      byte[] heard,
      List<Entry.Talk.Step> steps,
      Optional<String> healthy) {
    TalkSymptom s = symptom(spoke, heard, steps);
    List<String> all = new ArrayList<>();
    switch (s) {
      case SILENT -> all.add("nothing comes from the board: has it power, is it the right line?");
      case GARBAGE -> {
        all.add("what comes is no text: sender and receiver do not go at one rate");
        double baud =
            plan.talk()
                .port()
                .map(SerialPort::baud)
                .filter(b -> b > 0)
                .orElse(SerialPort.USUAL_BAUD);
        healthy
            .or(() -> Optional.of("loader 1: no program\r\n"))
            .flatMap(h -> RateGuess.of(heard, h, baud))
            .ifPresent(g -> all.add(g.words(baud)));
      }
      case DEAF ->
          all.add("the board speaks and does not answer: it does not hear, or its program hangs");
      case IN_LOADER -> all.add("only the loader speaks: a strap keeps the program from running");
      case FORGETS -> all.add("the board takes what it is told and forgets it");
      case EMPTY -> {
        all.add("its loader says that it holds no program: load it first");
        return all;
      }
      case FINE -> {
        return all;
      }
    }
    if (plan.talk().port().isEmpty()) {
      all.add(
          "which pins carry the line is not known, so nothing is said of them; say it: line PART"
              + " tx=JOINT rx=JOINT");
    }
    if (s == TalkSymptom.GARBAGE) {
      clock(plan, pulse).ifPresent(all::add);
    }
    TalkReasons.Found f = TalkReasons.of(plan.talk(), plan.ladder(), facts.stands(), s);
    if (!f.asItStands().isEmpty()) {
      all.add(f.asItStands());
    } else if (!f.faults().isEmpty()) {
      all.add(
          "single faults that behave so: "
              + String.join(", ", f.faults().subList(0, Math.min(MOST, f.faults().size())))
              + (f.faults().size() > MOST ? " and " + (f.faults().size() - MOST) + " more" : ""));
    }
    return all;
  }

  /// What the book's captures say of the clocks at the controller.
  private static Optional<String> clock(Plan plan, PulseFacts pulse) {
    for (Wanted w : plan.pulse().places()) {
      boolean its =
          plan.talk().port().isPresent()
              && plan.revision().net(w.net()).stream()
                  .anyMatch(j -> j.part().equals(plan.talk().port().get().controller()));
      Optional<Double> is =
          pulse.at(w.place()).flatMap(c -> c.measure("frequency")).map(m -> m.value());
      if (its && w.clock() > 0 && is.isPresent()) {
        double off = is.get() / w.clock() - 1;
        return Optional.of(
            String.format(
                java.util.Locale.ROOT,
                "%s was captured %.2g %% %s: %s",
                w.place(),
                Math.abs(100 * off),
                off < 0 ? "slow" : "fast",
                Math.abs(off) > Baud.budget(16)
                    ? "more than a line bears"
                    : "no more than a line bears, so it is not the crystal"));
      }
    }
    return Optional.empty();
  }

  private static TalkSymptom symptom(boolean spoke, byte[] heard, List<Entry.Talk.Step> steps) {
    Optional<Entry.Talk.Step> failed =
        steps.stream().filter(x -> x.verdict() != Verdict.WITHIN).reduce((a, b) -> b);
    if (failed.isEmpty()) {
      return TalkSymptom.FINE;
    }
    if (!spoke) {
      return TalkSymptom.SILENT;
    }
    HeardText t = new HeardText();
    String text = t.take(heard, 0, heard.length);
    if (t.odd() > GARBAGE * heard.length) {
      return TalkSymptom.GARBAGE;
    }
    boolean loading = failed.get().got().contains("it is not loaded");
    if (text.contains("loader 1: no program") && !loading) {
      return TalkSymptom.EMPTY;
    }
    if (text.contains("strap")) {
      return TalkSymptom.IN_LOADER;
    }
    if (failed.get().got().contains("kept")) {
      return TalkSymptom.FORGETS;
    }
    boolean nothing =
        failed.get().got().equals(Hearing.NOTHING)
            || failed.get().got().contains("does not answer");
    return nothing && !failed.get().sent().isEmpty() ? TalkSymptom.DEAF : TalkSymptom.FINE;
  }
}
