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
}
