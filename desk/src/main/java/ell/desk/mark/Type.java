package ell.desk.mark;

import ell.desk.word.Tongue;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.text.Font;
import javafx.scene.text.Text;

/// The shipped typefaces at the sizes of the design: 11 for sources and for scales, 13, 15, 18, 26
/// and 40.
public final class Type {
  private static boolean loaded;

  private Type() {}

  /// Loads the typefaces; to be called once the toolkit runs.
  public static synchronized void load() {
    if (loaded) {
      return;
    }
    for (String face :
        new String[] {"B612-Regular", "B612-Bold", "B612Mono-Regular", "Cantarell-Regular"}) {
      try (InputStream in = Type.class.getResourceAsStream("/ell/files/font/" + face + ".otf")) {
        Font.loadFont(in, 12);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    loaded = true;
  }

  /// For words.
  public static Font words(double size) {
    return new Font("B612 Regular", size);
  }

  /// For names and heads.
  public static Font bold(double size) {
    return new Font("B612 Bold", size);
  }

  /// For numbers on scales and beside marks: the digits of this face share one width.
  public static Font numbers(double size) {
    return words(size);
  }

  /// For numbers that matter.
  public static Font numbersBold(double size) {
    return bold(size);
  }

  /// Draws a text, in the language of the window.
  public static void write(GraphicsContext g, String text, double x, double y) {
    g.fillText(Tongue.shown(text), x, y);
  }

  /// How wide a text is as it is drawn.
  public static double width(Font font, String text) {
    return bare(font, Tongue.shown(text));
  }

  private static double bare(Font font, String text) {
    Text t = new Text(text);
    t.setFont(font);
    return t.getLayoutBounds().getWidth();
  }

  /// A text that fits in a width, its end left off where it must be.
  public static String cut(Font font, String text, double width) {
    String t = Tongue.shown(text);
    while (t.length() > 1 && bare(font, t) > width) {
      t = t.substring(0, t.length() - 2).stripTrailing() + "…";
    }
    return t;
  }
}
