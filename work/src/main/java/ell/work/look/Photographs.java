package ell.work.look;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.files.Output;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Photographs of joints, kept in the workspace as they were taken.
public final class Photographs {
  private static final int LONGEST = 120;
  private static final int MOST = 30 << 20;

  private Photographs() {}

  /// Keeps a photograph of a place of a board.
  ///
  /// @throws ActException when it is no JPEG or PNG, or larger than 30 MB
  public static Logged keep(Workspace w, String board, String place, Path file)
      throws IOException, ActException {
    byte[] body;
    try {
      if (Files.size(file) > MOST) {
        throw new ActException(file.getFileName() + " is larger than 30 MB");
      }
      body = Files.readAllBytes(file);
    } catch (NoSuchFileException e) {
      throw new ActException(file + ": there is no such file", e);
    }
    if (!picture(body)) {
      throw new ActException(file.getFileName() + ": expected a JPEG or a PNG");
    }
    return w.keepPhotograph(
        board, new Entry.Photo(place, plain(file.getFileName().toString()), sha256(body)), body);
  }

  /// Writes kept photographs into a folder, each under its own name; those of one name are told
  /// apart by a number, and nothing that is there is written over.
  ///
  /// @return the files, in the order of the photographs
  /// @throws ActException when the bytes of one are not there, or not those that were kept
  public static List<Path> write(Workspace w, List<Entry.Photo> photographs, Path folder)
      throws IOException, ActException {
    Map<Entry.Photo, byte[]> bodies = new LinkedHashMap<>();
    for (Entry.Photo p : photographs) {
      bodies.put(p, body(w, p.sha256()));
    }
    Files.createDirectories(folder);
    Set<Path> used = new HashSet<>();
    List<Path> files = new ArrayList<>();
    for (Entry.Photo p : photographs) {
      byte[] body = bodies.get(p);
      Path to = place(folder, p.name(), body, used);
      if (!Files.exists(to)) {
        Output.write(to, body, Output.Over.OURS);
      }
      files.add(to);
    }
    return files;
  }

  private static byte[] body(Workspace w, String sha256) throws IOException, ActException {
    byte[] body =
        w.book()
            .photograph(sha256)
            .orElseThrow(() -> new ActException("there is no photograph " + sha256));
    if (!sha256(body).equals(sha256)) {
      throw new ActException("the photograph " + sha256 + " was changed after it was kept");
    }
    return body;
  }

  /// A free place under a name, or the one where these very bytes are already.
  private static Path place(Path folder, String name, byte[] body, Set<Path> used)
      throws IOException {
    String plain = plain(name);
    int dot = plain.lastIndexOf('.');
    String stem = dot > 0 ? plain.substring(0, dot) : plain;
    String end = dot > 0 ? plain.substring(dot) : "";
    for (int n = 1; ; n++) {
      Path to = folder.resolve(n == 1 ? plain : stem + "-" + n + end);
      if (used.add(to) && (!Files.exists(to) || same(to, body))) {
        return to;
      }
    }
  }

  private static boolean same(Path file, byte[] body) throws IOException {
    return Files.isRegularFile(file)
        && Files.size(file) == body.length
        && java.util.Arrays.equals(Files.readAllBytes(file), body);
  }

  /// A name that stays in its folder, whatever the one who kept it called it: a workspace may come
  /// from anybody.
  static String plain(String name) {
    String last = name.substring(Math.max(name.lastIndexOf('/'), name.lastIndexOf('\\')) + 1);
    String kept = last.replaceAll("[^\\p{L}\\p{N}._ ()+-]", "_").strip();
    kept = kept.replaceFirst("^[.]+", "_");
    kept = kept.length() > LONGEST ? kept.substring(kept.length() - LONGEST) : kept;
    return kept.isEmpty() ? "photograph" : kept;
  }

  private static boolean picture(byte[] b) {
    boolean jpeg = b.length > 3 && (b[0] & 0xFF) == 0xFF && (b[1] & 0xFF) == 0xD8;
    boolean png =
        b.length > 8 && (b[0] & 0xFF) == 0x89 && b[1] == 'P' && b[2] == 'N' && b[3] == 'G';
    return jpeg || png;
  }

  private static String sha256(byte[] body) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(body));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException("every Java has SHA-256", e);
    }
  }
}
