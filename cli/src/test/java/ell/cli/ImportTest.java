package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// What an import says of its files, and how what it guessed is put right: by one short command,
/// and for the next revision too. The boards are unlike the demo; the files are the tests' own.
public final class ImportTest {
  private static final Path ODD = Path.of("../fixtures/odd");
  private Path dir;
  private String ws;

  @BeforeMethod
  public void make() throws IOException {
    dir = Files.createTempDirectory("import");
    ws = dir.resolve("ws.ell").toString();
    assertEquals(MainTest.ell("new", ws).code(), 0);
  }

  private MainTest.Ran bring(String board, String design, String revision, String... more) {
    return bring(ODD.resolve(board).resolve("bom.csv"), board, design, revision, more);
  }

  private MainTest.Ran bring(
      Path bom, String board, String design, String revision, String... more) {
    Path folder = ODD.resolve(board);
    List<String> args =
        new ArrayList<>(
            List.of(
                "import",
                ws,
                "--design",
                design,
                "--revision",
                revision,
                "--bom",
                bom.toString(),
                "--placement",
                folder.resolve("placement.csv").toString(),
                "--netlist",
                folder.resolve("netlist.ipc").toString(),
                "--outline",
                folder.resolve("outline.csv").toString()));
    args.addAll(List.of(more));
    return MainTest.ell(args.toArray(String[]::new));
  }

  private static JsonNode file(JsonNode all, String name) {
    for (JsonNode f : all.get("files")) {
      if (f.get("file").stringValue().equals(name)) {
        return f;
      }
    }
    throw new AssertionError(name + " is not among " + all.get("files"));
  }

  @DataProvider
  Object[][] boards() {
    return new Object[][] {{"shield", 20, 69}, {"cell", 30, 84}, {"panel", 298, 674}};
  }

  @Test(dataProvider = "boards")
  public void eachFileGivesItsAccount(String board, int parts, int joints) {
    JsonNode all = bring(board, board, "A", "--json").json();
    assertEquals(all.get("parts").intValue(), parts);
    assertTrue(file(all, "bom.csv").get("found").toString().contains(parts + " parts"));
    assertTrue(file(all, "netlist.ipc").get("found").toString().contains(joints + " joints"));
    assertTrue(file(all, "outline.csv").get("found").toString().contains("board "));
    assertTrue(file(all, "placement.csv").get("found").toString().contains(parts + " places"));
    // what was guessed is among the warnings too, where older callers look
    JsonNode guesses = file(all, "bom.csv").get("guesses");
    assertFalse(guesses.isEmpty());
    for (JsonNode g : guesses) {
      assertTrue(g.get("answer").stringValue().startsWith("packages --set-one "), g.toString());
      assertTrue(all.get("warnings").toString().contains(g.get("what").stringValue()));
    }
  }

  @Test
  public void oneCauseIsOneLineForAPerson() {
    String said = bring("shield", "SH", "A").out();
    assertTrue(said.contains("9 × one joint only: net VIN, line 10"), said);
    assertEquals(said.lines().filter(l -> l.contains("one joint only")).count(), 1, said);
  }

  @Test
  public void aHeightIsSaidAndOthersStay() {
    bring("shield", "SH", "A");
    assertEquals(MainTest.ell("packages", ws, "--set-one", "RELAY-5V=15.5mm").code(), 0);
    assertEquals(
        MainTest.ell("packages", ws, "--set-one", "TERM-3=14", "--set-one", "relay-5v=15").code(),
        0);
    String sheet = MainTest.ell("packages", ws).out();
    assertEquals(sheet.lines().filter(l -> l.startsWith("RELAY-5V")).count(), 1, sheet);
    assertTrue(sheet.contains("RELAY-5V") && sheet.contains(",15.0,"), sheet);
    assertTrue(sheet.lines().anyMatch(l -> l.startsWith("TERM-3") && l.contains(",14.0,")), sheet);
    for (String wrong : List.of("RELAY-5V", "RELAY-5V=tall", "RELAY-5V=9m", "NONE=2mm")) {
      MainTest.Ran r = MainTest.ell("packages", ws, "--set-one", "TERM-3=3", "--set-one", wrong);
      assertEquals(r.code(), 2, wrong);
      assertFalse(r.err().contains("\tat "), r.err());
    }
    assertEquals(MainTest.ell("packages", ws).out(), sheet, "a command that fails did nothing");
  }

  @Test
  public void aHeightOfAPackageFromALibrary() throws IOException {
    Path bom = dir.resolve("bom.csv");
    Files.writeString(
        bom,
        Files.readString(ODD.resolve("shield").resolve("bom.csv"))
            .replace("RELAY-5V", "Lib:RELAY-5V"));
    bring(bom, "shield", "SH", "A");
    assertEquals(MainTest.ell("packages", ws, "--set-one", "Lib:RELAY-5V=15.5mm").code(), 0);
    assertEquals(MainTest.ell("packages", ws, "--set-one", "Lib:RELAY-5V=15mm").code(), 0);
    String sheet = MainTest.ell("packages", ws).out();
    assertTrue(sheet.lines().filter(l -> l.startsWith("RELAY-5V")).count() == 1, sheet);
  }

  @Test
  public void aColumnThatIsSaidIsRememberedWithTheDesign() throws IOException {
    // the values stand under a word that says something else, and what is called value is a kind
    Path bom = dir.resolve("bom.csv");
    List<String> lines = Files.readAllLines(ODD.resolve("shield").resolve("bom.csv"));
    List<String> changed = new ArrayList<>();
    for (int i = 0; i < lines.size(); i++) {
      changed.add(lines.get(i) + (i == 0 ? ",Worth" : ",w" + i));
    }
    Files.write(bom, changed);
    JsonNode plain = bring(bom, "shield", "SH", "A", "--json").json();
    assertTrue(file(plain, "bom.csv").get("passedOver").toString().contains("columns not used"));
    MainTest.Ran no = bring(bom, "shield", "SH", "B", "--column", "value=Wroth");
    assertEquals(no.code(), 2);
    assertTrue(no.err().contains("'Wroth'") && no.err().contains("Worth"), no.err());
    no = bring(bom, "shield", "SH", "B", "--column", "worth=Worth");
    assertTrue(
        no.err().contains("no column means 'worth'") && no.err().contains("value"), no.err());
    JsonNode said = bring(bom, "shield", "SH", "B", "--column", "value=Worth", "--json").json();
    String found = file(said, "bom.csv").get("found").toString();
    assertTrue(found.contains("value = Worth (as said)"), found);
    // the next revision begins with it; another design does not
    found =
        file(bring(bom, "shield", "SH", "C", "--json").json(), "bom.csv").get("found").toString();
    assertTrue(found.contains("value = Worth (as said)"), found);
    found =
        file(bring(bom, "shield", "XY", "A", "--json").json(), "bom.csv").get("found").toString();
    assertTrue(found.contains("value = Value"), found);
    // and it is changed by saying another one
    found =
        file(
                bring(bom, "shield", "SH", "D", "--column", "bom.value=Value", "--json").json(),
                "bom.csv")
            .get("found")
            .toString();
    assertTrue(found.contains("value = Value (as said)"), found);
  }

  private Path order() throws IOException {
    Path zip = dir.resolve("order.zip");
    try (var z = new java.util.zip.ZipOutputStream(Files.newOutputStream(zip))) {
      for (String f : List.of("bom.csv", "placement.csv", "netlist.ipc", "outline.csv")) {
        z.putNextEntry(new java.util.zip.ZipEntry("cell/" + f));
        z.write(Files.readAllBytes(ODD.resolve("cell").resolve(f)));
      }
      put(z, "inner.gbr", "%TF.FileFunction,Copper,L2,Inr*%\n%FSLAX46Y46*%\n%MOMM*%\nM02*\n");
      put(z, "holes.drl", "M48\nMETRIC\nT1C0.8\n%\nT1\nX1.0Y1.0\nM30\n");
      put(z, "holes-NPTH.drl", "M48\nMETRIC\n%\nM30\n");
      put(z, "read me.txt", "hello");
    }
    return zip;
  }

  private static void put(java.util.zip.ZipOutputStream z, String name, String text)
      throws IOException {
    z.putNextEntry(new java.util.zip.ZipEntry(name));
    z.write(text.getBytes(java.nio.charset.StandardCharsets.UTF_8));
  }

  /// A fabricator's order as one archive: its files are told apart, and what is not used is said.
  @Test
  public void anArchiveGivesItsFiles() throws IOException {
    MainTest.Ran r =
        MainTest.ell(
            "import", ws, order().toString(), "--design", "C", "--revision", "1", "--json");
    assertEquals(r.code(), 0, r.err());
    JsonNode all = r.json();
    assertEquals(all.get("parts").intValue(), 30);
    assertTrue(file(all, "holes.drl").get("found").toString().contains("1 holes"));
    assertTrue(file(all, "holes-NPTH.drl").get("found").toString().contains("no holes"));
    String unused = all.get("notUsed").toString();
    assertTrue(unused.contains("inner.gbr") && unused.contains("read me.txt"), unused);
  }

  /// An option takes the file of its kind out of an archive; one that holds none says so.
  @Test
  public void anOptionLooksIntoAnArchive() throws IOException {
    String zip = order().toString();
    MainTest.Ran r = bring(Path.of(zip), "cell", "C", "2");
    assertEquals(r.code(), 0, r.err());
    r = MainTest.ell("import", ws, "--design", "C", "--revision", "2", "--paste", zip);
    assertEquals(r.code(), 2);
    assertTrue(r.err().contains("order.zip holds no paste, first side"), r.err());
    r = MainTest.ell("import", ws, "--design", "C", "--revision", "2", "--drill", zip);
    assertEquals(r.code(), 0, r.err());
  }

  /// A file of another kind is one sentence, and nothing is imported.
  @Test
  public void aFileOfAnotherKindIsOneSentence() throws IOException {
    Path picture = dir.resolve("bom.csv");
    Files.write(picture, new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10, 0, 0, 0});
    MainTest.Ran r = bring(picture, "cell", "C", "3");
    assertEquals(r.code(), 2);
    assertEquals(
        r.err().strip().lines().toList(),
        List.of(
            "bom.csv: this is a picture; expected a table, CSV",
            "nothing was imported: 1 problem"));
  }

  /// A copper layer is no paste: one sentence, by what it says of itself or by what it is made of.
  @Test
  public void copperIsNoPaste() throws IOException {
    assertEquals(bring("cell", "C", "4").code(), 0);
    Path copper = dir.resolve("top.gbr");
    Files.writeString(
        copper,
        "%TF.FileFunction,Copper,L1,Top*%\n%FSLAX46Y46*%\n%MOMM*%\n%ADD10C,1*%\nD10*\nX0Y0D03*\nM02*\n");
    MainTest.Ran r =
        MainTest.ell(
            "import", ws, "--design", "C", "--revision", "4", "--paste", copper.toString());
    assertEquals(r.code(), 2);
    assertTrue(r.err().contains("it says of itself that it is Copper,L1,Top"), r.err());
  }

  /// Files are corrected and imported again; what changed is said.
  @Test
  public void correctedFilesAreTaken() throws IOException {
    assertEquals(bring("shield", "S", "1").code(), 0);
    Path bom = dir.resolve("bom.csv");
    Files.writeString(
        bom,
        Files.readString(ODD.resolve("shield").resolve("bom.csv"))
            .replace("\"R1\",1k", "\"R1\",2k2"));
    JsonNode all = bring(bom, "shield", "S", "1", "--json").json();
    assertTrue(all.get("changed").toString().contains("R1: value '1k', now '2k2'"), all.toString());
  }

  /// A cell, a cable and a socket that no drawing shows are parts all the same; a chip that has no
  /// place is a mistake.
  @Test
  public void partsWithoutAPlace() throws IOException {
    Path bom = dir.resolve("bom.csv");
    String own = Files.readString(ODD.resolve("shield").resolve("bom.csv"));
    Files.writeString(bom, own + "1,W1,CABLE 200,,CBL200,yes\n1,BT9,CELL,,CELL9,yes\n");
    JsonNode all = bring(bom, "shield", "S", "1", "--json").json();
    assertEquals(all.get("parts").intValue(), 22);
    assertTrue(file(all, "bom.csv").get("found").toString().contains("W1 has no place"));
    JsonNode steps = MainTest.ell("order", ws, "--method", "iron", "--json").json().get("steps");
    assertEquals(steps.get(steps.size() - 1).get("action").stringValue(), "attach");
    Files.writeString(bom, own + "1,U9,TIMER,,TIM9,yes\n");
    MainTest.Ran refused = bring(bom, "shield", "S", "2");
    assertEquals(refused.code(), 2);
    assertTrue(refused.err().contains("U9 is in the bill of materials but not in"), refused.err());
  }

  /// One wish says that the surface parts come fitted: they are in the first step, no paste is
  /// printed, and the kit does not ask for them.
  @Test
  public void whatTheHouseFits() {
    assertEquals(bring("cell", "C", "1").code(), 0);
    int before = MainTest.ell("kit", ws, "--boards", "2", "--json").json().get("lines").size();
    JsonNode order =
        MainTest.ell("order", ws, "--wish", "surface by-house", "--keep", "--json").json();
    JsonNode first = order.get("steps").get(0);
    assertEquals(first.get("action").stringValue(), "arrive fitted");
    assertTrue(first.get("parts").size() > 20, first.toString());
    assertFalse(order.get("steps").toString().contains("print paste"));
    int after = MainTest.ell("kit", ws, "--boards", "2", "--json").json().get("lines").size();
    assertTrue(after < before, after + " of " + before);
    assertTrue(
        MainTest.ell("order", ws, "--wish", "surface often").err().contains("by-house"),
        "what can be wished is said");
  }

  @Test
  public void aBuildOnPanels() {
    assertEquals(bring("panel", "P", "1").code(), 0);
    MainTest.Ran made =
        MainTest.ell(
            "build", ws, "--design", "P", "--revision", "1", "--boards", "5", "--panel", "2");
    assertTrue(made.out().contains("panels of 2: 01 02, 03 04, 05"), made.out());
    JsonNode steps = MainTest.ell("order", ws, "--json").json().get("steps");
    assertTrue(steps.toString().contains("cut apart"));
    JsonNode rows = null;
    for (JsonNode s : steps) {
      rows = s.has("rows") ? s.get("rows") : rows;
    }
    assertEquals(rows.size(), 16);
    assertEquals(rows.get(0).size(), 16);
    assertEquals(MainTest.ell("log", ws, "--board", "01", "step 1").code(), 0);
    assertEquals(
        MainTest.ell("show", ws, "--board", "02", "--json").json().get("entries").intValue(), 2);
    assertEquals(
        MainTest.ell("show", ws, "--board", "03", "--json").json().get("entries").intValue(), 0);
    MainTest.Ran refused =
        MainTest.ell(
            "build", ws, "--design", "P", "--revision", "1", "--boards", "2", "--panel", "3");
    assertEquals(refused.code(), 2);
    assertTrue(refused.err().contains("a panel has 1 board to"), refused.err());
  }

  /// Guesses of the ladder are put right by short commands, each taking its assumption away.
  @Test
  public void theLadderTakesAnswers() {
    assertEquals(bring("cell", "C", "5").code(), 0);
    assertTrue(MainTest.ell("ladder", ws).out().contains("U3 is taken to draw"));
    MainTest.Ran r =
        MainTest.ell(
            "ladder",
            ws,
            "--rail",
            "VBAT=3.0..4.25",
            "--load",
            "U3=80mA",
            "--regulator",
            "U2=3.3V,600mA,dropout=0.3",
            "--json");
    assertEquals(r.code(), 0, r.err());
    JsonNode ladder = r.json();
    for (JsonNode rail : ladder.get("rails")) {
      if (rail.get("net").stringValue().equals("VBAT")) {
        assertEquals(rail.get("high").doubleValue(), 4.25);
        assertEquals(rail.get("low").doubleValue(), 3.0);
      }
    }
    String taken = ladder.get("assumptions").toString();
    assertFalse(taken.contains("U3 is taken") || taken.contains("VBAT is taken"), taken);
    assertTrue(taken.contains("U4 is taken"), taken);
    // what cannot be is refused with an example, and nothing is kept
    String before = MainTest.ell("ladder", ws).out();
    for (String[] wrong :
        new String[][] {
          {"--rail", "NOPE=3"}, {"--load", "U3=lots"}, {"--regulator", "R1=5V"}, {"--rail", "VBAT"}
        }) {
      r = MainTest.ell("ladder", ws, wrong[0], wrong[1]);
      assertEquals(r.code(), 2, r.err());
      assertTrue(r.err().contains("expected such as"), r.err());
    }
    assertEquals(MainTest.ell("ladder", ws).out(), before);
    assertEquals(MainTest.ell("ladder", ws, "--as-proposed").code(), 0);
    assertTrue(MainTest.ell("ladder", ws).out().contains("U3 is taken to draw"));
  }

  /// A rail that no name tells waits for its ground check like any other.
  @Test
  public void aRailThatWasSaidIsBeepedFirst() {
    assertEquals(bring("cell", "C", "6").code(), 0);
    JsonNode nets = MainTest.ell("beep", ws, "--json").json().get("checks");
    assertFalse(guarded(nets).contains("LX"), guarded(nets).toString());
    String net = "IO1";
    assertEquals(MainTest.ell("ladder", ws, "--rail", net + "=12V").code(), 0);
    assertTrue(guarded(MainTest.ell("beep", ws, "--json").json().get("checks")).contains(net));
  }

  private static java.util.Set<String> guarded(JsonNode checks) {
    java.util.Set<String> nets = new java.util.TreeSet<>();
    for (JsonNode c : checks) {
      if (c.get("guardsPower").booleanValue()) {
        nets.add(c.get("netB").stringValue());
      }
    }
    return nets;
  }
}
