package ell.bench;

import ell.bench.dialect.Dialect;
import ell.bench.guard.GuardedLink;
import ell.bench.instrument.Instrument;
import ell.bench.instrument.Kind;
import ell.bench.link.Address;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The instruments that there are, by kind and address. Opens a client for each when it is asked
/// for; simulated and real ones alike.
///
/// @param name of the bench, for the book
/// @param addresses as [Address] reads them, by the word of a kind
/// @param timeoutMillis for connecting and for each answer, 1...600 000
/// @param guarded whether what can switch on is held by a watchdog process; only a bench that dies
///   with this program does without
/// @param dialects how instruments want to be told, by the word of a kind; the generic one where
///   none is given
public record Bench(
    String name,
    Map<String, String> addresses,
    int timeoutMillis,
    boolean guarded,
    Map<String, Dialect> dialects) {
  /// Blanks and commas, but for the comma of a serial line's `9600,8N1`.
  private static final String BETWEEN = "(?:\\s|,(?![5-8][NEOneo][12]\\b))+";

  private static final int MOST_MILLIS = 600_000;

  public Bench {
    addresses = Map.copyOf(addresses);
    dialects = Map.copyOf(dialects);
    if (timeoutMillis <= 0 || timeoutMillis > MOST_MILLIS) {
      throw new IllegalArgumentException(
          "a time-out is in 1..." + MOST_MILLIS + " ms, got " + timeoutMillis);
    }
  }

  /// A bench whose supply is held by a watchdog process.
  public Bench(String name, Map<String, String> addresses, int timeoutMillis) {
    this(name, addresses, timeoutMillis, true);
  }

  /// A bench whose instruments are told in the generic way.
  public Bench(String name, Map<String, String> addresses, int timeoutMillis, boolean guarded) {
    this(name, addresses, timeoutMillis, guarded, Map.of());
  }

  /// The same with dialects, each for the instrument of its kind.
  public Bench speaking(List<Dialect> own) {
    Map<String, Dialect> all = new HashMap<>(dialects);
    own.forEach(d -> all.put(d.kind(), d));
    return new Bench(name, addresses, timeoutMillis, guarded, all);
  }

  /// Opens the instrument of a kind.
  ///
  /// @return empty when the bench has none
  /// @throws BenchException when it has one that does not answer
  public <T extends Instrument> Optional<T> open(Kind<T> kind) throws BenchException {
    String at = addresses.get(kind.word());
    return at == null ? Optional.empty() : Optional.of(client(kind, at, false));
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
    return client(kind, at, guarded);
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
  public static Map<String, String> addresses(String text, List<String> kinds) {
    Map<String, String> all = new LinkedHashMap<>();
    int next = 0;
    for (String one : text.strip().split(BETWEEN)) {
      int eq = one.indexOf('=');
      if (eq > 0) {
        all.put(one.substring(0, eq), one.substring(eq + 1));
      } else if (!one.isEmpty() && next < kinds.size()) {
        all.put(kinds.get(next++), one);
      }
    }
    return all;
  }

  private <T extends Instrument> T client(Kind<T> kind, String address, boolean watched)
      throws BenchException {
    // the hands of the simulated bench have no dialect, and say what all say
    Dialect says = dialects.get(kind.word());
    Address at = new Address(address);
    ScpiLink link = watched ? GuardedLink.connect(at, timeoutMillis) : at.connect(timeoutMillis);
    if (says != null) {
      link.lineEnd(says.lineEnd());
    }
    return kind.client().apply(link, says == null ? kind.usual() : says);
  }
}
