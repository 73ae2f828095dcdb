package ell.bench;

import ell.bench.guard.GuardedLink;
import ell.bench.instrument.Instrument;
import ell.bench.instrument.Kind;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import ell.bench.link.TcpLink;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/// The instruments that there are, by kind and address. Opens a client for each when it is asked
/// for; simulated and real ones alike.
///
/// @param name of the bench, for the book
/// @param addresses `host:port`, `tcp:host:port` or `host`, by the word of a kind
/// @param timeoutMillis for connecting and for each answer, 1...600 000
/// @param guarded whether what can switch on is held by a watchdog process; only a bench that dies
///   with this program does without
public record Bench(
    String name, Map<String, String> addresses, int timeoutMillis, boolean guarded) {
  private static final int MOST_MILLIS = 600_000;

  /// The port that instruments listen on by custom, where an address names none.
  public static final int SCPI_PORT = 5025;

  public Bench {
    addresses = Map.copyOf(addresses);
    if (timeoutMillis <= 0 || timeoutMillis > MOST_MILLIS) {
      throw new IllegalArgumentException(
          "a time-out is in 1..." + MOST_MILLIS + " ms, got " + timeoutMillis);
    }
  }

  /// A bench whose supply is held by a watchdog process.
  public Bench(String name, Map<String, String> addresses, int timeoutMillis) {
    this(name, addresses, timeoutMillis, true);
  }

  /// Opens the instrument of a kind.
  ///
  /// @return empty when the bench has none
  /// @throws BenchException when it has one that does not answer
  public <T extends Instrument> Optional<T> open(Kind<T> kind) throws BenchException {
    String at = addresses.get(kind.word());
    return at == null ? Optional.empty() : Optional.of(kind.client().apply(link(at, false)));
  }

  /// Opens an instrument that can switch on, over a watchdog process that switches it off however
  /// this program ends.
  ///
  /// @throws BenchException when the bench has none, it does not answer, or there is no watchdog
  public <T extends Instrument> T guard(Kind<T> kind) throws BenchException {
    String at = addresses.get(kind.word());
    if (at == null) {
      throw new BenchException("there is no " + kind.word() + " on the " + name);
    }
    return kind.client().apply(link(at, guarded));
  }

  /// Opens the instrument of a kind that must be there.
  ///
  /// @throws BenchException when the bench has none, or it does not answer
  public <T extends Instrument> T need(Kind<T> kind) throws BenchException {
    return open(kind)
        .orElseThrow(() -> new BenchException("there is no " + kind.word() + " on the " + name));
  }

  /// Reads addresses as a maker types them: `supply=host:port meter=host:port`, or the addresses
  /// alone in the order of `kinds`.
  ///
  /// @param kinds words of kinds, for addresses without one
  public static Map<String, String> addresses(String text, java.util.List<String> kinds) {
    Map<String, String> all = new LinkedHashMap<>();
    int next = 0;
    for (String one : text.strip().split("[\\s,]+")) {
      int eq = one.indexOf('=');
      if (eq > 0) {
        all.put(one.substring(0, eq), one.substring(eq + 1));
      } else if (!one.isEmpty() && next < kinds.size()) {
        all.put(kinds.get(next++), one);
      }
    }
    return all;
  }

  private ScpiLink link(String address, boolean watched) throws BenchException {
    String at = address.startsWith("tcp:") ? address.substring(4) : address;
    int colon = at.lastIndexOf(':');
    String host = colon < 0 ? at : at.substring(0, colon);
    try {
      int port = colon < 0 ? SCPI_PORT : Integer.parseInt(at.substring(colon + 1));
      if (port > 0 && port < 65536 && !host.isEmpty()) {
        return watched
            ? GuardedLink.connect(host, port, timeoutMillis)
            : TcpLink.connect(host, port, timeoutMillis);
      }
    } catch (NumberFormatException e) {
      // told below
    }
    throw new BenchException(
        "an instrument's address is host:port with a port in 1...65535, found '" + address + "'");
  }
}
