package ell.work.print;

import ell.book.BookException;
import ell.book.Build;
import ell.core.artwork.Artwork;
import ell.core.board.Revision;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.json.JsonObject;
import ell.core.kit.ShelfLine;
import ell.core.print.JarClock;
import ell.core.print.JarRules;
import ell.core.print.PasteLayer;
import ell.core.print.PrintLog;
import ell.work.bring.LayerKind;
import ell.work.bring.Layers;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/// Paste: layers, jars and the log of prints, worked out from what a workspace keeps.
public final class Printing implements Workspace.Listener {
  private static final String RULES = "jar-rules ";

  private final Workspace w;
  private final Map<String, Optional<PasteLayer>> layers = new ConcurrentHashMap<>();
  private final Map<String, Optional<Artwork>> legends = new ConcurrentHashMap<>();

  /// The paste of a workspace.
  public Printing(Workspace w) {
    this.w = w;
    w.listen(this);
  }

  @Override
  public void changed(Change change) {
    if (change instanceof Change.Revision || change instanceof Change.Everything) {
      layers.clear();
      legends.clear();
    }
  }

  /// The paste layer of a side of a revision, when there is one.
  public Optional<PasteLayer> layer(Revision revision, Side side) throws IOException, ActException {
    String key = revision.design() + "\n" + revision.name() + "\n" + side + "\n" + fitted(revision);
    Optional<PasteLayer> known = layers.get(key);
    if (known == null) {
      LayerKind kind = side == Side.FIRST ? LayerKind.PASTE_FIRST : LayerKind.PASTE_SECOND;
      known =
          Layers.kept(
                  w.book().document(revision.design(), revision.name(), kind.key()), kind.words())
              .map(a -> PasteLayer.of(a, revision, side));
      layers.put(key, known);
    }
    return known;
  }

  /// Variants of a revision differ in what is fitted.
  private static int fitted(Revision r) {
    return r.parts().stream().filter(p -> p.fitted()).map(p -> p.reference()).toList().hashCode();
  }

  /// The legend of a revision, when there is one.
  public Optional<Artwork> legend(Revision r) throws IOException, ActException {
    String key = r.design() + "\n" + r.name();
    Optional<Artwork> known = legends.get(key);
    if (known == null) {
      known =
          Layers.kept(w.book().document(r.design(), r.name(), LayerKind.LEGEND.key()), "legend");
      legends.put(key, known);
    }
    return known;
  }

  /// Every print of the boards of a build.
  public PrintLog log(Build build) throws BookException {
    Map<String, List<Logged>> by = new LinkedHashMap<>();
    for (String b : build.boards()) {
      by.put(b, w.standing(b));
    }
    return PrintLog.of(by);
  }

  /// Codes of the jars on the shelf.
  public Set<String> shelved() throws BookException {
    Set<String> codes = new LinkedHashSet<>();
    for (ShelfLine l : w.book().shelf()) {
      if (l.kind() == ShelfLine.Kind.JAR) {
        codes.add(l.code());
      }
    }
    return codes;
  }

  /// Codes of jars: those on the shelf, and those that the book speaks of.
  public Set<String> jars() throws BookException {
    Set<String> codes = shelved();
    for (Logged l : moves()) {
      codes.add(((Entry.Jar) l.entry()).jar());
    }
    return codes;
  }

  private List<Logged> moves() throws BookException {
    return w.everywhere(Entry.Jar.class);
  }

  /// The jar that is in use: open or on the foil, of several the one that moved last.
  public Optional<String> inUse() throws BookException {
    return clocks().stream()
        .filter(JarClock::inUse)
        .max(Comparator.comparing((JarClock j) -> j.since().orElseThrow()))
        .map(JarClock::jar);
  }

  /// The rules of a jar.
  public JarRules rules(String jar) throws BookException {
    return w.book()
        .keepsake(RULES + jar)
        .map(t -> JarRules.read(JsonObject.parse(t, "the rules of a jar")))
        .orElse(JarRules.TYPICAL);
  }

  /// The rules of a jar as the maker gave them, empty when the typical ones stand.
  public Optional<String> rulesText(String jar) throws BookException {
    return w.book().keepsake(RULES + jar);
  }

  /// Keeps the rules of a jar, from its data sheet.
  public void setRules(String jar, String json) throws BookException, ActException {
    try {
      JarRules.read(JsonObject.parse(json, "the rules of a jar"));
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    w.book().putKeepsake(RULES + jar, json);
  }

  /// The last day on which a jar may be used, when the shelf says it.
  public Optional<java.time.LocalDate> expiry(String jar) throws BookException {
    return w.book().shelf().stream()
        .filter(l -> l.code().equals(jar))
        .flatMap(l -> l.expiry().stream())
        .findFirst();
  }

  /// How long a jar was warm, open and on the foil.
  public JarClock clock(String jar) throws BookException {
    return clockAt(jar, w.clock().instant());
  }

  /// The same as of another time.
  public JarClock clockAt(String jar, Instant now) throws BookException {
    return JarClock.of(jar, moves(), rules(jar), expiry(jar), now, w.clock().getZone());
  }

  /// The clocks of all jars.
  public List<JarClock> clocks() throws BookException {
    List<JarClock> all = new ArrayList<>();
    for (String j : jars()) {
      all.add(clock(j));
    }
    return all;
  }
}
