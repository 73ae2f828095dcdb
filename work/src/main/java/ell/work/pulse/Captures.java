package ell.work.pulse;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.pulse.Judged;
import ell.core.pulse.Outlines;
import ell.core.pulse.PulsePlan;
import ell.core.series.Log;
import ell.core.series.Series;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.series.CaptureReader;
import ell.files.series.CaptureStore;
import ell.files.series.CaptureWriter;
import ell.work.act.Acts;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.OffsetDateTime;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;

/// Captures that are kept: each belongs to a place of a board, is measured and judged when it is
/// kept, and can be opened again as it was.
public final class Captures {
  /// Files up to this size are kept whole in the book, packed; the samples of larger ones lie in a
  /// folder beside the workspace.
  public static final long MOST_KEPT = 48L << 20;

  private static final CaptureStore.Progress UNHEARD = (_, _, _) -> {};

  private static final int LONGEST_NAME = 120;

  private final Workspace space;
  private final Acts acts;

  /// The captures of a workspace.
  public Captures(Workspace space, Acts acts) {
    this.space = space;
    this.acts = acts;
  }

  /// Reads a capture file.
  ///
  /// @param warned is told of what was passed over, a sentence each
  /// @throws ActException naming the file, the line and what was expected
  public static Log read(Path file, Consumer<String> warned) throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException("there is no file " + file);
    }
    return read(Source.of(file), warned);
  }

  private static Log read(Source source, Consumer<String> warned) throws IOException, ActException {
    return switch (CaptureReader.read(source)) {
      case Read.Flawed<Log> flawed -> {
        Problem p = flawed.problems().getFirst();
        throw new ActException(
            source.name()
                + (p.line() > 0 ? ", line " + p.line() : "")
                + ": "
                + p.message()
                + (flawed.problems().size() > 1
                    ? "; and " + (flawed.problems().size() - 1) + " more"
                    : ""));
      }
      case Read.Whole<Log> whole -> {
        whole.warnings().forEach(w -> warned.accept(w.toString()));
        if (!(whole.value().series().getFirst().duration() > 0)) {
          throw new ActException(source.name() + ": all samples are of one time");
        }
        yield whole.value();
      }
    };
  }

  /// The channel of a name, or the only one.
  ///
  /// @throws ActException when there are several and none is named, or there is none of that name
  public static Series channel(Log log, Optional<String> name) throws ActException {
    List<String> names = log.series().stream().map(Series::name).toList();
    if (name.isEmpty()) {
      if (log.series().size() == 1) {
        return log.series().getFirst();
      }
      throw new ActException(
          "the file has several channels, say which: " + String.join(", ", names));
    }
    return log.series().stream()
        .filter(s -> s.name().equalsIgnoreCase(name.get()))
        .findFirst()
        .orElseThrow(() ->
            new ActException(
                "there is no channel '" + name.get() + "'; there are " + String.join(", ", names)));
  }

  /// Judges a channel at a place, as the plan wants it.
  ///
  /// @param bandwidth of the instrument, Hz, 0 when it is not known
  /// @throws ActException when the board has no such place
  public static Judged judge(PulsePlan plan, String place, Series s, double bandwidth)
      throws ActException {
    try {
      return Judged.of(s, plan.at(place), plan.signatures(place), bandwidth);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// Keeps a file as the capture of a place.
  public Logged keep(
      PulsePlan plan,
      String board,
      String place,
      Path file,
      Optional<String> channel,
      double bandwidth,
      Consumer<String> warned)
      throws IOException, ActException {
    String name = plain(file.getFileName().toString());
    if (Files.isRegularFile(file) && Files.size(file) > MOST_KEPT) {
      return keepBeside(plan, board, place, file, channel, bandwidth, warned);
    }
    Series s = channel(read(file, warned), channel);
    Judged j = judge(plan, place, s, bandwidth);
    String sha = keep(name, Files.readAllBytes(file));
    return log(board, j, s, name, s.name(), sha, "");
  }

  private Logged keepBeside(
      PulsePlan plan,
      String board,
      String place,
      Path file,
      Optional<String> channel,
      double bandwidth,
      Consumer<String> warned)
      throws IOException, ActException {
    CaptureStore store = CaptureStore.of(file, beside());
    List<Series> all = large(store, UNHEARD, () -> false);
    store.told().forEach(warned);
    Series s = channel(new Log(all), channel);
    Judged j = judge(plan, place, s, bandwidth);
    String name = plain(file.getFileName().toString());
    Entry.Capture e = entry(j, s, name, s.name(), "", "", store.fingerprint());
    return acts.log(board, List.of(e)).orThrow().getLast();
  }

  /// Reads a file that is too large for memory into the folder beside the workspace, or goes on
  /// where it was stopped.
  ///
  /// @return the channels, empty when it was stopped
  /// @throws ActException when it is no capture whose rows are evenly apart, naming the line
  public static List<Series> large(
      CaptureStore store, CaptureStore.Progress progress, BooleanSupplier stopped)
      throws ActException {
    try {
      return store.read(progress, stopped);
    } catch (IOException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// The folder in which samples lie beside the workspace.
  public Path beside() {
    return space.book().beside(".captures");
  }

  /// Keeps a file of one channel with a time of its own, for replaying a script.
  public Logged keep(PulsePlan plan, String board, String place, Path file, OffsetDateTime at)
      throws IOException, ActException {
    Series s = channel(read(file, _ -> {}), Optional.empty());
    String name = plain(file.getFileName().toString());
    Entry.Capture entry =
        entry(
            judge(plan, place, s, 0),
            s,
            name,
            s.name(),
            keep(name, Files.readAllBytes(file)),
            "",
            "");
    return acts.log(board, List.of(entry), at).orThrow().getLast();
  }

  /// Writes a kept capture as it was.
  ///
  /// @throws ActException when it is not kept
  public byte[] body(Entry.Capture c) throws IOException, ActException {
    Optional<byte[]> body =
        c.sha256().isEmpty() ? Optional.empty() : space.book().photograph(c.sha256());
    if (body.isEmpty()) {
      throw new ActException("of the capture " + c.name() + " only measures and outline are kept");
    }
    if (!sha256(body.get()).equals(c.sha256())) {
      throw new ActException("the capture " + c.name() + " was changed after it was kept");
    }
    try (GZIPInputStream in = new GZIPInputStream(new ByteArrayInputStream(body.get()))) {
      return in.readAllBytes();
    }
  }

  /// Keeps what an instrument sampled.
  ///
  /// @param with the instrument
  public Logged keep(
      PulsePlan plan, String board, String place, Series s, double bandwidth, String with)
      throws IOException, ActException {
    Judged j = judge(plan, place, s, bandwidth);
    String name = plain(place) + ".csv";
    String sha = keep(name, CaptureWriter.csv(s).getBytes(StandardCharsets.UTF_8));
    return log(board, j, s, name, s.name(), sha, with);
  }

  private String keep(String name, byte[] body) throws IOException {
    ByteArrayOutputStream packed = new ByteArrayOutputStream();
    try (GZIPOutputStream out = new GZIPOutputStream(packed)) {
      out.write(body);
    }
    byte[] all = packed.toByteArray();
    String sha = sha256(all);
    space.book().keepFile(sha, name + ".gz", all);
    return sha;
  }

  private Logged log(
      String board, Judged j, Series s, String name, String channel, String sha, String with)
      throws IOException, ActException {
    return acts.log(board, List.of(entry(j, s, name, channel, sha, with, ""))).orThrow().getLast();
  }

  /// The entry of a capture that was judged.
  public static Entry.Capture entry(
      Judged j, Series s, String name, String channel, String sha, String with, String beside) {
    return new Entry.Capture(
        j.wanted().place(),
        name,
        channel,
        sha,
        with,
        j.words(),
        j.measures(),
        j.told(),
        j.verdict(),
        Outlines.of(s),
        beside);
  }

  /// The whole capture of an entry, as it was.
  ///
  /// @return empty when its file is not kept
  /// @throws ActException when the kept bytes are not what they were
  public Optional<Series> open(Entry.Capture c) throws IOException, ActException {
    if (!c.beside().isEmpty()) {
      List<Series> all = CaptureStore.kept(beside(), c.beside());
      return all.stream().filter(s -> s.name().equals(c.channel())).findFirst();
    }
    if (c.sha256().isEmpty() || space.book().photograph(c.sha256()).isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        channel(
            read(Source.of(c.name(), body(c)), _ -> {}),
            Optional.of(c.channel()).filter(n -> !n.isEmpty())));
  }

  private static String plain(String name) {
    String kept = name.replaceAll("[^A-Za-z0-9._-]+", "-");
    return kept.length() > LONGEST_NAME ? kept.substring(kept.length() - LONGEST_NAME) : kept;
  }

  private static String sha256(byte[] body) {
    try {
      return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(body));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e); // every JDK has it
    }
  }
}
