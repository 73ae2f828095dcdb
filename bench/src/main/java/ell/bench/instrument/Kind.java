package ell.bench.instrument;

import ell.bench.link.ScpiLink;
import java.util.function.Function;

/// A kind of instrument: its word in settings, on the command line and on the simulated bench, and
/// how a client is made of a link. Each client holds its own as a constant.
///
/// @param word such as `supply`
/// @param client makes a client of a link; nothing is sent yet
public record Kind<T extends Instrument>(String word, Function<ScpiLink, T> client) {}
