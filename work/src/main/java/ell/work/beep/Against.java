package ell.work.beep;

import ell.core.board.NetDifference;
import ell.core.board.Netlist;
import ell.core.board.Revision;
import ell.files.Read;
import ell.files.Source;
import ell.files.netlist.NetlistReader;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/// A netlist file held against a revision: what was drawn against what is built.
public final class Against {
  private Against() {}

  /// What differs, the revision first.
  ///
  /// @throws ActException when the file is no netlist, with every problem in it
  public static NetDifference of(Revision revision, Path file) throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException(file + ": there is no such file");
    }
    return switch (NetlistReader.read(Source.of(file))) {
      case Read.Whole<Netlist> whole -> NetDifference.of(revision.joints(), whole.value().joints());
      case Read.Flawed<Netlist> flawed ->
          throw new ActException(
              String.join("\n", flawed.problems().stream().map(Object::toString).toList()));
    };
  }
}
