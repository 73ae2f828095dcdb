package ell.cli.prove;

import ell.core.prove.BuildProof;
import ell.core.prove.UseGate;
import ell.core.quantity.EngineeringNumber;
import java.io.PrintWriter;
import java.util.Locale;
import java.util.Map;

/// What the proofs of a build say, for people.
final class BuildText {
  private final PrintWriter out;

  BuildText(PrintWriter out) {
    this.out = out;
  }

  void print(BuildProof b, Map<String, UseGate> gates) {
    if (b.yield().isPresent()) {
      BuildProof.Rate y = b.yield().get();
      out.printf(
          Locale.ROOT,
          "first-pass yield %.1f %% (%.1f to %.1f %%), %d of %d boards%n",
          100 * y.value(),
          100 * y.low(),
          100 * y.high(),
          b.passed(),
          b.tested());
    } else {
      out.println("no board is tested yet");
    }
    b.rolled()
        .ifPresent(r ->
            out.printf(
                Locale.ROOT,
                "rolled yield %.1f %% (%.1f to %.1f %%)%n",
                100 * r.value(),
                100 * r.low(),
                100 * r.high()));
    b.told().forEach(out::println);
    out.println();
    for (BuildProof.OfTest t : b.tests()) {
      if (t.n() == 0) {
        continue;
      }
      out.printf(
          Locale.ROOT,
          "%-28s %3d made %3d failed%s%s%n",
          t.name(),
          t.n(),
          t.failed(),
          Double.isNaN(t.mean())
              ? ""
              : "  mean "
                  + EngineeringNumber.print(t.mean(), t.unit(), 4)
                  + (Double.isNaN(t.sd())
                      ? ""
                      : ", sd " + EngineeringNumber.print(t.sd(), t.unit(), 3)),
          t.capability()
              .map(c ->
                  String.format(Locale.ROOT, ", Cpk %.2f", c.cpk())
                      + c.cpkLow()
                          .map(l ->
                              String.format(
                                  Locale.ROOT, " (%.2f to %.2f)", l, c.cpkHigh().orElseThrow()))
                          .orElse(""))
              .orElse(""));
      if (!t.bad().isEmpty()) {
        out.println("      failed: board " + String.join(", ", t.bad()));
      }
      if (!t.outliers().isEmpty()) {
        out.println("      stands apart: board " + String.join(", ", t.outliers()));
      }
      t.drift().stream().limit(2).forEach(d -> out.println("      drifts: " + d));
      t.gauge()
          .ifPresent(g ->
              out.printf(
                  Locale.ROOT, "      %.0f %% of its spread is the meter%n", 100 * g.share()));
      t.faults().forEach((f, n) -> out.println("      failed with: " + f + " on " + n));
    }
    b.neverFailed().stream().limit(4).forEach(out::println);
    out.println();
    gates.forEach((board, g) -> {
      out.println("board " + board + (g.open() ? " may be used" : " is not ready"));
      g.missing().forEach(m -> out.println("      " + m));
    });
    gates.values().stream()
        .map(UseGate::caution)
        .filter(c -> !c.isEmpty())
        .findFirst()
        .ifPresent(out::println);
  }
}
