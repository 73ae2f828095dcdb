package ell.trials;

import ell.bench.Bench;
import ell.bench.instrument.Supply;
import ell.bench.sim.Mischief;
import ell.bench.sim.SimBench;
import ell.bench.sim.SimBoard;
import ell.book.Book;
import ell.book.BookException;
import ell.core.entry.Entry;
import ell.core.power.LadderProposal;
import ell.files.Read;
import ell.files.Source;
import ell.files.csv.BomReader;
import ell.files.csv.OffersReader;
import ell.files.csv.OutlineReader;
import ell.files.csv.ParametersReader;
import ell.files.csv.PlacementReader;
import ell.files.csv.ShelfReader;
import ell.files.drill.DrillReader;
import ell.files.gerber.GerberReader;
import ell.files.netlist.NetlistReader;
import ell.files.series.ProfileReader;
import ell.work.demo.DemoWorkspace;
import java.io.BufferedReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/// Tries to break Ell, long: `./ell bench break [N]` with a share of the full numbers, 1 for all of
/// them. Programs are killed in the middle of appending and of first power, readers get mutated
/// files, the disk is made small. Not part of the tests; what came of it stands in the page on
/// reliability.
public final class Breaking {
  private static final int KILLED_APPENDS = 10_000;
  private static final int KILLED_POWER = 1000;
  private static final int MUTATIONS = 1_000_000;
  private static final int LEVELS = 64;
  private static final long SECOND = 1_000_000_000L;

  private final Path root;
  private final double share;
  private final Random random = new Random(2026);
  private boolean held = true;

  private Breaking(Path root, double share) {
    this.root = root;
    this.share = share;
  }

  /// Runs everything.
  ///
  /// @param root of the project, whose fixtures are mutated
  /// @param words the share of the full numbers, a hundredth when none is said; and what to try, of
  ///   `appends`, `power`, `readers`, `disk`, everything when nothing is said
  /// @return whether nothing broke
  static boolean run(Path root, List<String> words) throws Exception {
    double share = 0.01;
    List<String> only = new ArrayList<>();
    for (String w : words) {
      if (w.matches("[\\d.]+")) {
        share = Double.parseDouble(w);
      } else {
        only.add(w);
      }
    }
    Breaking b = new Breaking(root, share);
    if (only.isEmpty() || only.contains("appends")) {
      b.appends();
    }
    if (only.isEmpty() || only.contains("power")) {
      b.power();
    }
    if (only.isEmpty() || only.contains("readers")) {
      b.readers();
    }
    if (only.isEmpty() || only.contains("disk")) {
      b.disk();
      b.commands();
    }
    return b.held;
  }

  private int of(int all) {
    return Math.max(1, (int) Math.round(all * share));
  }

  private void say(String what, boolean good) {
    System.out.println((good ? "held    " : "BROKEN  ") + what);
    held &= good;
  }

  private static Process start(Class<?> main, String... args) throws IOException {
    List<String> command =
        new ArrayList<>(
            List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--enable-native-access=ALL-UNNAMED",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                main.getName()));
    command.addAll(List.of(args));
    return new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
  }

  /// Appends and says each number once it is on disk.
  static final class Appender {
    private Appender() {}

    public static void main(String[] args) throws IOException {
      try (Book b = Book.open(Path.of(args[0]), Clock.systemUTC())) {
        for (int i = 0; ; i++) {
          long last;
          if (i % 5 == 4) {
            List<Entry> pair = List.of(new Entry.Note("a" + i), new Entry.Note("b" + i));
            last = b.appendAll("01", pair).getLast().number();
          } else if (i % 7 == 6) {
            b.putKeepsake("offers", "kept " + i);
            last = b.size();
          } else {
            last = b.append("01", new Entry.Note("entry " + i)).number();
          }
          System.out.println(last);
          System.out.flush();
        }
      }
    }
  }

  private void appends() throws Exception {
    int kills = of(KILLED_APPENDS);
    Path file = Files.createTempDirectory("break").resolve("ws.ell");
    Book.create(file, Clock.systemUTC()).close();
    long acknowledged = 0;
    int lost = 0;
    int broken = 0;
    for (int k = 0; k < kills; k++) {
      Process p = start(Appender.class, file.toString());
      long last = 0;
      try (BufferedReader said = p.inputReader()) {
        int enough = 1 + random.nextInt(60);
        String line;
        for (int i = 0; i < enough && (line = said.readLine()) != null; i++) {
          last = Long.parseLong(line);
        }
        p.toHandle().destroyForcibly(); // the process itself would close its streams
        while ((line = said.readLine()) != null) {
          last = line.matches("\\d+") ? Long.parseLong(line) : last;
        }
      }
      p.waitFor();
      try (Book b = Book.open(file, Clock.systemUTC())) {
        lost += b.size() < last ? 1 : 0;
        broken += b.verify().ok() ? 0 : 1;
        acknowledged = b.size();
      }
    }
    say(
        kills
            + " kills during "
            + acknowledged
            + " acknowledged appends: lost "
            + lost
            + ", broken chains "
            + broken,
        lost == 0 && broken == 0);
  }

  /// Switches a supply on under its watchdog, and goes on looking at it until it is killed.
  static final class Powered {
    private Powered() {}

    public static void main(String[] args) throws Exception {
      Supply s = new Bench("bench", Map.of("supply", args[0]), 1000).guard(Supply.KIND);
      s.makeSafe();
      s.set(5, 0.5);
      s.output(true);
      System.out.println("on");
      while (true) {
        s.volts();
        s.amps();
      }
    }
  }

  private void power() throws Exception {
    int kills = of(KILLED_POWER);
    var revision = Samples.revision(20, 3);
    SimBoard board = new SimBoard("01", revision, LadderProposal.of(revision), List.of());
    long longest = 0;
    int late = 0;
    try (SimBench sim = SimBench.start(List.of(board), 1)) {
      sim.layDown("01");
      sim.instrument("supply").mischief(Mischief.CARELESS);
      for (int k = 0; k < kills; k++) {
        Process p = start(Powered.class, sim.addresses().get("supply"));
        p.inputReader().readLine();
        Thread.sleep(random.nextInt(30));
        p.toHandle().destroyForcibly(); // the process itself would close its streams
        long from = System.nanoTime();
        while (sim.outputOn() && System.nanoTime() - from < 30 * SECOND) {
          Thread.sleep(1);
        }
        long took = System.nanoTime() - from;
        longest = Math.max(longest, took);
        late += took > SECOND ? 1 : 0;
        p.waitFor();
      }
    }
    say(
        kills
            + " kills with the output on: off within "
            + longest / 1_000_000
            + " ms at the longest, later than a second "
            + late,
        late == 0);
  }

  private interface Reader {
    Read<?> read(Source s) throws IOException;
  }

  private void readers() throws IOException {
    Path demo = root.resolve("fixtures/marram/mg-1-b");
    Path shelf = root.resolve("fixtures/marram");
    Map<Path, Reader> all = new LinkedHashMap<>();
    all.put(demo.resolve("bom.csv"), BomReader::read);
    all.put(demo.resolve("placement.csv"), PlacementReader::read);
    all.put(demo.resolve("netlist.ipc"), NetlistReader::read);
    all.put(demo.resolve("outline.csv"), OutlineReader::read);
    all.put(shelf.resolve("shelf.csv"), ShelfReader::read);
    all.put(shelf.resolve("offers.csv"), OffersReader::read);
    all.put(shelf.resolve("parts.csv"), ParametersReader::read);
    all.put(demo.resolve("paste-first.gbr"), GerberReader::read);
    all.put(demo.resolve("drill.xnc"), DrillReader::read);
    all.put(shelf.resolve("plate-run-1.csv"), ProfileReader::read);
    int rounds = of(MUTATIONS);
    for (Map.Entry<Path, Reader> e : all.entrySet()) {
      byte[] seed = Files.readAllBytes(e.getKey());
      long refused = 0;
      double slowest = 0;
      String thrown = "";
      for (int i = 0; i < rounds; i++) {
        byte[] b = mutated(seed);
        long from = System.nanoTime();
        try {
          refused += e.getValue().read(Source.of("x", b)) instanceof Read.Flawed<?> ? 1 : 0;
        } catch (RuntimeException | StackOverflowError | OutOfMemoryError x) {
          thrown = x.toString();
        }
        slowest = Math.max(slowest, (System.nanoTime() - from) / 1e6);
      }
      say(
          e.getKey().getFileName()
              + ": "
              + rounds
              + " mutated, refused "
              + refused
              + ", slowest "
              + Math.round(slowest)
              + " ms"
              + (thrown.isEmpty() ? "" : ", thrown " + thrown),
          thrown.isEmpty() && slowest < 2000);
    }
  }

  private byte[] mutated(byte[] seed) {
    byte[] b = seed.clone();
    for (int k = 1 + random.nextInt(5); k > 0; k--) {
      int at = random.nextInt(b.length);
      int to = Math.min(b.length, at + 1 + random.nextInt(60));
      switch (random.nextInt(4)) {
        case 0 -> {
          for (int i = at; i < to; i++) {
            b[i] = (byte) random.nextInt(256);
          }
        }
        case 1 -> System.arraycopy(b, at, b, random.nextInt(b.length - (to - at) + 1), to - at);
        case 2 -> Arrays.fill(b, at, to, (byte) " 0,;-%*\"\n9".charAt(random.nextInt(10)));
        default -> b[at] ^= (byte) (1 << random.nextInt(8));
      }
    }
    return b;
  }

  /// Logs until the disk has no more room for the file: the size that a program may write is its
  /// limit here.
  private void disk() throws Exception {
    if (!Files.isExecutable(Path.of("/bin/sh"))) {
      return;
    }
    int levels = of(LEVELS * 100) / 100 == 0 ? 8 : Math.min(LEVELS, Math.max(8, of(LEVELS * 100)));
    int broken = 0;
    int full = 0;
    for (int level = 0; level < levels; level++) {
      Path file = Files.createTempDirectory("full").resolve("ws.ell");
      Book.create(file, Clock.systemUTC()).close();
      Process p =
          new ProcessBuilder(
                  "/bin/sh",
                  "-c",
                  "ulimit -f "
                      + (200 + level * 16)
                      + "; exec \"$0\" --enable-native-access=ALL-UNNAMED -cp \"$1\" \"$2\" \"$3\"",
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  System.getProperty("java.class.path"),
                  Appender.class.getName(),
                  file.toString())
              .redirectError(ProcessBuilder.Redirect.DISCARD)
              .start();
      long last = 0;
      try (BufferedReader said = p.inputReader()) {
        String line;
        while ((line = said.readLine()) != null) {
          last = line.matches("\\d+") ? Long.parseLong(line) : last;
        }
      }
      full += p.waitFor() == 0 ? 0 : 1;
      try (Book b = Book.open(file, Clock.systemUTC())) {
        broken += b.verify().ok() && b.size() >= last ? 0 : 1;
        b.append("01", new Entry.Note("room again"));
      } catch (BookException e) {
        broken++;
      }
    }
    say(
        levels + " sizes of a full disk, full in " + full + ": lost or broken in " + broken,
        broken == 0 && full == levels);
  }

  /// Every command that writes, on a disk that is full at different sizes: it is done or exits 2,
  /// and the workspace is whole.
  private void commands() throws Exception {
    if (!Files.isExecutable(Path.of("/bin/sh"))) {
      return;
    }
    Path dir = Files.createTempDirectory("commands");
    Path good = dir.resolve("good.ell");
    DemoWorkspace.make(good, root.resolve("fixtures/marram"), true).close();
    long size = Files.size(good) / 512;
    Path odd = root.resolve("fixtures/odd/panel");
    List<List<String>> all =
        List.of(
            List.of("log", "WS", "--board", "07", "note full"),
            List.of("shelf", "WS", "--count", "R4K7=5", "--attrition", "small=5%/2"),
            List.of("build", "WS", "--design", "MG-1", "--revision", "B", "--boards", "5"),
            List.of(
                "import",
                "WS",
                "--design",
                "panel",
                "--revision",
                "1",
                "--bom",
                odd.resolve("bom.csv").toString(),
                "--placement",
                odd.resolve("placement.csv").toString(),
                "--netlist",
                odd.resolve("netlist.ipc").toString()),
            List.of("backup", "WS", "--out", "DIR/copy.ell"),
            List.of("export", "WS", "--out", "DIR/export"),
            List.of("report", "WS", "--board", "07", "--out", "DIR/07.pdf"),
            List.of("verify", "WS"),
            List.of("show", "WS"));
    int levels = Math.min(LEVELS, Math.max(4, of(LEVELS)));
    int tried = 0;
    int full = 0;
    List<String> broken = new ArrayList<>();
    for (List<String> command : all) {
      for (int level = 0; level < levels; level++) {
        Path own = Files.createDirectories(dir.resolve(command.getFirst() + "-" + level));
        Path ws = own.resolve("ws.ell");
        Files.copy(good, ws);
        long most = level * 2 * size / levels;
        int code = limited(command, ws, own, most);
        tried++;
        full += code == 0 ? 0 : 1;
        if (code != 0 && code != 2) {
          broken.add(command.getFirst() + " at " + most + " ended " + code);
        }
        try (Book b = Book.open(ws, Clock.systemUTC())) {
          if (!b.verify().ok()) {
            broken.add(command.getFirst() + " at " + most + ": " + b.verify().message());
          }
          b.append("01", new Entry.Note("room again"));
        }
      }
    }
    say(
        tried
            + " commands on a full disk, of which "
            + full
            + " found no room: broken "
            + (broken.isEmpty() ? "none" : broken.toString()),
        broken.isEmpty());
  }

  private int limited(List<String> command, Path ws, Path dir, long blocks)
      throws IOException, InterruptedException {
    List<String> line =
        new ArrayList<>(
            List.of(
                "/bin/sh",
                "-c",
                "ulimit -f " + blocks + "; exec \"$0\" \"$@\"",
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "--enable-native-access=ALL-UNNAMED",
                "-XX:-UsePerfData",
                // else the store's own library would have to be unpacked first, which takes more
                // room
                "-Dorg.sqlite.lib.path=" + root.resolve("target/native"),
                "-Dorg.sqlite.lib.name=libsqlitejdbc.so",
                "-XX:TieredStopAtLevel=1",
                "-cp",
                System.getProperty("java.class.path"),
                "ell.cli.Main"));
    command.forEach(c -> line.add(c.replace("WS", ws.toString()).replace("DIR", dir.toString())));
    return new ProcessBuilder(line)
        .redirectError(ProcessBuilder.Redirect.DISCARD)
        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
        .start()
        .waitFor();
  }
}
