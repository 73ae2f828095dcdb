package ell.work.prove;

import ell.bench.Bench;
import ell.bench.instrument.Hands;
import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.work.talk.TalkRun;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// The instruments of a run, and the line to the board: that of a simulated bench, one's own, or
/// none.
///
/// @param bench the instruments
/// @param line address of a line of one's own
/// @param jig serial number of the jig whose probes touch, empty where hands do
/// @param sampleMillis pause between two looks at the supply
public record ProveBench(Bench bench, Optional<LineAddress> line, String jig, long sampleMillis) {
  private static final int OPEN_MILLIS = 2000;
  private static final long SAMPLE_MILLIS = 40;

  /// A bench whose supply is looked at as often as usual.
  public ProveBench(Bench bench, Optional<LineAddress> line, String jig) {
    this(bench, line, jig, SAMPLE_MILLIS);
  }

  /// Kinds of instruments that there are.
  public List<String> kinds() {
    List<String> all = new ArrayList<>(bench.addresses().keySet());
    if (line.isPresent() && !all.contains("line")) {
      all.add("line");
    }
    return all;
  }

  /// The line's address, empty where there is none.
  Optional<LineAddress> address() {
    return line.isPresent()
        ? line
        : Optional.ofNullable(bench.addresses().get("line"))
            .map(a -> new LineAddress(a.matches("(tcp|serial):.*") ? a : "tcp:" + a));
  }

  /// Opens the line.
  TalkRun.Opens opens() {
    return () ->
        address()
            .orElseThrow(() -> new BenchException("there is no line to the board"))
            .open(OPEN_MILLIS);
  }

  /// On a simulated bench somebody has to set the rate of the cable's end.
  void rate(int baud) throws BenchException {
    Optional<Hands> hands = bench.open(Hands.KIND);
    if (hands.isPresent()) {
      try (Hands h = hands.get()) {
        h.rate(baud);
      }
    }
  }

  /// Lays a board down, where the bench has hands.
  void lay(String board) throws BenchException {
    Optional<Hands> hands = bench.open(Hands.KIND);
    if (hands.isPresent()) {
      try (Hands h = hands.get()) {
        h.lay(board);
      }
    }
  }

  /// What it is called in the book.
  String words() {
    return bench.name() + (jig.isEmpty() ? "" : ", jig " + jig);
  }
}
