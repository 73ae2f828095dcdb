package ell.bench;

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
/// @param timeoutMillis for connecting and for each answer, above 0
public record Bench(String name, Map<String, String> addresses, int timeoutMillis) {
  /// The port that instruments listen on by custom, where an address names none.
  public static final int SCPI_PORT = 5025;

  public Bench {
    addresses = Map.copyOf(addresses);
    if (timeoutMillis <= 0) {
      throw new IllegalArgumentException("a time-out is above 0 ms, got " + timeoutMillis);
    }
  }

  /// Opens the instrument of a kind.
  ///
  /// @return empty when the bench has none
  /// @throws BenchException when it has one that does not answer
  public <T extends Instrument> Optional<T> open(Kind<T> kind) throws BenchException {
    String at = addresses.get(kind.word());
    return at == null ? Optional.empty() : Optional.of(kind.client().apply(link(at)));
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

  private ScpiLink link(String address) throws BenchException {
    String at = address.startsWith("tcp:") ? address.substring(4) : address;
    int colon = at.lastIndexOf(':');
    String host = colon < 0 ? at : at.substring(0, colon);
    try {
      int port = colon < 0 ? SCPI_PORT : Integer.parseInt(at.substring(colon + 1));
      if (port > 0 && port < 65536 && !host.isEmpty()) {
        return TcpLink.connect(host, port, timeoutMillis);
      }
    } catch (NumberFormatException e) {
      // told below
    }
    throw new BenchException("an instrument's address is host:port, found '" + address + "'");
  }
}
