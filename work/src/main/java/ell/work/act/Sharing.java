package ell.work.act;

import ell.core.entry.Entry;
import ell.work.space.ActException;
import java.io.IOException;
import java.util.List;

/// To which other boards an act happens as well: what is done to a panel is done to every board on
/// it. Asked for each entry as it was given, never for what a companion added.
public interface Sharing {
  /// Serials of the other boards, empty for most.
  List<String> others(Entry next, Situation s) throws IOException, ActException;
}
