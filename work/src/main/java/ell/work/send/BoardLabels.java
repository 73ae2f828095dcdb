package ell.work.send;

import ell.book.Build;
import ell.book.Head;
import ell.core.entry.BoardState;
import ell.core.entry.Logged;
import ell.core.prove.ProveFacts;
import ell.core.prove.ProveSection;
import ell.core.quantity.Verdict;
import ell.files.Output;
import ell.files.pdf.LabelPdf;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Labels for boards: the serial large, and a QR code that names board, revision and the head of
/// the book when it was printed, so that a label can be held against the workspace.
public final class BoardLabels {
  private static final Pattern SCANNED =
      Pattern.compile("ell board \"([^\"]*)\" \"([^\"]*)\" (\\S+) (\\d+:[0-9a-f]{8,64})");

  private BoardLabels() {}

  /// What the code of a label says.
  ///
  /// @throws ActException when the board is of no build
  public static String scanned(Workshop w, String board) throws IOException, ActException {
    Build b = w.buildOf(board);
    return "ell board \""
        + b.design()
        + "\" \""
        + b.revision()
        + "\" "
        + board
        + " "
        + w.book().head();
  }

  /// Writes a label for each board, to a PDF.
  public static void write(Workshop w, List<String> boards, Path to, Output.Over over)
      throws IOException, ActException {
    List<LabelPdf.Label> all = new ArrayList<>();
    for (String board : boards) {
      Build b = w.buildOf(board);
      ProveFacts f = ProveFacts.of(w.state(board));
      String proof =
          f.lastEnded()
              .flatMap(ProveFacts.Run::verdict)
              .map(ProveSection::word)
              .orElse("not proved");
      all.add(
          new LabelPdf.Label(
              board,
              b.design() + " " + b.revision(),
              proof,
              scanned(w, board),
              "book " + w.book().head()));
    }
    LabelPdf.write("Labels for boards", all, to, over);
  }

  /// What a label comes to.
  ///
  /// @param ok whether the workspace knows the board as the label names it, and its book is the one
  ///   that the label was printed from
  /// @param message a sentence
  public record Checked(boolean ok, String board, String message) {}

  /// Holds what was read off a label against a workspace.
  ///
  /// @throws ActException when it is no label of a board
  public static Checked check(Workshop w, String read) throws IOException, ActException {
    Matcher m = SCANNED.matcher(read.strip());
    if (!m.matches()) {
      throw new ActException(
          "expected what the code of a board's label says, ell board \"DESIGN\" \"REVISION\" SERIAL"
              + " ENTRIES:HASH, found '"
              + (read.length() > 80 ? read.substring(0, 80) + "..." : read)
              + "'");
    }
    String board = m.group(3);
    Optional<Build> b = w.book().buildOf(board);
    if (b.isEmpty()
        || !b.get().design().equals(m.group(1))
        || !b.get().revision().equals(m.group(2))) {
      return new Checked(
          false,
          board,
          "this workspace has no board " + board + " of " + m.group(1) + " rev " + m.group(2));
    }
    Head head = Head.of(m.group(4));
    Optional<String> no = head.against(w.book());
    if (no.isPresent()) {
      return new Checked(false, board, "board " + board + ": " + no.get());
    }
    return new Checked(true, board, "board " + board + " is known; " + since(w, board, head));
  }

  private static String since(Workshop w, String board, Head head) throws IOException {
    BoardState s = w.state(board);
    ProveFacts f = ProveFacts.of(s);
    Optional<Verdict> v = f.lastEnded().flatMap(ProveFacts.Run::verdict);
    long later =
        w.entries(board).stream().map(Logged::number).filter(n -> n > head.entries()).count();
    return "proof "
        + v.map(ProveSection::word).orElse("not made")
        + (s.findings().isEmpty() ? "" : ", " + s.findings().size() + " open findings")
        + (f.released().isPresent() ? ", in use" : "")
        + (later == 0
            ? "; nothing was logged since the label was printed"
            : "; " + later + (later == 1 ? " entry" : " entries") + " since the label was printed");
  }
}
