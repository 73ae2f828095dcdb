package ell.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.annotations.Test;

/// Eight benches append to one book while benches, server and network are killed at random moments:
/// every entry that was acknowledged is there once, none is there twice, and the chains hold.
public class ServerKillTest {
  private static final int BENCHES = 8;
  private static final int ENTRIES = 10_000;

  /// A bench: appends as fast as it can, and says each text once it is acknowledged, by the server
  /// or by its own outbox.
  static final class Bench {
    private Bench() {}

    public static void main(String[] args) throws Exception {
      Random random = new Random(Long.parseLong(args[1]));
      String name = args[2];
      try (Book b = Book.open(Place.of(args[0]), Clock.systemUTC())) {
        b.shared().orElseThrow().listen(new Deaf());
        b.entries(name);
        for (int i = 0; i < 1_000_000; i++) {
          String text = name + " " + ProcessHandle.current().pid() + " " + i;
          String board = random.nextInt(4) == 0 ? "" : name;
          List<String> said = new ArrayList<>();
          try {
            if (random.nextInt(5) == 0) {
              b.appendAll(board, List.of(new Entry.Note(text), new Entry.Note(text + " too")));
              said.add(text + " too");
            } else {
              b.append(board, new Entry.Note(text));
            }
            said.add(text);
          } catch (IOException e) {
            TimeUnit.MILLISECONDS.sleep(20); // refused: nothing was promised
          }
          said.forEach(System.out::println);
          System.out.flush();
          if (b.shared().orElseThrow().away()) {
            TimeUnit.MILLISECONDS.sleep(
                20); // a hand is not that fast, and the outbox would be long
          }
        }
      }
    }
  }

  private static final class Deaf implements Shared.Listener {
    @Override
    public void boards(Set<String> boards) {
      // only what is written counts here
    }

    @Override
    public void everything() {
      // only what is written counts here
    }
  }

  /// A network between benches and server that can be torn.
  private static final class Network implements AutoCloseable {
    private final ServerSocket door;
    private final int to;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();
    private volatile boolean torn;

    Network(int to) throws IOException {
      this.to = to;
      door = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
      Thread.ofPlatform().daemon().start(this::serve);
    }

    int port() {
      return door.getLocalPort();
    }

    private void serve() {
      while (!door.isClosed()) {
        try {
          Socket in = door.accept();
          if (torn) {
            in.close();
            continue;
          }
          Socket out = new Socket(InetAddress.getLoopbackAddress(), to);
          open.add(in);
          open.add(out);
          Thread.ofPlatform().daemon().start(() -> carry(in, out));
          Thread.ofPlatform().daemon().start(() -> carry(out, in));
        } catch (IOException e) {
          // whoever called hears it
        }
      }
    }

    private void carry(Socket from, Socket into) {
      try (InputStream in = from.getInputStream();
          OutputStream out = into.getOutputStream()) {
        in.transferTo(out);
      } catch (IOException e) {
        // torn
      }
      for (Socket s : List.of(from, into)) {
        open.remove(s);
        try {
          s.close();
        } catch (IOException e) {
          // torn
        }
      }
    }

    void tear() {
      torn = true;
      for (Socket s : open) {
        try {
          s.close();
        } catch (IOException e) {
          // torn
        }
      }
    }

    void mend() {
      torn = false;
    }

    @Override
    public void close() throws IOException {
      door.close();
      tear();
    }
  }

  private static final class Running {
    private final String name;
    private final String address;
    private final Set<String> said;
    private final Path state;
    private Process process;

    Running(String name, String address, Path state, Set<String> said) {
      this.name = name;
      this.address = address;
      this.state = state;
      this.said = said;
    }

    void start(long seed) throws IOException {
      process =
          new ProcessBuilder(
                  Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                  "--enable-native-access=ALL-UNNAMED",
                  "-XX:TieredStopAtLevel=1",
                  "-XX:+UseSerialGC",
                  "-Xmx128m",
                  "-Dell.state=" + state,
                  "-cp",
                  System.getProperty("java.class.path"),
                  Bench.class.getName(),
                  address,
                  String.valueOf(seed),
                  name)
              .redirectError(ProcessBuilder.Redirect.DISCARD)
              .start();
      BufferedReader r = process.inputReader(StandardCharsets.UTF_8);
      Thread.ofPlatform()
          .daemon()
          .start(() -> {
            try {
              for (String line = r.readLine(); line != null; line = r.readLine()) {
                said.add(line);
              }
            } catch (IOException e) {
              // killed
            }
          });
    }

    void kill() throws InterruptedException {
      process.destroyForcibly().waitFor();
      TimeUnit.MILLISECONDS.sleep(50); // what it said last is read
    }
  }

  @Test(timeOut = 400_000)
  public void nothingAcknowledgedIsLostOrDoubled() throws Exception {
    OneServer.get(); // skips where there is none
    Random random = new Random(7);
    Path state = Files.createTempDirectory("kill-state");
    Set<String> said = ConcurrentHashMap.newKeySet();
    AtomicInteger kills = new AtomicInteger();
    try (LocalServer server = LocalServer.start(Files.createTempDirectory("kill"), 0, false);
        Network network = new Network(server.port())) {
      Place.OnServer direct = (Place.OnServer) Place.of(server.address("shop") + "?bench=LAST");
      Book.create(direct, Clock.systemUTC()).close();
      List<Running> all = new ArrayList<>();
      for (int i = 0; i < BENCHES; i++) {
        String address = "postgresql://owner@127.0.0.1:" + network.port() + "/shop?bench=B" + i;
        all.add(new Running("B" + i, address, state, said));
        all.getLast().start(random.nextLong());
      }
      while (said.size() < ENTRIES) {
        TimeUnit.MILLISECONDS.sleep(400 + random.nextInt(1200));
        switch (random.nextInt(5)) {
          case 0, 1 -> {
            Running one = all.get(random.nextInt(BENCHES));
            one.kill();
            one.start(random.nextLong());
          }
          case 2 -> {
            server.stop("immediate");
            TimeUnit.MILLISECONDS.sleep(random.nextInt(1500));
            server.again();
          }
          default -> {
            network.tear();
            TimeUnit.MILLISECONDS.sleep(random.nextInt(1500));
            network.mend();
          }
        }
        kills.incrementAndGet();
      }
      for (Running r : all) {
        r.kill();
      }
      // each bench is started once more, and hands over what waited
      System.setProperty("ell.state", state.toString());
      for (Running r : all) {
        try (Book b = Book.open(Place.of(r.address), Clock.systemUTC())) {
          assertEquals(b.shared().orElseThrow().waiting(), List.of(), r.name);
        }
      }
      Map<String, Integer> found = new HashMap<>();
      try (Book b = Book.openReadOnly(direct)) {
        assertTrue(b.verify().ok(), b.verify().message());
        for (Running r : all) {
          count(b.entries(r.name), found);
        }
        count(b.entries(""), found);
      }
      found.forEach((text, times) -> assertEquals(times, 1, text + " is there twice"));
      Set<String> lost = new java.util.TreeSet<>(said);
      lost.removeAll(found.keySet());
      assertEquals(lost, Set.of(), "acknowledged and lost, of " + said.size());
      assertTrue(kills.get() >= 3, "killed " + kills + " times");
      assertTrue(found.size() >= ENTRIES);
    }
  }

  private static void count(List<Logged> all, Map<String, Integer> found) {
    for (Logged l : all) {
      found.merge(((Entry.Note) l.entry()).text(), 1, Integer::sum);
    }
  }
}
