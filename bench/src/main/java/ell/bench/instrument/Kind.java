package ell.bench.instrument;

import ell.bench.dialect.Dialect;
import ell.bench.link.ScpiLink;
import java.util.function.BiFunction;

/// A kind of instrument: its word in settings, on the command line and on the simulated bench, and
/// how a client is made of a link. Each client holds its own as a constant.
///
/// @param word such as `supply`
/// @param client makes a client of a link and a dialect; nothing is sent yet
public record Kind<T extends Instrument>(String word, BiFunction<ScpiLink, Dialect, T> client) {
  /// How an instrument of this kind is told where nobody says it; hands speak as a meter does.
  public Dialect usual() {
    return Dialect.generic(word.equals("hands") ? "meter" : word);
  }
}
