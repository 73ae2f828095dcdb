package ell.desk.help;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.rack.Stage;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.commonmark.node.AbstractVisitor;
import org.commonmark.node.Image;
import org.commonmark.node.Link;
import org.testng.annotations.Test;

/// The pages that ship, how what is asked about is found in them, and the words of the trade.
public class PagesTest {
  private final Pages pages = new Pages();

  @Test
  public void everyPageShipsWithItsPicturesAndItsWaysLeadSomewhere() throws Exception {
    List<String> missing = new ArrayList<>();
    for (Pages.Page p : pages.all()) {
      assertFalse(p.title().equals(p.name()), p.name() + " has no title");
      for (Pages.Passage x : p.passages()) {
        x.node()
            .accept(
                new AbstractVisitor() {
                  @Override
                  public void visit(Image i) {
                    if (Pages.picture(i.getDestination()).isEmpty()) {
                      missing.add(p.name() + " has no picture " + i.getDestination());
                    }
                    visitChildren(i);
                  }

                  @Override
                  public void visit(Link l) {
                    String to = l.getDestination().replaceFirst("#.*", "");
                    if (!to.startsWith("http")
                        && !Files.exists(Path.of("../docs").resolve(to).normalize())) {
                      missing.add(p.name() + " leads to " + to);
                    }
                    visitChildren(l);
                  }
                });
      }
    }
    assertTrue(missing.isEmpty(), String.join("\n", missing));
    assertEquals(pages.all().size(), Pages.NAMES.size());
    assertTrue(pages.page("architecture").isEmpty(), "a page for developers");
  }

  @Test
  public void everyStageHasAPageWithAPicture() {
    for (Stage s : Stage.ALL) {
      if (s.built()) {
        Pages.Page p = pages.page(s.key()).orElseThrow();
        assertTrue(p.title().startsWith(s.title()), p.title());
        boolean[] seen = {false};
        p.passages()
            .forEach(x ->
                x.node()
                    .accept(
                        new AbstractVisitor() {
                          @Override
                          public void visit(Image i) {
                            seen[0] = true;
                          }
                        }));
        assertTrue(seen[0], p.name() + " has no picture");
      }
    }
  }

  /// What a practitioner would ask, and where the answer stands.
  @Test
  public void whatIsAskedIsFound() {
    record Asks(String page, String words, String found) {}
    for (Asks a :
        List.of(
            new Asks("beep", "places of the short, milliohm readings along a net", "Where a short"),
            new Asks("beep", "how many joints would show if open, likely bridges", "Coverage"),
            new Asks("beep", "listen to the meter until a reading is steady", "Listening"),
            new Asks("book", "strike the last entry", "str"))) {
      Optional<Finder.Found> f =
          new Finder(List.of(pages.page(a.page()).orElseThrow())).best(a.words());
      assertTrue(f.isPresent(), a.words());
      assertTrue(
          f.get().passage().text().contains(a.found()),
          a.words() + ": " + f.get().passage().text());
    }
    Finder all = new Finder(pages.all());
    assertEquals(all.of("respin or rework, turn and delay", 1).getFirst().page().name(), "revise");
    assertEquals(all.of("tombstone", 3).isEmpty(), false);
    assertTrue(all.best("zzz qqq").isEmpty());
    assertTrue(all.of("", 5).isEmpty());
    // no order of words changes what is found
    assertEquals(
        all.of("stencil area ratio", 5).stream().map(Finder.Found::at).toList(),
        all.of("ratio area stencil", 5).stream().map(Finder.Found::at).toList());
  }

  /// A word that is said is found wherever it is said and nowhere else, the nearest first.
  @Test
  public void aRareWordSaysMore() {
    Finder f = new Finder(pages.all());
    List<Finder.Found> found = f.of("squeegee", 100);
    long with =
        pages.all().stream()
            .flatMap(p -> p.passages().stream())
            .filter(x -> (x.text() + " " + x.under()).toLowerCase(Locale.ROOT).contains("squeegee"))
            .count();
    assertEquals(found.size(), (int) with);
    for (int i = 1; i < found.size(); i++) {
      assertTrue(found.get(i - 1).score() >= found.get(i).score());
    }
  }

  @Test
  public void theGlossaryKnowsTheWordsThatTheWindowUses() {
    Glossary g = new Glossary(pages.page("glossary").orElseThrow());
    assertTrue(g.all().size() >= 90, "found " + g.all().size());
    Set<String> seen = new HashSet<>();
    for (Glossary.Meaning m : g.all()) {
      assertTrue(seen.add(m.word().toLowerCase(Locale.ROOT)), m.word() + " stands twice");
      assertTrue(m.means().endsWith("."), m.word());
      assertFalse(
          m.means().toLowerCase(Locale.ROOT).startsWith(m.word().toLowerCase(Locale.ROOT)),
          m.word() + " is told by itself");
    }
    assertEquals(
        g.in("two bridges on the 3V3 rail").stream().map(Glossary.Meaning::word).toList(),
        List.of("bridge", "rail"));
    assertEquals(
        g.in("the pads of U3").stream().map(Glossary.Meaning::word).toList(),
        List.of("land or pad"));
    assertTrue(g.in("a trail, a netlist, tipping").isEmpty(), "parts of words are no words");
    for (String word :
        List.of(
            "board",
            "revision",
            "build",
            "bin",
            "gate",
            "net",
            "rail",
            "link",
            "verdict",
            "finding",
            "bodge",
            "erratum",
            "rework",
            "jig",
            "probe",
            "tip",
            "struck")) {
      assertFalse(g.in("a " + word + " here").isEmpty(), word);
    }
  }
}
