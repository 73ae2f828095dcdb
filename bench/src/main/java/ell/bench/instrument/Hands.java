package ell.bench.instrument;

import ell.bench.dialect.Dialect;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;

/// The hands of the simulated bench: which board lies on it, and where the meter's tips touch. On a
/// real bench the maker's own hands do this, and no such server is there.
public final class Hands extends Instrument {
  /// Its kind.
  public static final Kind<Hands> KIND = new Kind<>("hands", Hands::new);

  /// Hands behind a link; nothing is sent yet.
  public Hands(ScpiLink link) {
    this(link, Dialect.generic("meter"));
  }

  private Hands(ScpiLink link, Dialect says) {
    super(link, "simulated hands", says);
  }

  /// How warm a part feels, °C.
  public double celsius(String part) throws BenchException {
    return reading("TIP:WARM? \"" + part + "\"");
  }

  /// Lays a board on the bench and connects the supply to it.
  public void lay(String board) throws BenchException {
    command("BENC:BOAR \"" + board + "\"");
  }

  /// Holds a probe of the scope to a place.
  ///
  /// @param channel counted from 1
  /// @param place a net, test point or `part.pin`
  public void probe(int channel, String place) throws BenchException {
    command("TIP:PROB " + channel + ",\"" + place + "\"");
  }

  /// Touches with both tips.
  ///
  /// @param plus a net, test point or `part.pin`
  /// @param minus likewise
  public void touch(String plus, String minus) throws BenchException {
    command("TIP:PLUS \"" + plus + "\"");
    command("TIP:MIN \"" + minus + "\"");
  }

  /// Sets the rate of the cable's end of the line.
  ///
  /// @param baud bits a second, 0 where it is that of the board
  public void rate(int baud) throws BenchException {
    command("LINE:BAUD " + baud);
  }

  /// Pulls the cable of the line; it is in again at once.
  public void pull() throws BenchException {
    command("LINE:PULL");
  }
}
