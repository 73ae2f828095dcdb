package ell.core.talk;

import java.util.ArrayList;
import java.util.List;

/// What went over a line as a strip of rows in time: what came together is a row, what is no text
/// is counted.
public final class Strip {
  private static final double TOGETHER = 0.15;
  private static final double NO_TEXT = 0.3;
  private static final int LONGEST = 400;

  private Strip() {}

  /// A piece, as it was recorded.
  ///
  /// @param kind `>` to the board, `<` from it, `!` words about the line
  /// @param seconds since the line was opened
  public record Piece(char kind, double seconds, byte[] bytes) {}

  /// A row.
  ///
  /// @param kind as that of its pieces
  public record Row(char kind, double seconds, String text) {}

  /// The rows of pieces in the order in which they were recorded. Frames of the loader that follow
  /// each other are one row.
  public static List<Row> rows(List<Piece> pieces) {
    List<Row> rows = new ArrayList<>();
    Open to = new Open('>');
    Open from = new Open('<');
    for (Piece p : pieces) {
      switch (p.kind()) {
        case '>' -> turn(p, to, from, rows);
        case '<' -> turn(p, from, to, rows);
        default -> {
          to.close(rows);
          from.close(rows);
          rows.add(new Row('!', p.seconds(), HeardText.of(p.bytes())));
        }
      }
    }
    to.close(rows);
    from.close(rows);
    rows.sort(java.util.Comparator.comparingDouble(Row::seconds));
    return rows;
  }

  /// A piece goes one way: text that went the other way before is a row by then, and so are frames
  /// once text comes.
  private static void turn(Piece p, Open own, Open other, List<Row> rows) {
    if (other.bytes > 0) {
      other.close(rows);
    }
    own.add(p, rows);
    if (own.bytes > 0) {
      other.close(rows);
    }
  }

  /// Pieces of one way that are not a row yet.
  private static final class Open {
    private final char kind;
    private final LoaderFrame.Taker taker = new LoaderFrame.Taker();
    private HeardText text = new HeardText();
    private final StringBuilder held = new StringBuilder();
    private double from;
    private double last;
    private long bytes;
    private long framed;
    private int frames;

    Open(char kind) {
      this.kind = kind;
    }

    void add(Piece p, List<Row> rows) {
      if (bytes + framed > 0 && p.seconds() - last > TOGETHER) {
        close(rows);
      }
      if (bytes + framed == 0) {
        from = p.seconds();
      }
      last = p.seconds();
      int before = frames;
      for (byte b : p.bytes()) {
        if (taker.take(b & 0xff).isPresent()) {
          frames++;
        }
      }
      byte[] stray = frames > before || frames > 0 ? taker.stray() : p.bytes();
      if (frames == 0) {
        taker.stray(); // what only looked like a frame is text
      }
      framed += frames > before ? p.bytes().length - stray.length : 0;
      bytes += stray.length;
      if (held.length() < LONGEST * 4) {
        held.append(text.take(stray, 0, stray.length));
      }
    }

    void close(List<Row> rows) {
      if (bytes + framed == 0) {
        return;
      }
      if (frames > 0) {
        rows.add(
            new Row(
                kind,
                from,
                (kind == '>' ? "image, " : "answers, ")
                    + frames
                    + (frames == 1 ? " frame, " : " frames, ")
                    + framed
                    + " bytes"));
      }
      if (text.odd() > NO_TEXT * bytes) {
        rows.add(
            new Row(kind, last, bytes + (bytes == 1 ? " byte" : " bytes") + " that are no text"));
      } else {
        for (String l : held.toString().split("[\\r\\n]+")) {
          if (!l.isBlank()) {
            double at = frames > 0 ? last : from;
            rows.add(new Row(kind, at, l.length() > LONGEST ? l.substring(0, LONGEST) + "…" : l));
          }
        }
      }
      held.setLength(0);
      text = new HeardText();
      bytes = 0;
      framed = 0;
      frames = 0;
    }
  }
}
