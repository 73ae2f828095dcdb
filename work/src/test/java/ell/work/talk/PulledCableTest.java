package ell.work.talk;

import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.instrument.Supply;
import ell.bench.line.LineAddress;
import ell.bench.link.BenchException;
import ell.bench.sim.SimBench;
import ell.bench.sim.SimBoard;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.power.LadderProposal;
import ell.work.OddBoards;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.testng.annotations.Test;

/// The cable is pulled at every byte of a load, to the board and from it: the board is never told
/// loaded when it is not, and can be loaded again.
public class PulledCableTest {
  private static final int ABREAST = 8;

  private static LoadRun.Result load(int port, byte[] image) throws Exception {
    Path file = Files.createTempDirectory("cut").resolve("x.talk");
    LineAddress at = new LineAddress("tcp:127.0.0.1:" + port);
    try (Recording r = Recording.begin(file, new Recording.Of("01", at.text(), "", "", ""));
        OpenLine line = new OpenLine(() -> at.open(2000), r, new OpenLine.Watches() {})) {
      return new LoadRun(line, 8, _ -> {}, () -> false, _ -> {}).load(image);
    }
  }

  /// Whether the board says that it runs that image.
  private static boolean runs(int port, String version) throws Exception {
    Path file = Files.createTempDirectory("cut").resolve("y.talk");
    LineAddress at = new LineAddress("tcp:127.0.0.1:" + port);
    try (Recording r = Recording.begin(file, new Recording.Of("01", at.text(), "", "", ""));
        OpenLine line = new OpenLine(() -> at.open(2000), r, new OpenLine.Watches() {})) {
      StringBuilder heard = new StringBuilder();
      for (int i = 0; i < 40 && heard.indexOf(version) < 0; i++) {
        if (i % 8 == 7) {
          line.send("ver?\r".getBytes());
        }
        line.next(0.1).ifPresent(h -> heard.append(new String(h.bytes())));
      }
      return heard.indexOf(version) >= 0;
    }
  }

  private static String version(byte[] image) {
    return String.format("%08x", ell.core.talk.Crc.crc32(image));
  }

  private static void once(Revision r, Ladder ladder, long bytes, boolean toBoard)
      throws Exception {
    byte[] image = new byte[20];
    new Random(bytes).nextBytes(image);
    String what = "pulled at byte " + bytes + (toBoard ? " to" : " from") + " the board";
    try (SimBench sim = SimBench.start(List.of(new SimBoard("01", r, ladder, List.of())), bytes)) {
      sim.layDown("01");
      Supply supply = OddBoards.power(sim, ladder);
      int port =
          sim.devices().stream()
              .filter(d -> d.kind().equals("line"))
              .findFirst()
              .orElseThrow()
              .port();
      boolean told;
      try (CutLine cable = new CutLine(port, bytes, toBoard)) {
        told = load(cable.port(), image).done();
      } catch (BenchException e) {
        told = false;
      }
      if (told) {
        assertTrue(runs(port, version(image)), what + ": it was told loaded, and is not");
      }
      byte[] other = new byte[24];
      new Random(bytes + 1).nextBytes(other);
      LoadRun.Result again = load(port, other);
      assertTrue(again.done(), what + ", then: " + again.says());
      assertTrue(runs(port, version(other)), what);
      supply.close();
    }
  }

  @Test(timeOut = 240_000)
  public void atEveryByte() throws Exception {
    Revision r = OddBoards.cell();
    Ladder ladder = LadderProposal.of(r);
    // of the first frame to the last: hello, begin, one block, end, run
    int toBoard = 7 + 15 + 31 + 7 + 7;
    int fromBoard = 22 + 8 + 8 + 12 + 8;
    List<Future<?>> all = new ArrayList<>();
    try (ExecutorService abreast = Executors.newFixedThreadPool(ABREAST)) {
      for (int i = 0; i <= toBoard + 2; i++) {
        long n = i;
        all.add(
            abreast.submit(() -> {
              once(r, ladder, n, true);
              return null;
            }));
      }
      for (int i = 0; i <= fromBoard + 22; i++) {
        long n = i;
        all.add(
            abreast.submit(() -> {
              once(r, ladder, n, false);
              return null;
            }));
      }
      for (Future<?> f : all) {
        f.get();
      }
    }
    assertFalse(all.isEmpty());
  }
}
