package ell.work.talk;

import ell.book.BookException;
import ell.core.talk.Script;
import ell.core.talk.ScriptReader;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Scripts and the images that they load: as files, and kept with a revision.
public final class Scripts {
  private static final String SCRIPT = "talk-script ";
  private static final String IMAGE = "talk-image ";
  private static final long LONGEST = 4 << 20;
  private static final long MOST_IMAGE = 64L << 20;
  private static final long MOST_KEPT = 8L << 20;

  private final Workspace space;

  /// Those of a workspace.
  public Scripts(Workspace space) {
    this.space = space;
  }

  /// Where the images of a script come from.
  public interface Images {
    /// The bytes of one.
    ///
    /// @throws ActException when there is none of that name, or it is too large
    byte[] image(String name) throws IOException, ActException;
  }

  /// A script and its images.
  public record Opened(Script script, Images images) {}

  /// Reads a script from a file; its images lie beside it.
  ///
  /// @throws ActException when it is none, with the step and what was expected
  public static Opened open(Path file) throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException("there is no script " + file);
    }
    if (Files.size(file) > LONGEST) {
      throw new ActException(file + ": a script is a few pages, this is none");
    }
    Path beside = file.toAbsolutePath().getParent();
    Script script;
    try {
      script = ScriptReader.read(Files.readString(file), named(file));
    } catch (CharacterCodingException e) {
      throw new ActException(file + ": a script is text in UTF-8, this is none", e);
    } catch (IllegalArgumentException e) {
      throw new ActException(file + ": " + e.getMessage(), e);
    }
    return whole(new Opened(script, n -> image(beside, n)));
  }

  /// A script whose images are all there, as far as their names are known.
  private static Opened whole(Opened o) throws IOException, ActException {
    for (Script.Step s : o.script().steps()) {
      if (s.act() instanceof Script.Act.Load l && !l.file().contains("{")) {
        o.images().image(l.file());
      }
    }
    return o;
  }

  private static String named(Path file) {
    return file.getFileName().toString().replaceAll("\\.[^.]*$", "");
  }

  private static byte[] image(Path folder, String name) throws IOException, ActException {
    Path f = folder.resolve(name);
    if (!Files.isRegularFile(f)) {
      throw new ActException("there is no image " + f);
    }
    if (Files.size(f) > MOST_IMAGE) {
      throw new ActException(f + ": an image is up to " + (MOST_IMAGE >> 20) + " MB");
    }
    return Files.readAllBytes(f);
  }

  /// Keeps a script with a revision, and the images that it loads.
  ///
  /// @throws ActException when it is none, or an image is missing or too large to be kept
  public Script keep(String design, String name, Path file) throws IOException, ActException {
    Opened o = open(file);
    if (!o.script().name().matches("[A-Za-z0-9][A-Za-z0-9_.-]*")) {
      throw new ActException(
          "a script that is kept has a word for a name, found '" + o.script().name() + "'");
    }
    Map<String, String> all = new LinkedHashMap<>();
    all.put(SCRIPT + o.script().name(), Files.readString(file));
    for (Script.Step s : o.script().steps()) {
      if (s.act() instanceof Script.Act.Load l && !l.file().contains("{")) {
        byte[] image = o.images().image(l.file());
        if (image.length > MOST_KEPT) {
          throw new ActException(
              l.file() + ": images up to " + (MOST_KEPT >> 20) + " MB are kept with a script");
        }
        all.put(
            IMAGE + o.script().name() + " " + l.file(), Base64.getEncoder().encodeToString(image));
      }
    }
    space.book().putDocuments(design, name, all);
    space.tell(new Change.Revision(design, name));
    return o.script();
  }

  /// The scripts that are kept with a revision, in the order of their names.
  public List<Script> kept(String design, String name) throws BookException {
    List<Script> all = new ArrayList<>();
    for (Map.Entry<String, String> e : space.book().documents(design, name).entrySet()) {
      if (e.getKey().startsWith(SCRIPT) && !e.getValue().isBlank()) {
        all.add(ScriptReader.read(e.getValue(), e.getKey().substring(SCRIPT.length())));
      }
    }
    all.sort(java.util.Comparator.comparing(Script::name));
    return all;
  }

  /// A script that is kept with a revision, and its images.
  ///
  /// @throws ActException when there is none of that name
  public Opened kept(String design, String name, String script) throws IOException, ActException {
    String text =
        space
            .book()
            .document(design, name, SCRIPT + script)
            .filter(t -> !t.isBlank())
            .orElseThrow(() ->
                new ActException(
                    "there is no script '"
                        + script
                        + "', neither a file nor kept with "
                        + design
                        + " rev "
                        + name));
    return whole(
        new Opened(
            ScriptReader.read(text, script),
            n ->
                Base64.getDecoder()
                    .decode(
                        space
                            .book()
                            .document(design, name, IMAGE + script + " " + n)
                            .orElseThrow(
                                () -> new ActException("the image " + n + " is not kept")))));
  }
}
