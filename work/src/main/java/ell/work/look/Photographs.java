package ell.work.look;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/// Photographs of joints, kept in the workspace as they were taken.
public final class Photographs {
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
        board, new Entry.Photo(place, file.getFileName().toString(), sha256(body)), body);
  }

  /// Writes a kept photograph to a file.
  public static void write(Workspace w, String sha256, Path to) throws IOException, ActException {
    byte[] body =
        w.book()
            .photograph(sha256)
            .orElseThrow(() -> new ActException("there is no photograph " + sha256));
    if (!sha256(body).equals(sha256)) {
      throw new ActException("the photograph " + sha256 + " was changed after it was kept");
    }
    Files.write(to, body);
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
