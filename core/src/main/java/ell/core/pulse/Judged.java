package ell.core.pulse;

import ell.core.entry.Entry.Capture.Measure;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.series.Series;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// A capture at a place, held against what should be there: what the instrument may have done to it
/// comes first, then measures against their limits, then the signatures that it looks like.
///
/// @param counted by the thresholds of the place, if they are known
/// @param measures in their order; those with limits carry a verdict
/// @param told what the instrument may have done, and what is guessed or not settled
/// @param signature that it looks like, the first of those that match
/// @param verdict the worst of all that was judged, empty when nothing was
public record Judged(
    Wanted wanted,
    Wave wave,
    Optional<Counted> counted,
    List<Measure> measures,
    List<String> told,
    Optional<Signature> signature,
    Optional<Verdict> verdict) {
  private static final double LONGER = 50;

  public Judged {
    measures = List.copyOf(measures);
    told = List.copyOf(told);
  }

  /// Judges a channel.
  ///
  /// @param bandwidth of the instrument, Hz; 0 when it is not known
  /// @throws IllegalArgumentException when there are fewer than two samples
  public static Judged of(Series s, Wanted wanted, List<Signature> signatures, double bandwidth) {
    Wave w = Wave.of(s);
    Optional<Counted> counted =
        w.edges() == 0
            ? Optional.empty()
            : wanted
                .thresholds()
                .filter(t -> Double.isFinite(t.vil()) && Double.isFinite(t.vih()))
                .map(t -> Counted.of(s, t.vil(), t.vih()));
    Pulses pulses = Pulses.of(s, w, wanted.thresholds());
    List<Measure> measures = Measures.of(w, counted, pulses, s.most(), s.least());
    Optional<Signature> like = signatures.stream().filter(x -> x.matches(measures)).findFirst();
    List<String> told = new ArrayList<>(Suspicion.of(s, w, bandwidth));
    Map<String, Limits> limits = limits(wanted, w, counted, like, told);
    List<Measure> judged = new ArrayList<>();
    for (Measure m : measures) {
      judged.add(limits.containsKey(m.name()) ? m.against(limits.get(m.name())) : m);
    }
    for (String name : limits.keySet()) {
      if (measures.stream().noneMatch(m -> m.name().equals(name))) {
        told.add(name + " has limits, and the capture has too little of it to say");
      }
    }
    guesses(wanted, counted, told);
    judged.stream()
        .filter(m -> m.name().equals("frequency") && m.verdict().equals(Optional.of(Verdict.CLOSE)))
        .findFirst()
        .ifPresent(m ->
            told.add(
                "the clock is known to "
                    + String.format(
                        java.util.Locale.ROOT, "%.3g", 1e6 * m.uncertainty() / m.value())
                    + " ppm: a longer look settles it, such as "
                    + EngineeringNumber.print(LONGER * s.duration(), Unit.SECOND, 2)
                    + ", or a counter"));
    Optional<Verdict> worst =
        judged.stream().flatMap(m -> m.verdict().stream()).max(Verdict::compareTo);
    if (like.isPresent() && !like.get().good()) {
      worst = Optional.of(Verdict.OUT);
    } else if (wanted.clock() > 0 && !wanted.clockGuessed() && w.edges() == 0) {
      told.add(
          "no clock, and "
              + EngineeringNumber.print(wanted.clock(), Unit.HERTZ, 4)
              + " should be there; some begin only after a boot loader has run");
      worst = Optional.of(Verdict.OUT);
    }
    return new Judged(wanted, w, counted, judged, told, like, worst);
  }

  private static Map<String, Limits> limits(
      Wanted wanted,
      Wave w,
      Optional<Counted> counted,
      Optional<Signature> like,
      List<String> told) {
    Map<String, Limits> all = new java.util.LinkedHashMap<>();
    if (like.isPresent()) {
      all.putAll(like.get().limits()); // a state that somebody knows has limits of its own
    }
    if (wanted.judges() && w.edges() > 0) {
      Arrives.Input in = wanted.thresholds().orElseThrow();
      if (Double.isFinite(in.most())) {
        all.put("peak", Limits.atMost(in.most()));
      }
      if (Double.isFinite(in.slowest()) && counted.isPresent()) {
        all.put("dwell", Limits.atMost(in.slowest() * (in.vih() - in.vil())));
        all.put("doubleClocks", Limits.atMost(0));
      }
      if (Double.isFinite(in.vil()) && Double.isFinite(in.vih())) {
        all.put("low", Limits.atMost(in.vil()));
        all.put("high", Limits.atLeast(in.vih()));
      }
    }
    if (wanted.clock() > 0 && w.edges() > 0) {
      if (wanted.within() > 0) {
        double off = wanted.within() * wanted.clock();
        all.put("frequency", new Limits(wanted.clock() - off, wanted.clock() + off));
      } else if (!wanted.clockGuessed()) {
        told.add(
            "how far the clock may be off was not said; say: " + wanted.place() + " within=100ppm");
      }
    }
    all.putAll(wanted.limits());
    return all;
  }

  private static void guesses(Wanted w, Optional<Counted> counted, List<String> told) {
    if (counted.filter(c -> c.doubles() > 0).isPresent()) {
      told.add(
          counted.get().doubles()
              + " edges would be counted twice by an input without hysteresis"
              + (w.judges() ? "" : ", if its thresholds are those"));
    }
    told.addAll(w.guesses());
  }

  /// One line: what it is, and what is not as it should be.
  public String words() {
    if (signature.isPresent()) {
      return signature.get().name();
    }
    List<String> out =
        measures.stream()
            .filter(m -> m.verdict().filter(v -> v != Verdict.WITHIN).isPresent())
            .sorted((a, b) -> b.verdict().get().compareTo(a.verdict().get()))
            .map(m ->
                m.words() + (m.verdict().get() == Verdict.CLOSE ? " " + Verdict.CLOSE.words() : ""))
            .toList();
    if (!out.isEmpty()) {
      return String.join(", ", out);
    }
    return wave.edges() == 0
        ? EngineeringNumber.print(wave.mean(), Unit.VOLT, 3) + ", no edges"
        : Double.isFinite(wave.period())
            ? EngineeringNumber.print(wave.frequency(), Unit.HERTZ, 5)
            : wave.edges() + (wave.edges() == 1 ? " edge" : " edges");
  }
}
