package ell.book;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import java.io.IOException;
import java.nio.file.Files;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/// The server goes away in the middle of the day: the bench goes on, nothing is lost or doubled
/// when it is back, and what two benches did to one board is shown, not settled by itself.
public class OutboxTest {
  private static final Clock CLOCK = Clock.systemUTC();
  private LocalServer server;
  private Place.OnServer north;
  private Place.OnServer south;

  @BeforeMethod
  public void aServerOfItsOwn() throws Exception {
    OneServer.get(); // skips where there is none
    server = LocalServer.start(Files.createTempDirectory("outbox"), 0, false);
    north = at("NORTH");
    south = at("SOUTH");
    try (Book b = Book.create(north, CLOCK)) {
      b.importRevision(BookTest.revision("M", "B"));
      b.makeBuild("M", "B", 6, "iron", "sac305", "A", "");
      b.append("A01", new Entry.Note("before"));
      b.append("A02", new Entry.Note("before"));
      for (Lease l : b.shared().orElseThrow().leases()) {
        b.shared().orElseThrow().layDown(l.board());
      }
    }
  }

  private Place.OnServer at(String bench) throws IOException {
    return (Place.OnServer) Place.of(server.address("shop") + "?bench=" + bench);
  }

  @AfterMethod(alwaysRun = true)
  public void ended() throws Exception {
    if (server != null && server.runs()) {
      server.close();
    }
  }

  private static List<String> notes(Book b, String board) throws IOException {
    return b.entries(board).stream()
        .map(Logged::entry)
        .filter(Entry.Note.class::isInstance)
        .map(e -> ((Entry.Note) e).text())
        .toList();
  }

  @Test
  public void theBenchGoesOnAndEverythingArrivesOnce() throws Exception {
    long provisional;
    try (Book n = Book.open(north, CLOCK)) {
      assertEquals(notes(n, "A01"), List.of("before"));
      server.stop("immediate");
      provisional = n.append("A01", new Entry.Note("alone")).number();
      assertTrue(n.shared().orElseThrow().away());
      assertTrue(
          n.shared().orElseThrow().notes().toString().contains("does not answer"), "it is said");
      n.append("A01", new Entry.Strike(provisional, "not so"));
      n.append("", new Entry.Note("of no board"));
      assertEquals(notes(n, "A01"), List.of("before", "alone"));
      assertEquals(n.revision("M", "B").orElseThrow().parts().size(), 2);
      assertEquals(n.builds().getFirst().boards().size(), 6);
      // what needs the server says so, and nothing of it is done
      BookException e = expectThrows(BookException.class, () -> n.putKeepsake("offers", "x"));
      assertTrue(e.getMessage().contains("wait until it is back"), e.getMessage());
      expectThrows(BookException.class, n::verify);
    }
    // another program of the same bench sees the same, and goes on with it
    try (Book n = Book.open(north, CLOCK)) {
      assertTrue(n.shared().orElseThrow().away());
      assertEquals(notes(n, "A01"), List.of("before", "alone"));
      n.append("A02", new Entry.Note("alone too"));
      assertEquals(n.shared().orElseThrow().waiting().size(), 4);
    }
    // one that has seen nothing cannot go on, and says why
    assertTrue(
        expectThrows(BookException.class, () -> Book.open(south, CLOCK))
            .getMessage()
            .contains("does not answer"));
    server.again();
    try (Book s = Book.open(south, CLOCK)) {
      s.append("A03", new Entry.Note("another board, and numbers go on"));
    }
    try (Book n = Book.open(north, CLOCK)) {
      assertFalse(n.shared().orElseThrow().away());
      assertTrue(n.shared().orElseThrow().notes().toString().contains("4 entries that waited"));
      assertEquals(notes(n, "A01"), List.of("before", "alone"));
      assertEquals(notes(n, "A02"), List.of("before", "alone too"));
      // the strike speaks of the number that its entry has now
      List<Logged> a = n.entries("A01");
      Entry.Strike strike = (Entry.Strike) a.getLast().entry();
      assertEquals(strike.target(), a.get(a.size() - 2).number());
      assertTrue(strike.target() > provisional);
      assertEquals(n.shared().orElseThrow().waiting(), List.of());
      assertTrue(n.verify().ok(), n.verify().message());
    }
    try (Book n = Book.open(north, CLOCK)) {
      assertEquals(notes(n, "A01"), List.of("before", "alone"), "not twice");
    }
  }

  @Test
  public void aWindowThatStaysOpenFindsBack() throws Exception {
    try (Book n = Book.open(north, CLOCK)) {
      n.entries("A01");
      n.shared()
          .orElseThrow()
          .listen(
              new Shared.Listener() {
                @Override
                public void boards(java.util.Set<String> boards) {
                  // not asked for here
                }

                @Override
                public void everything() {
                  // not asked for here
                }
              });
      server.stop("immediate");
      n.append("A01", new Entry.Note("alone"));
      assertTrue(n.shared().orElseThrow().away());
      server.again();
      for (int i = 0; i < 100 && n.shared().orElseThrow().away(); i++) {
        TimeUnit.MILLISECONDS.sleep(100);
      }
      assertFalse(n.shared().orElseThrow().away());
      assertEquals(notes(n, "A01"), List.of("before", "alone"));
      n.append("A01", new Entry.Note("together"));
    }
    try (Book s = Book.openReadOnly(south)) {
      assertEquals(notes(s, "A01"), List.of("before", "alone", "together"));
    }
  }

  @Test
  public void whatTwoBenchesDidToOneBoardIsShown() throws Exception {
    try (Book n = Book.open(north, CLOCK)) {
      n.entries("A01");
      server.stop("immediate");
      n.append("A01", new Entry.Note("north mended it"));
      n.append("A02", new Entry.Note("nobody else"));
      n.append("A01", new Entry.Note("and north tried it"));
    }
    server.again();
    try (Book s = Book.open(south, CLOCK)) {
      s.append("A01", new Entry.Note("south mended it"));
      s.shared().orElseThrow().layDown("A01");
    }
    try (Book n = Book.open(north, CLOCK)) {
      Shared shared = n.shared().orElseThrow();
      List<Waiting> w = shared.waiting();
      assertEquals(w.size(), 2);
      assertTrue(w.getFirst().conflict().contains("1 entry, number"), w.toString());
      assertTrue(w.getLast().conflict().contains("behind what waits"), w.toString());
      assertEquals(notes(n, "A01"), List.of("before", "south mended it"));
      assertEquals(notes(n, "A02"), List.of("before", "nobody else"));
      shared.keep("A01");
      assertEquals(
          notes(n, "A01"),
          List.of("before", "south mended it", "north mended it", "and north tried it"));
      assertEquals(shared.waiting(), List.of());
      assertTrue(n.verify().ok());
    }
  }

  @Test
  public void whatIsLaidAsideStaysHere() throws Exception {
    try (Book n = Book.open(north, CLOCK)) {
      n.entries("A01");
      server.stop("immediate");
      n.append("A01", new Entry.Note("north mended it"));
    }
    server.again();
    try (Book s = Book.open(south, CLOCK)) {
      s.append("A01", new Entry.Note("south has it"));
    }
    try (Book n = Book.open(north, CLOCK)) {
      Shared shared = n.shared().orElseThrow();
      assertTrue(
          shared.waiting().getFirst().conflict().contains("in hand at bench SOUTH"),
          shared.waiting().toString());
      List<Waiting> gone = shared.layAside("A01", "south was right");
      assertEquals(gone.size(), 1);
      assertEquals(shared.waiting(), List.of());
      assertEquals(notes(n, "A01"), List.of("before", "south has it"));
    }
  }
}
