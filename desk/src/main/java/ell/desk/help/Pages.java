package ell.desk.help;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URL;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.commonmark.ext.gfm.tables.TablesExtension;
import org.commonmark.node.Heading;
import org.commonmark.node.Node;
import org.commonmark.parser.Parser;
import org.commonmark.renderer.text.TextContentRenderer;

/// The pages that ship, read once each.
public final class Pages {
  /// Every page, in the order of the work, then what is common to all stages.
  public static final List<String> NAMES =
      List.of(
          "kit",
          "order",
          "print",
          "heat",
          "look",
          "beep",
          "power",
          "circuit",
          "pulse",
          "talk",
          "trace",
          "jig",
          "prove",
          "revise",
          "book",
          "files",
          "many-benches",
          "practice",
          "a-boards-life",
          "in-the-hand",
          "glossary");

  private static final String ROOM = "/ell/desk/help/";

  private final Parser parser =
      Parser.builder().extensions(List.of(TablesExtension.create())).build();
  private final TextContentRenderer words =
      TextContentRenderer.builder().extensions(List.of(TablesExtension.create())).build();
  private final Map<String, Page> read = new LinkedHashMap<>();
  private Finder finder;

  /// A page.
  ///
  /// @param name as in [#NAMES]
  /// @param passages its paragraphs, lists, tables and pictures in order, heads with what they
  ///   stand over
  public record Page(String name, String title, List<Passage> passages) {
    public Page {
      passages = List.copyOf(passages);
    }
  }

  /// A passage of a page: a paragraph, a list, a table, or a head.
  ///
  /// @param under the head over it, empty before the first
  /// @param text its words without marks
  public record Passage(Node node, String under, String text) {
    /// Whether it is a head.
    public boolean head() {
      return node instanceof Heading;
    }
  }

  /// A page by its name; empty when there is none.
  public Optional<Page> page(String name) {
    if (!NAMES.contains(name)) {
      return Optional.empty();
    }
    return Optional.of(read.computeIfAbsent(name, this::read));
  }

  /// All pages.
  public List<Page> all() {
    return NAMES.stream().map(this::page).flatMap(Optional::stream).toList();
  }

  /// Finds in all pages.
  public Finder finder() {
    if (finder == null) {
      finder = new Finder(all());
    }
    return finder;
  }

  /// Where a picture of the pages is; empty when it does not ship.
  public static Optional<URL> picture(String to) {
    return Optional.ofNullable(Pages.class.getResource(ROOM + to));
  }

  private Page read(String name) {
    try (InputStream in = Pages.class.getResourceAsStream(ROOM + name + ".md")) {
      if (in == null) {
        throw new IllegalStateException("the page " + name + " does not ship");
      }
      Node all = parser.parse(new String(in.readAllBytes(), StandardCharsets.UTF_8));
      List<Passage> passages = new ArrayList<>();
      String title = name;
      String under = "";
      for (Node n = all.getFirstChild(); n != null; n = n.getNext()) {
        String text = words.render(n).strip();
        if (n instanceof Heading h) {
          if (h.getLevel() == 1) {
            title = text;
          }
          under = text;
        }
        passages.add(new Passage(n, under, text));
      }
      return new Page(name, title, passages);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}
