package ell.work.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import ell.bench.line.LineAddress;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.talk.Strip;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.zip.CRC32;
import org.testng.annotations.Test;

/// What goes over a line is kept: cut anywhere, read up to there; as much as comes; lost and found.
public class RecordingTest {
  private static Workshop demo() throws Exception {
    return DemoWorkspace.make(
        Files.createTempDirectory("lines").resolve("ws.ell"), Path.of("../demo"), true);
  }

  private static List<Recording.Piece> pieces(byte[] file) throws IOException {
    List<Recording.Piece> all = new ArrayList<>();
    Recording.read(new ByteArrayInputStream(file), all::add);
    return all;
  }

  @Test
  public void aFileThatWasCutIsReadUpToThere() throws Exception {
    Path f = Files.createTempDirectory("rec").resolve("a.talk");
    try (Recording r = Recording.begin(f, new Recording.Of("01", "sim", "x", "", "now"))) {
      r.sent("id?\r".getBytes());
      r.heard("board 01\r\n".getBytes(), 10);
      r.told("lost: pulled");
      r.heard(new byte[] {0, (byte) 0xff, 3}, 3);
    }
    byte[] whole = Files.readAllBytes(f);
    assertEquals(pieces(whole).size(), 4);
    int head = new String(whole, java.nio.charset.StandardCharsets.ISO_8859_1).indexOf('\n') + 1;
    for (int n = head; n <= whole.length; n++) {
      List<Recording.Piece> got = pieces(java.util.Arrays.copyOf(whole, n));
      assertTrue(got.size() <= 4);
      for (int i = 0; i < got.size(); i++) {
        assertEquals(got.get(i).bytes(), pieces(whole).get(i).bytes());
      }
    }
    for (int n : new int[] {0, 3, head - 1}) {
      byte[] cut = java.util.Arrays.copyOf(whole, n);
      org.testng.Assert.expectThrows(IOException.class, () -> pieces(cut));
    }
  }

  @Test
  public void whatWasCutOffIsLoggedByWhoeverLooksNext() throws Exception {
    try (Workshop w = demo()) {
      Recording r = w.recordings().begin("01", "tcp:x:1", "first-load", "program");
      r.sent("id?\r".getBytes());
      r.heard("board".getBytes(), 5);
      assertEquals(w.recordings().recover().size(), 0, "somebody still writes it");
      r.close();
      List<Logged> found = w.recordings().recover();
      assertEquals(found.size(), 1);
      Entry.Talk t = (Entry.Talk) found.getFirst().entry();
      assertEquals(t.sent(), 4);
      assertEquals(t.heard(), 5);
      assertTrue(t.verdict().isEmpty(), "what was cut off judges nothing");
      assertTrue(t.told().getFirst().contains("cut off"));
      assertEquals(
          Strip.rows(w.recordings().pieces(t)).stream().map(Strip.Row::text).toList(),
          List.of("id?", "board"));
      assertEquals(w.recordings().recover().size(), 0, "once");
      assertTrue(w.book().verify().ok());
    }
  }

  /// 96 MB as fast as they come: every byte is in the recording, and memory does not grow with it.
  @Test(timeOut = 120_000)
  public void aFloodIsKeptWhole() throws Exception {
    long bytes = 96L << 20;
    CRC32 sent = new CRC32();
    try (Workshop w = demo();
        ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      Thread.ofVirtual()
          .start(() -> {
            try (Socket s = server.accept();
                OutputStream out = s.getOutputStream()) {
              byte[] b = new byte[1 << 16];
              Random r = new Random(1);
              for (long n = 0; n < bytes; n += b.length) {
                r.nextBytes(b);
                sent.update(b);
                out.write(b);
              }
              Thread.sleep(60_000);
            } catch (IOException | InterruptedException e) {
              // the test is over
            }
          });
      long[] heard = new long[1];
      LineAddress at = new LineAddress("tcp:127.0.0.1:" + server.getLocalPort());
      Recording rec = w.recordings().begin("01", at.text(), "", "");
      System.gc();
      long before = Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
      try (OpenLine line =
          new OpenLine(
              () -> at.open(2000),
              rec,
              new OpenLine.Watches() {
                @Override
                public void heard(OpenLine.Heard h) {
                  heard[0] += h.bytes().length;
                }
              })) {
        while (heard[0] < bytes) {
          Thread.sleep(20); // nobody takes what comes
        }
        System.gc();
        long grown =
            Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory() - before;
        assertTrue(grown < 48 << 20, "memory grew by " + (grown >> 20) + " MB");
      }
      rec.close();
      CRC32 kept = new CRC32();
      long[] n = new long[1];
      Recording.read(
          rec.file(),
          p -> {
            kept.update(p.bytes());
            n[0] += p.bytes().length;
          });
      assertEquals(n[0], bytes);
      assertEquals(kept.getValue(), sent.getValue());
      List<Logged> found = w.recordings().recover();
      assertEquals(((Entry.Talk) found.getFirst().entry()).heard(), bytes);
      assertTrue(Files.exists(rec.file()), "a large one stays beside the workspace");
    }
  }

  @Test(timeOut = 60_000)
  public void aLineThatIsLostIsFoundAgain() throws Exception {
    try (Workshop w = demo();
        ServerSocket server = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      Thread.ofVirtual()
          .start(() -> {
            for (int i = 1; i <= 3; i++) {
              try (Socket s = server.accept()) {
                s.getOutputStream().write(("life " + i + "\r\n").getBytes());
                s.getOutputStream().flush();
                Thread.sleep(i < 3 ? 100 : 30_000);
              } catch (IOException | InterruptedException e) {
                return;
              }
            }
          });
      LineAddress at = new LineAddress("tcp:127.0.0.1:" + server.getLocalPort());
      StringBuilder heard = new StringBuilder();
      List<String> line = new ArrayList<>();
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
                  heard.append(text);
                }

                @Override
                public void line(boolean there, String words) {
                  line.add(there ? "found" : "lost");
                }
              })) {
        while (heard.indexOf("life 3") < 0) {
          Thread.sleep(20);
        }
        t.send("still there?\r");
        Entry.Talk e = (Entry.Talk) t.end().entry();
        assertEquals(line, List.of("lost", "found", "lost", "found"));
        assertTrue(e.told().toString().contains("lost 2 times"), e.told().toString());
        String strip =
            Strip.rows(w.recordings().pieces(e)).stream()
                .map(Strip.Row::text)
                .reduce("", (a, b) -> a + "|" + b);
        for (String s : List.of("life 1", "life 2", "life 3", "lost", "found", "still there?")) {
          assertTrue(strip.contains(s), strip);
        }
      }
    }
  }
}
