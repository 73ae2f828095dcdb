package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;
import static org.testng.Assert.fail;

import ell.core.board.Part;
import ell.core.board.Side;
import ell.core.entry.Entry;
import ell.core.heat.Alloy;
import ell.core.order.Method;
import ell.files.Problem;
import ell.files.Source;
import ell.work.bring.FileKind;
import ell.work.bring.ImportFiles;
import ell.work.bring.RevisionImport;
import ell.work.send.Export;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class RevisionImportTest {
  private static RevisionImport.Outcome.Whole whole(ImportFiles files) {
    return switch (RevisionImport.read("D", "1", files)) {
      case RevisionImport.Outcome.Whole w -> w;
      case RevisionImport.Outcome.Refused r -> {
        fail(r.problems().toString());
        yield null;
      }
    };
  }

  private static List<Problem> refused(ImportFiles files) {
    return switch (RevisionImport.read("D", "1", files)) {
      case RevisionImport.Outcome.Whole w -> {
        fail("it was taken: " + w.revision().title());
        yield List.of();
      }
      case RevisionImport.Outcome.Refused r -> r.problems();
    };
  }

  private static final String BOM =
      "Ref,Qty,Value,Package\n\"R1,R2\",2,1k,0603\nJ1,1,TERM,TERM-2\n";
  private static final String PLACE =
      "Ref,X(mm),Y(mm),Rot,Side\nR1,1,1,0,T\nR2,5,1,90,B\nJ1,20,1,0,T\nFID1,0,0,0,T\n";
  private static final String NET =
      "P  UNITS CUST 1\n"
          + "327GND              R1    -1          A01X+000500Y+001000X0500Y0500R000S0\n"
          + "327N1               R1    -2          A01X+001500Y+001000X0500Y0500R000S0\n"
          + "327N1               R2    -1          A02X+005000Y+000500X0500Y0500R000S0\n"
          + "327GND              R2    -2          A02X+005000Y+001500X0500Y0500R000S0\n"
          + "317GND              J1    -1    D1300PA00X+020000Y+001000X2600Y2600R000S0\n"
          + "327GND              TP1   -1          A01X+030000Y+001000X1500Y1500R000S0\n"
          + "999\n";

  @Test
  public void filesAreJoined() {
    var w = whole(Demo.files(BOM, PLACE, NET));
    assertEquals(w.revision().parts().size(), 3);
    Part r2 = w.revision().part("R2").orElseThrow();
    assertEquals(r2.place().orElseThrow(), new Part.Spot(5, 1, 90, Side.SECOND));
    assertEquals(r2.code(), "1k 0603", "without a code, value and package stand for it");
    assertEquals(w.revision().net("GND").size(), 4);
    assertTrue(w.warnings().isEmpty(), w.warnings().toString());
    assertEquals(w.revision().jointsOf("TP1").size(), 1, "test points need no bill");
  }

  @DataProvider
  Object[][] disagreements() {
    return new Object[][] {
      {
        BOM + "C9,1,10u,0805\n",
        PLACE,
        NET,
        "bom.csv",
        4,
        "C9 is in the bill of materials but not in placement.csv"
      },
      {
        BOM,
        PLACE + "U7,3,3,0,T\n",
        NET,
        "placement.csv",
        6,
        "U7 is placed here but is not in bom.csv"
      },
      {BOM + "R2,1,1k,0603\n", PLACE, NET, "bom.csv", 4, "already on line 2"},
      {BOM.replace(",2,1k", ",3,1k"), PLACE, NET, "bom.csv", 2, "does not match"},
      {BOM, PLACE.replace("R1,1,1", "R1,one,1"), NET, "placement.csv", 2, "one"},
      {BOM, PLACE, NET.replace("X+000500", "X+0005Z0"), "netlist.ipc", 2, "expected a number"},
      {BOM, PLACE, "", "netlist.ipc", 0, "no test records"},
    };
  }

  @Test(dataProvider = "disagreements")
  public void disagreementsAreNamedWithFileAndLine(
      String bom, String placement, String netlist, String file, int line, String says) {
    List<Problem> all = refused(Demo.files(bom, placement, netlist));
    assertTrue(
        all.stream()
            .anyMatch(p -> p.file().equals(file) && p.line() == line && p.message().contains(says)),
        all.toString());
  }

  @Test
  public void problemsOfAllFilesAreToldAtOnce() {
    List<Problem> all = refused(Demo.files("Ref,Qty\nR1,x\n", "Ref,X,Y\nR1,y,1\n", "rubbish"));
    assertEquals(
        all.stream().map(Problem::file).collect(Collectors.toSet()).size(), 3, all.toString());
  }

  @Test
  public void oddButHarmlessThingsAreWarnings() {
    var w =
        whole(
            Demo.files(
                BOM + "H1,1,bracket,\n",
                PLACE + "H1,40,1,0,T\n",
                NET.replace(
                    "999\n",
                    "327GND              U77   -1          A01X+030000Y+001000X1500Y1500R000S0\n999\n")));
    assertTrue(w.warnings().toString().contains("H1 has no joints"), w.warnings().toString());
    assertTrue(w.warnings().toString().contains("part U77 has joints but is in no other file"));
    assertEquals(w.warnings().getLast().line(), 8);
  }

  @Test
  public void partsLeftOffNeedNoPlace() {
    var w =
        whole(Demo.files("Ref,Value,Fitted\n\"R1,R2\",1k,yes\nJ1,T,yes\nC5,10u,no\n", PLACE, NET));
    assertFalse(w.revision().part("C5").orElseThrow().fitted());
  }

  @Test
  public void partsCanBePlacedAmidTheirJoints() {
    ImportFiles f = Demo.files(BOM, PLACE.replace("J1,20,1,0,T\n", ""), NET);
    assertTrue(refused(f).toString().contains("--place-from-joints"));
    var w =
        whole(
            new ImportFiles(
                f.bom(), f.placement(), f.netlist(), f.outline(), f.shelf(), f.ladder(), true));
    assertEquals(w.revision().part("J1").orElseThrow().place().orElseThrow().xMm(), 20, 1e-9);
    assertTrue(w.warnings().toString().contains("amid its joints"));
  }

  @Test
  public void anotherUnitShows() {
    String inches =
        PLACE
            .replace("R1,1,1", "R1,100,100")
            .replace("R2,5,1", "R2,500,100")
            .replace("J1,20,1", "J1,2000,100");
    assertTrue(
        whole(Demo.files(BOM, inches, NET))
            .warnings()
            .toString()
            .contains("another unit or another origin"));
  }

  @Test
  public void missingFilesAndBrokenLaddersAreTold() throws IOException {
    ImportFiles g = Demo.good();
    Path nowhere = Path.of("nowhere/none.csv");
    assertTrue(
        refused(
                new ImportFiles(
                    Source.of(nowhere),
                    g.placement(),
                    g.netlist(),
                    g.outline(),
                    g.shelf(),
                    g.ladder(),
                    false))
            .toString()
            .contains("no such file"));
    assertTrue(
        refused(
                new ImportFiles(
                    g.bom(),
                    g.placement(),
                    g.netlist(),
                    g.outline(),
                    g.shelf(),
                    Optional.of(Source.of("ladder.json", "{\"ground\":3}")),
                    false))
            .toString()
            .contains("ladder.json"));
    String foreign = Demo.read("mg-1-b/ladder.json").replace("\"3V3A\"", "\"9V9\"");
    assertTrue(
        refused(
                new ImportFiles(
                    g.bom(),
                    g.placement(),
                    g.netlist(),
                    g.outline(),
                    g.shelf(),
                    Optional.of(Source.of("ladder.json", foreign)),
                    false))
            .toString()
            .contains("no net '9V9'"));
  }

  @Test
  public void filesAreToldApartByWhatIsInThem() throws IOException {
    for (String f :
        List.of("bom.csv", "placement.csv", "netlist.ipc", "outline.csv", "ladder.json")) {
      String kind = FileKind.of(Source.of(Demo.FOLDER.resolve("mg-1-b/" + f))).orElseThrow().name();
      assertTrue(
          f.startsWith(kind.toLowerCase(java.util.Locale.ROOT)), f + " is taken for " + kind);
    }
    assertEquals(
        FileKind.of(Source.of(Demo.FOLDER.resolve("shelf.csv"))), Optional.of(FileKind.SHELF));
    assertEquals(FileKind.of(Source.of(Demo.FOLDER.resolve("script.txt"))), Optional.empty());
    Path odd = Files.createTempFile("odd", ".csv");
    Files.writeString(odd, "Ref,Qty\nR1,9\n");
    assertEquals(
        FileKind.of(Source.of(odd)),
        Optional.of(FileKind.BOM),
        "a bill with faults is still a bill");
  }

  /// What is exported reads back as the same revision.
  @Test
  public void exportAndImportAgree() throws Exception {
    try (Workshop w = Demo.workspace(true)) {
      Path out = Files.createTempDirectory("exp").resolve("all");
      List<String> files = Export.write(w, out);
      assertTrue(
          files.containsAll(
              List.of(
                  "book.json",
                  "entries.csv",
                  "readings.csv",
                  "boards.csv",
                  "shelf.csv",
                  "MG-1-B/netlist.ipc")));
      Path b = out.resolve("MG-1-B");
      var back =
          whole(
              new ImportFiles(
                  Source.of(b.resolve("bom.csv")),
                  Source.of(b.resolve("placement.csv")),
                  Source.of(b.resolve("netlist.ipc")),
                  Optional.of(Source.of(b.resolve("outline.csv"))),
                  Optional.of(Source.of(out.resolve("shelf.csv"))),
                  Optional.of(Source.of(b.resolve("ladder.json"))),
                  false));
      var was = w.revision("MG-1", "B");
      assertEquals(
          java.util.Set.copyOf(back.revision().parts()), java.util.Set.copyOf(was.parts()));
      assertEquals(back.revision().joints(), was.joints());
      assertEquals(back.revision().outline(), was.outline());
      assertEquals(Files.readAllLines(out.resolve("entries.csv")).size(), w.book().size() + 1);
      ActException again = expectThrows(ActException.class, () -> Export.write(w, out));
      assertTrue(again.getMessage().contains("not empty"));
      try (var left = Files.list(out.getParent())) {
        assertEquals(left.count(), 1, "no half exports");
      }
    }
  }

  /// Files are corrected and imported again as long as nothing was built from what changed; else it
  /// is said what would change, and for which board.
  @Test
  public void aRevisionIsCorrectedUntilItIsBuilt() throws Exception {
    try (Workshop w = Workshop.create(Demo.file(), Clock.systemUTC())) {
      w.revisions().store(whole(Demo.files(BOM, PLACE, NET)));
      String corrected = BOM.replaceFirst("1k", "2k");
      var change =
          w.revisions().store(whole(Demo.files(corrected, PLACE, NET))).orElseThrow().parts();
      assertEquals(change.keySet(), Set.of("R1", "R2"), change.toString());
      String part = change.keySet().iterator().next();
      assertTrue(change.get(part).contains("'1k', now '2k'"), change.toString());
      assertEquals(w.revision("D", "1").part(part).orElseThrow().value(), "2k");
      w.revisions().build("D", "1", 1, Method.IRON, Alloy.SAC305, "", "");
      // a board that has none of it yet stands in nobody's way
      w.revisions().store(whole(Demo.files(BOM, PLACE, NET)));
      assertEquals(w.revision("D", "1").part(part).orElseThrow().value(), "1k");
      w.log("01", List.of(new Entry.StepDone(1, "solder", List.of(part), 0))).orThrow();
      String no =
          expectThrows(
                  ActException.class,
                  () -> w.revisions().store(whole(Demo.files(corrected, PLACE, NET))))
              .getMessage();
      assertTrue(no.contains(part) && no.contains("(board 01)"), no);
      assertEquals(w.revision("D", "1").part(part).orElseThrow().value(), "1k");
      // what is as it was may come again
      assertTrue(
          w.revisions().store(whole(Demo.files(BOM, PLACE, NET))).orElseThrow().parts().isEmpty());
    }
  }

  @Test
  public void aWorkspaceSaysWhatIsThere() throws Exception {
    try (Workshop w = Workshop.create(Demo.file(), Clock.systemUTC())) {
      assertTrue(
          expectThrows(ActException.class, () -> w.revisions().latest())
              .getMessage()
              .contains("begin with: import"));
      assertTrue(
          expectThrows(ActException.class, () -> w.build(Optional.empty()))
              .getMessage()
              .contains("no build yet"));
      assertTrue(
          expectThrows(ActException.class, () -> w.revision("X", "1"))
              .getMessage()
              .contains("nothing is imported"));
      w.revisions().store(whole(Demo.files(BOM, PLACE, NET)));
      assertTrue(
          expectThrows(ActException.class, () -> w.revision("X", "1"))
              .getMessage()
              .contains("D rev 1"));
      assertTrue(
          expectThrows(ActException.class, () -> w.buildOf("07"))
              .getMessage()
              .contains("no board '07'"));
    }
  }
}
