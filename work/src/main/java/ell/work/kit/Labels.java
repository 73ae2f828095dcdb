package ell.work.kit;

import ell.book.Head;
import ell.core.kit.ShelfLine;
import ell.files.Output;
import ell.files.pdf.LabelPdf;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/// Labels for the bins of a shelf.
public final class Labels {
  private Labels() {}

  /// Writes a label for each bin that has a name, to a PDF.
  ///
  /// @param head of the book, kept on each label: what is cut off the book later shows against it
  /// @throws ActException when no line has a bin
  public static void write(List<ShelfLine> shelf, Head head, Path to, Output.Over over)
      throws IOException, ActException {
    List<LabelPdf.Label> labels =
        shelf.stream()
            .filter(l -> !l.bin().isEmpty())
            .map(l ->
                new LabelPdf.Label(
                    l.bin(),
                    l.code(),
                    l.expiry().map(d -> "use by " + d).orElse(""),
                    // what a reader of codes types into the tape: the number is counted and added
                    "count " + l.code() + " " + (l.bin().contains(" ") ? "" : l.bin() + " "),
                    "book " + head))
            .toList();
    if (labels.isEmpty()) {
      throw new ActException("no line of the shelf has a bin, so there is nothing to label");
    }
    LabelPdf.write(labels, to, over);
  }
}
