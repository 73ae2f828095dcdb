package ell.work.bench;

import ell.bench.instrument.Hands;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Plate;
import ell.bench.instrument.Supply;
import ell.bench.link.BenchException;
import ell.bench.link.TcpLink;
import ell.work.power.PowerRun;
import java.util.Optional;

/// Instruments on sockets.
///
/// @param supplyAt `host:port` of the supply
/// @param meterAt `host:port` of the meter, empty when readings are typed in
/// @param handsAt `host:port` of the simulated hands, empty on a real bench
/// @param name of the bench, for the book
/// @param timeoutMillis for each answer
public record SocketBench(
    String supplyAt,
    Optional<String> meterAt,
    Optional<String> handsAt,
    String name,
    int timeoutMillis)
    implements PowerRun.Bench {
  /// The port that instruments listen on by custom, where an address names none.
  public static final int SCPI_PORT = 5025;

  @Override
  public Supply supply() throws BenchException {
    return new Supply(link(supplyAt));
  }

  @Override
  public Optional<Meter> meter() throws BenchException {
    return meterAt.isPresent() ? Optional.of(new Meter(link(meterAt.get()))) : Optional.empty();
  }

  @Override
  public Optional<Hands> hands() throws BenchException {
    return handsAt.isPresent() ? Optional.of(new Hands(link(handsAt.get()))) : Optional.empty();
  }

  /// A plate.
  ///
  /// @param at `host:port`
  public static Plate plate(String at, int timeoutMillis) throws BenchException {
    return new Plate(link(at, timeoutMillis));
  }

  private TcpLink link(String at) throws BenchException {
    return link(at, timeoutMillis);
  }

  private static TcpLink link(String at, int timeoutMillis) throws BenchException {
    int colon = at.lastIndexOf(':');
    String host = colon < 0 ? at : at.substring(0, colon);
    try {
      int port = colon < 0 ? SCPI_PORT : Integer.parseInt(at.substring(colon + 1));
      if (port > 0 && port < 65536) {
        return TcpLink.connect(host, port, timeoutMillis);
      }
    } catch (NumberFormatException e) {
      // told below
    }
    throw new BenchException("an instrument's address is host:port, found '" + at + "'");
  }
}
