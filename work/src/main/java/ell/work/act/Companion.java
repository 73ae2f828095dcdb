package ell.work.act;

import ell.core.entry.Entry;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;

/// What an entry brings with it: a print is the step of the order that prints. Asked once for every
/// entry of an act, never for what another companion added.
public interface Companion {
  /// The entry as it is logged, and what belongs to it, in the order of the book.
  ///
  /// @param next what is logged
  /// @param s the board as it is before the entry
  /// @return the entry alone when nothing belongs to it
  List<Entry> with(Entry next, Situation s) throws IOException, ActException;
}
