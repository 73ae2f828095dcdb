package ell.files.series;

import ell.core.json.JsonObject;
import ell.core.series.Pyramid;
import ell.core.series.Samples;
import ell.core.series.Series;
import ell.files.Findings;
import ell.files.Read;
import ell.files.Source;
import ell.files.TextFile;
import java.io.IOException;
import java.io.InputStream;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleUnaryOperator;

/// Captures that are too large for memory: the samples of a CSV file are kept as plain floats in a
/// folder, with the least and greatest of blocks beside them, and looked at where they lie. Reading
/// can be stopped and goes on later where it was. In the folder lie `about.json`, for each channel
/// `N.f32` (little-endian floats, volts) and `N.blocks` (least, then greatest, of each 64 samples).
public final class CaptureStore {
  private static final int ENDS = 1 << 16;
  private static final double EVEN = 0.02;

  /// No scope shows more, V.
  private static final double MOST_VOLTS = 1e9;

  private static final ValueLayout.OfFloat FLOAT =
      ValueLayout.JAVA_FLOAT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

  private final Path file;
  private final Path folder;
  private final List<Channel> channels = new ArrayList<>();
  private final List<String> told = new ArrayList<>();
  private double start = Double.NaN;
  private double step = Double.NaN;
  private double lastTime = Double.NaN;
  private int rows;
  private long bytes;
  private long lines;
  private boolean whole;
  private long missing;

  /// Hears how far it is.
  public interface Progress {
    /// Some more was read.
    ///
    /// @param bytes of the file so far
    /// @param of all
    /// @param soFar the channels as far as they were read; to be drawn at once, not to be kept
    void at(long bytes, long of, List<Series> soFar);
  }

  private static final class Channel {
    final String name;
    final DoubleUnaryOperator scale;
    final Path samples;
    final Path blocks;
    Pyramid pyramid = new Pyramid();
    FileChannel to;
    MemorySegment map;
    long room;
    float last;

    Channel(String name, DoubleUnaryOperator scale, Path folder, int number) {
      this.name = name;
      this.scale = scale;
      this.samples = folder.resolve(number + ".f32");
      this.blocks = folder.resolve(number + ".blocks");
    }

    void grow(long floats) throws IOException {
      if (to == null) {
        to =
            FileChannel.open(
                samples,
                StandardOpenOption.CREATE,
                StandardOpenOption.READ,
                StandardOpenOption.WRITE);
      }
      room = floats;
      map = to.map(FileChannel.MapMode.READ_WRITE, 0, 4 * floats, Arena.ofAuto());
    }

    void room(long floats) throws IOException {
      if (floats > room) {
        grow(Math.max(2 * room, floats + (1 << 20)));
      }
    }

    void add(int at, float v) {
      map.set(FLOAT, 4L * at, v);
      pyramid.add(v);
      last = v;
    }

    Samples samples(int count) {
      MemorySegment now = map;
      return new Samples() {
        @Override
        public int size() {
          return count;
        }

        @Override
        public float at(int i) {
          return now.get(FLOAT, 4L * i);
        }
      };
    }
  }

  private CaptureStore(Path file, Path folder) {
    this.file = file;
    this.folder = folder;
  }

  /// Finds out what a file is, and what of it is kept already.
  ///
  /// @param beside the folder in which captures are kept, each in a folder of its own
  /// @throws IOException when it cannot be read, or is no capture whose rows are numbers
  public static CaptureStore of(Path file, Path beside) throws IOException {
    CaptureStore s = new CaptureStore(file, beside.resolve(fingerprint(file)));
    Files.createDirectories(s.folder);
    s.heading();
    return s;
  }

  /// Opens what is kept whole.
  ///
  /// @return empty when nothing is kept there, or reading was stopped
  public static List<Series> kept(Path beside, String fingerprint) throws IOException {
    Path folder = beside.resolve(fingerprint);
    Path about = folder.resolve("about.json");
    if (!fingerprint.matches("[0-9a-f]{64}") || !Files.isRegularFile(about)) {
      return List.of();
    }
    JsonObject o = JsonObject.parse(Files.readString(about), "about.json");
    if (!o.flag("whole")) {
      return List.of();
    }
    int rows = (int) o.number("samples");
    List<Series> all = new ArrayList<>();
    int i = 1;
    for (String name : o.words("channels")) {
      Channel c = new Channel(name, v -> v, folder, i++);
      all.add(opened(c, rows, o.number("start"), o.number("step")));
    }
    return all;
  }

  private static Series opened(Channel c, int rows, double start, double step) throws IOException {
    try (FileChannel in = FileChannel.open(c.samples, StandardOpenOption.READ)) {
      if (in.size() < 4L * rows) {
        throw new IOException(c.samples + " is shorter than it was kept");
      }
      c.map = in.map(FileChannel.MapMode.READ_ONLY, 0, 4L * rows, Arena.ofAuto());
    }
    Samples s = c.samples(rows);
    ByteBuffer b = ByteBuffer.wrap(Files.readAllBytes(c.blocks)).order(ByteOrder.LITTLE_ENDIAN);
    int n = rows / Pyramid.BLOCK;
    if (b.remaining() != 8 * n) {
      throw new IOException(c.blocks + " does not belong to its samples");
    }
    float[] least = new float[n];
    float[] most = new float[n];
    b.asFloatBuffer().get(least).get(most);
    return Series.even(c.name, start, step, s, Pyramid.of(least, most, s));
  }

  /// What tells a file from others: its name, its size, both of its ends.
  public static String fingerprint(Path file) throws IOException {
    try (FileChannel in = FileChannel.open(file, StandardOpenOption.READ)) {
      MessageDigest d = MessageDigest.getInstance("SHA-256");
      d.update((file.getFileName() + "\n" + in.size() + "\n").getBytes(StandardCharsets.UTF_8));
      ByteBuffer b = ByteBuffer.allocate(ENDS);
      in.read(b, 0);
      d.update(b.flip());
      b.clear();
      in.read(b, Math.max(0, in.size() - ENDS));
      d.update(b.flip());
      return HexFormat.of().formatHex(d.digest());
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e); // every JDK has it
    }
  }

  /// The fingerprint of its file.
  public String fingerprint() {
    return folder.getFileName().toString();
  }

  /// What was guessed, missing or left out, a sentence each.
  public List<String> told() {
    return List.copyOf(told);
  }

  private int columns;
  private int timeColumn = -1;
  private char separator = ',';
  private boolean comma;
  private double timeScale = 1;
  private int[] columnOf = {};

  private void heading() throws IOException {
    Findings f = new Findings(file.getFileName().toString());
    Source source = Source.of(file);
    SteppedHeading stepped = SteppedHeading.find(source, f).orElse(null);
    if (f.failed()) {
      throw none(f);
    }
    Voltages volts = new Voltages();
    if (stepped != null) {
      step = stepped.step();
      start = stepped.start();
      separator = stepped.separator();
      comma = stepped.comma();
      columns = stepped.names().size();
      columnOf = new int[columns];
      for (int c = 0; c < columns; c++) {
        columnOf[c] = c;
        String name = stepped.names().get(c);
        Sense.Column col = volts.column(name).orElse(new Sense.Column(name, v -> v));
        channels.add(new Channel(col.name(), col.scale(), folder, c + 1));
      }
      return;
    }
    TextFile.Encoding e = TextFile.encoding(source);
    LogHeading head = LogHeading.find(source, e, volts, f).orElseThrow(() -> none(f));
    timeColumn = head.timeColumn();
    timeScale = head.timeScale();
    separator = head.separator();
    comma = head.comma();
    columnOf = head.at().stream().mapToInt(Integer::intValue).toArray();
    columns = timeColumn + 1;
    for (int c = 0; c < columnOf.length; c++) {
      columns = Math.max(columns, columnOf[c] + 1);
      Sense.Column col = head.columns().get(c);
      channels.add(new Channel(col.name(), col.scale(), folder, c + 1));
    }
  }

  private static IOException none(Findings f) {
    Read.Flawed<?> flawed = (Read.Flawed<?>) f.flawed();
    return new IOException(flawed.problems().getFirst().message());
  }

  /// Reads the file, or goes on where it was stopped.
  ///
  /// @param stopped is asked now and then; what was read until then is kept
  /// @return the channels, empty when it was stopped
  /// @throws IOException when a row is no row of numbers, naming the line, or rows are not evenly
  ///   apart
  public List<Series> read(Progress progress, BooleanSupplier stopped) throws IOException {
    List<Series> there = kept(folder.getParent(), fingerprint());
    if (!there.isEmpty()) {
      return there;
    }
    long all = Files.size(file);
    resume();
    RowScanner scanner = new RowScanner(columns, separator, comma);
    try (InputStream in = Files.newInputStream(file)) {
      in.skipNBytes(bytes);
      boolean[] off = {false};
      scanner.scan(
          in,
          bytes,
          lines,
          new RowScanner.Rows() {
            @Override
            public boolean rows(double[][] cells, int count, int[] at, long before)
                throws IOException {
              take(cells, count, at, before);
              if (rows > 1 && step > 0) {
                progress.at(scanner.bytes(), all, series());
              }
              off[0] = stopped.getAsBoolean();
              return !off[0];
            }

            @Override
            public boolean odd(long line, String text) throws IOException {
              if (rows == 0) {
                return true; // the heading
              }
              throw new IOException(
                  "line " + line + ": expected " + columns + " numbers, found '" + text + "'");
            }
          },
          stopped);
      if (off[0] || stopped.getAsBoolean()) {
        // the row in hand was taken: go on behind it
        bytes = scanner.bytes();
        lines = scanner.lines();
        keep(false);
        return List.of();
      }
    }
    if (rows < 2) {
      throw new IOException("fewer than two rows of numbers below the heading");
    }
    if (missing > 0) {
      told.add(missing + " samples are missing: the one before each stands for it");
    }
    whole = true;
    keep(true);
    return kept(folder.getParent(), fingerprint());
  }

  private void take(double[][] cells, int count, int[] at, long before) throws IOException {
    if (rows > Integer.MAX_VALUE - 8 - count) {
      throw new IOException("more than " + rows + " samples");
    }
    int first = rows;
    if (timeColumn >= 0) {
      for (int i = 0; i < count; i++) {
        time(cells[timeColumn][i] * timeScale, before + at[i]);
        rows++;
      }
    }
    for (int c = 0; c < channels.size(); c++) {
      Channel to = channels.get(c);
      double[] from = cells[columnOf[c]];
      to.room(first + count);
      for (int i = 0; i < count; i++) {
        double v = to.scale.applyAsDouble(from[i]);
        if (Double.isNaN(v)) {
          missing++;
          v = to.last;
        }
        if (!(v >= -MOST_VOLTS && v <= MOST_VOLTS)) {
          throw new IOException(
              String.format(
                  Locale.ROOT,
                  "line %d: %.3g V: no scope shows that; expected volts",
                  before + at[i],
                  v));
        }
        to.add(first + i, (float) v);
      }
    }
    rows = first + count;
  }

  /// Every time is the first and so many steps.
  private void time(double t, long line) throws IOException {
    if (rows > 1) {
      // within half a step of where it should be, and what was written with few digits
      double off = t - start - rows * step;
      if (!(t > lastTime) || off > slack || off < -slack) {
        notEven(t, line);
      }
      if ((rows & REFINED - 1) == 0) {
        step = (t - start) / rows; // gets better with every row
        slack = step * (0.6 + EVEN);
      }
    } else if (rows == 1) {
      step = t - start;
      slack = step * (0.6 + EVEN + REFINED * EVEN);
      if (!(step > 0)) {
        throw new IOException("line " + line + ": times must rise");
      }
    } else {
      start = t;
    }
    lastTime = t;
  }

  private void notEven(double t, long line) throws IOException {
    throw new IOException(
        t > lastTime
            ? String.format(
                Locale.ROOT,
                "line %d: rows of a capture this large are evenly apart; expected %.9g s, found %.9g s",
                line,
                start + rows * step,
                t)
            : "line " + line + ": times must rise");
  }

  private static final int REFINED = 64;
  private double slack;

  private List<Series> series() {
    List<Series> all = new ArrayList<>();
    for (Channel c : channels) {
      all.add(Series.even(c.name, start, Math.max(step, 1e-15), c.samples(rows), c.pyramid));
    }
    return all;
  }

  private void resume() throws IOException {
    Path about = folder.resolve("about.json");
    if (!Files.isRegularFile(about)) {
      return;
    }
    JsonObject o = JsonObject.parse(Files.readString(about), "about.json");
    rows = (int) o.number("samples");
    bytes = (long) o.number("bytes");
    lines = (long) o.number("lines");
    missing = (long) o.number("missing", 0);
    start = o.number("start", start);
    step = o.number("step", step);
    lastTime = o.number("last", Double.NaN);
    slack = step * (0.6 + EVEN);
    for (Channel c : channels) {
      c.grow(Math.max(1 << 20, 2L * rows));
      c.pyramid = Pyramid.of(c.samples(rows));
      c.last = rows > 0 ? c.map.get(FLOAT, 4L * (rows - 1)) : 0;
    }
    told.add("goes on behind " + rows + " samples that were read before");
  }

  private void keep(boolean done) throws IOException {
    for (Channel c : channels) {
      if (c.map != null) {
        c.map.force();
      }
      if (done) {
        float[] least = c.pyramid.least();
        float[] most = c.pyramid.most();
        ByteBuffer b = ByteBuffer.allocate(8 * least.length).order(ByteOrder.LITTLE_ENDIAN);
        b.asFloatBuffer().put(least).put(most);
        Files.write(c.blocks, b.array());
      }
      if (c.to != null && done) {
        c.map = null;
        c.to.close();
        try (FileChannel cut = FileChannel.open(c.samples, StandardOpenOption.WRITE)) {
          cut.truncate(4L * rows);
        } catch (IOException e) {
          // a system that cannot cut what is still mapped leaves it longer: nothing is lost
          told.add(c.samples.getFileName() + " is longer than its samples");
        }
      } else if (c.to != null) {
        c.to.close();
        c.to = null;
      }
    }
    StringBuilder names = new StringBuilder();
    for (Channel c : channels) {
      names.append(names.isEmpty() ? "" : ",").append(quoted(c.name));
    }
    Path about = folder.resolve("about.json");
    Path part = folder.resolve("about.part");
    Files.writeString(
        part,
        "{\"file\":"
            + quoted(file.getFileName().toString())
            + ",\"channels\":["
            + names
            + "],\"samples\":"
            + rows
            + ",\"start\":"
            + number(start)
            + ",\"step\":"
            + number(step)
            + ",\"last\":"
            + number(lastTime)
            + ",\"bytes\":"
            + bytes
            + ",\"lines\":"
            + lines
            + ",\"missing\":"
            + missing
            + ",\"whole\":"
            + whole
            + "}\n");
    Files.move(
        part,
        about,
        java.nio.file.StandardCopyOption.REPLACE_EXISTING,
        java.nio.file.StandardCopyOption.ATOMIC_MOVE);
  }

  private static String quoted(String s) {
    String plain = s.replaceAll("\\p{Cntrl}", " ");
    return '"' + plain.replace("\\", "\\\\").replace("\"", "\\\"") + '"';
  }

  private static String number(double d) {
    return Double.isFinite(d) ? String.valueOf(d) : "0";
  }
}
