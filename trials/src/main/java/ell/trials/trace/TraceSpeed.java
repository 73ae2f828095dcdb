package ell.trials.trace;

import ell.core.circuit.AtRest;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.BoardVariants;
import ell.core.power.Fault;
import ell.core.quantity.Unit;
import ell.core.trace.BenchKnowledge;
import ell.core.trace.Board;
import ell.core.trace.Clues;
import ell.core.trace.Knobs;
import ell.core.trace.Suspect;
import ell.core.trace.Suspects;
import ell.core.trace.Traced;
import ell.core.trace.Tracer;
import ell.trials.trace.TraceBench.Line;
import java.io.IOException;
import java.nio.file.Path;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// How fast what thousands of faults would show is worked out, from nothing and after a reading.
public final class TraceSpeed {
  /// Processes that are started: what else runs on the machine slows all but the quickest.
  private static final int COLD = 5;

  private static final int PARTS = 300;
  private static final int FAULTS = 3000;

  private TraceSpeed() {}

  /// A board that is traced for the first time in this process; prints how many faults and
  /// measurements it was, and the seconds.
  public static void main(String[] args) {
    Board board = LargeBoard.of(PARTS);
    Suspects.Listed listed = listed(board);
    List<Logged> log = List.of(logged(1, "3V3", 0.02));
    long began = System.nanoTime();
    Tracer t = new Tracer(board, listed);
    Traced first = t.trace(clues(board, log), Map.of(), Map.of(), Integer.MAX_VALUE);
    double cold = (System.nanoTime() - began) * 1e-9;
    System.out.println(t.suspects() + " " + first.next().size() + " " + cold);
  }

  /// The report.
  public static List<Line> lines() throws IOException, InterruptedException {
    Board board = LargeBoard.of(PARTS);
    Suspects.Listed listed = listed(board);
    return List.of(cold(board), again(board, listed), ratio(board, listed));
  }

  private static Suspects.Listed listed(Board board) {
    return Suspects.of(
        board.revision(), board.ladder(), BenchKnowledge.none(BenchKnowledge::usual), FAULTS);
  }

  /// From nothing, each in a process of its own that runs as the command `trace` does.
  private static Line cold(Board board) throws IOException, InterruptedException {
    double least = Double.POSITIVE_INFINITY;
    String faults = "";
    String measurements = "";
    for (int i = 0; i < COLD; i++) {
      Process p =
          new ProcessBuilder(
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  "-XX:TieredStopAtLevel=1",
                  "-XX:+UseSerialGC",
                  "-Xss4m",
                  "-cp",
                  System.getProperty("java.class.path"),
                  TraceSpeed.class.getName())
              .redirectError(ProcessBuilder.Redirect.INHERIT)
              .start();
      String[] said = new String(p.getInputStream().readAllBytes()).strip().split(" ");
      if (p.waitFor() != 0 || said.length != 3) {
        throw new IllegalStateException("a board was not traced: " + List.of(said));
      }
      faults = said[0];
      measurements = said[1];
      least = Math.min(least, Double.parseDouble(said[2]));
    }
    return new Line(
        String.format(
            Locale.ROOT,
            "%-58s %8.2f s  (at most 2 s)",
            faults
                + " faults of "
                + board.revision().parts().size()
                + " parts, "
                + measurements
                + " measurements, cold",
            least),
        least <= 2);
  }

  private static Line again(Board board, Suspects.Listed listed) {
    List<Logged> log = new ArrayList<>();
    log.add(logged(1, "3V3", 0.02));
    Tracer t = new Tracer(board, listed);
    t.trace(clues(board, log), Map.of(), Map.of(), Integer.MAX_VALUE);
    double again = Double.POSITIVE_INFINITY;
    for (int i = 0; i < 5; i++) {
      log.add(logged(2 + i, "A1" + i, 0.01));
      long began = System.nanoTime();
      t.trace(clues(board, log), Map.of(), Map.of(), 12);
      again = Math.min(again, (System.nanoTime() - began) * 1e-9);
    }
    return new Line(
        String.format(
            Locale.ROOT,
            "%-58s %8.3f s  (at most 0.35 s)",
            "a further reading taken in, and the next proposed",
            again),
        again <= 0.35);
  }

  /// Small changes of one board against whole solves, of every tenth fault.
  private static Line ratio(Board board, Suspects.Listed listed) {
    Knobs usual = Knobs.usual(board.ladder());
    List<List<Fault>> some = new ArrayList<>();
    List<Suspect> all = listed.suspects();
    for (int i = 0; i < all.size(); i += 20) {
      some.add(List.of(all.get(i).fault()));
    }
    BoardVariants v =
        new BoardVariants(board.revision(), board.ladder(), List.of(), "boot", c -> usual.turn(c));
    double quick = Double.POSITIVE_INFINITY;
    double whole = Double.POSITIVE_INFINITY;
    double worst = 0;
    for (int round = 0; round < 3; round++) {
      List<Optional<AtRest>> a = new ArrayList<>();
      long began = System.nanoTime();
      some.forEach(f -> a.add(v.under(f)));
      quick = Math.min(quick, (System.nanoTime() - began) * 1e-6);
      List<Optional<AtRest>> b = new ArrayList<>();
      began = System.nanoTime();
      some.forEach(f -> b.add(v.solved(f)));
      whole = Math.min(whole, (System.nanoTime() - began) * 1e-6);
      for (int i = 0; i < a.size(); i++) {
        if (a.get(i).isPresent() && b.get(i).isPresent()) {
          String node = v.node("3V3", List.of());
          worst = Math.max(worst, Math.abs(a.get(i).get().at(node) - b.get(i).get().at(node)));
        }
      }
    }
    double r = quick / whole;
    return new Line(
        String.format(
            Locale.ROOT,
            "%-58s %8.0f ms / %8.0f ms = %5.3f  (at most 0.3)",
            some.size() + " faults as changes / solved whole, apart by " + worst + " V",
            quick,
            whole,
            r),
        r <= 0.3);
  }

  private static Logged logged(long number, String place, double volts) {
    return new Logged(
        number,
        OffsetDateTime.of(2026, 1, 1, 0, 0, 0, 0, ZoneOffset.UTC),
        "x",
        new Entry.Reading(
            place, volts, Unit.VOLT, Optional.empty(), Optional.empty(), Optional.empty(), ""));
  }

  private static Clues clues(Board b, List<Logged> log) {
    return Clues.of(b, BoardState.of("x", log));
  }
}
