package ell.trials.talk;

import ell.bench.line.LineAddress;
import ell.core.talk.Link;
import ell.core.talk.LinkPlan;
import ell.core.talk.Operation;
import ell.core.talk.PinMap;
import ell.core.talk.PinTable;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import ell.work.space.ActException;
import ell.work.talk.Terminal;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.atomic.AtomicLong;

/// A line that floods, operations over links, signals on pins.
///
/// @param bare seconds in which a socket gives so many bytes to whoever only reads them
/// @param kept seconds in which they are recorded, decoded and handed on
/// @param bytes of them
/// @param ordered seconds for twelve operations over twelve links
/// @param matched seconds for 100 signals on 200 pins
public record LineTrial(double bare, double kept, long bytes, double ordered, double matched) {
  private static final long BYTES = 64L << 20;

  /// Tries it.
  ///
  /// @param demo the folder with the demo's files
  public static LineTrial of(Path demo) throws IOException, ActException, InterruptedException {
    double bare = Double.POSITIVE_INFINITY;
    double kept = Double.POSITIVE_INFINITY;
    for (int i = 0; i < 3; i++) {
      bare = Math.min(bare, timeBare());
      kept = Math.min(kept, timeKept(demo));
    }
    return new LineTrial(bare, kept, BYTES, timeOrdered(), timeMatched());
  }

  private static ServerSocket flood() throws IOException {
    ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
    Thread.ofVirtual()
        .start(() -> {
          try (Socket s = server.accept();
              OutputStream out = s.getOutputStream()) {
            byte[] b = "tide 1234 mm, cell 12.4 mV, battery 2.98 V\r\n".repeat(1500).getBytes();
            for (long n = 0; n < BYTES; n += b.length) {
              out.write(b, 0, (int) Math.min(b.length, BYTES - n));
            }
            Thread.sleep(30_000);
          } catch (IOException | InterruptedException e) {
            // nobody listens any more
          }
        });
    return server;
  }

  private static double timeBare() throws IOException {
    try (ServerSocket server = flood();
        Socket s = new Socket("127.0.0.1", server.getLocalPort());
        InputStream in = s.getInputStream()) {
      long began = System.nanoTime();
      byte[] b = new byte[1 << 16];
      for (long n = 0; n < BYTES; ) {
        n += in.read(b);
      }
      return since(began);
    }
  }

  private static double timeKept(Path demo) throws IOException, ActException, InterruptedException {
    Path folder = Files.createTempDirectory("ell-lines");
    try (Workshop w = DemoWorkspace.make(folder.resolve("ws.ell"), demo, true);
        ServerSocket server = flood()) {
      LineAddress at = new LineAddress("tcp:127.0.0.1:" + server.getLocalPort());
      AtomicLong heard = new AtomicLong();
      long began = System.nanoTime();
      try (Terminal t =
          new Terminal(
              w.recordings(),
              w.acts(),
              "01",
              at,
              () -> at.open(2000),
              new Terminal.Watcher() {
                @Override
                public void heard(String text) {
                  heard.addAndGet(text.length());
                }

                @Override
                public void line(boolean there, String words) {}
              })) {
        // carriage returns are not shown
        while (heard.get() < BYTES / 46 * 44) {
          Thread.sleep(1);
        }
        return since(began);
      }
    }
  }

  private static double timeOrdered() {
    Random r = new Random(3);
    List<Link> links = new ArrayList<>();
    Map<String, Boolean> is = new HashMap<>();
    for (int i = 0; i < 12; i++) {
      links.add(new Link("L" + i, Link.Kind.SOLDER, false, false));
      is.put("L" + i, false);
    }
    List<Operation> all = new ArrayList<>();
    for (int i = 0; i < 12; i++) {
      Map<String, Boolean> must = new HashMap<>();
      links.forEach(l -> {
        if (r.nextInt(4) > 0) {
          must.put(l.part(), r.nextBoolean());
        }
      });
      all.add(new Operation("o" + i, must, Map.of(), List.of()));
    }
    long began = System.nanoTime();
    if (!LinkPlan.of(all, links, new LinkPlan.Stand(is, Map.of())).proven()) {
      throw new IllegalStateException("twelve over twelve are exact");
    }
    return since(began);
  }

  private static double timeMatched() {
    Random r = new Random(5);
    String[] words = {"in", "out", "pwm", "analog-in", "interrupt", "uart-tx", "i2c-sda"};
    List<PinTable.Offer> offers = new ArrayList<>();
    for (int i = 0; i < 200; i++) {
      StringBuilder b = new StringBuilder("in out");
      for (String x : words) {
        b.append(r.nextBoolean() ? " " + x : "");
      }
      offers.add(new PinTable.Offer("P" + i, PinTable.words(b.toString()), "", "", ""));
    }
    List<PinTable.Need> needs = new ArrayList<>();
    for (int i = 0; i < 100; i++) {
      needs.add(
          new PinTable.Need(
              "S" + i, PinTable.words(words[r.nextInt(words.length)]), "P" + r.nextInt(220), ""));
    }
    long began = System.nanoTime();
    if (PinMap.of(needs, offers).assignments().size() < 90) {
      throw new IllegalStateException("most signals find a pin");
    }
    return since(began);
  }

  private static double since(long began) {
    return (System.nanoTime() - began) * 1e-9;
  }
}
