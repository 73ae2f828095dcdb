package ell.work.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.talk.PinTable;
import ell.core.talk.PinTable.Offer;
import ell.core.talk.Script;
import ell.core.talk.TalkPlan;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import ell.work.send.Export;
import ell.work.send.Restore;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/// What is kept for loading and talking: scripts with their images, what was said, answers,
/// modules; all of it comes back from an export.
public class KeptTalkTest {
  private Workshop w;
  private Path folder;

  @BeforeClass
  public void make() throws Exception {
    folder = Files.createTempDirectory("kept");
    w = DemoWorkspace.make(folder.resolve("ws.ell"), Path.of("../demo"), true);
  }

  @AfterClass(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  @Test
  public void aScriptIsKeptWithItsImages() throws Exception {
    Path f = folder.resolve("own.json");
    Files.writeString(f, "{\"name\":\"own\",\"steps\":[{\"load\":\"image.bin\"}]}");
    String missing = expectThrows(ActException.class, () -> Scripts.open(f)).getMessage();
    assertTrue(missing.contains("there is no image"), missing);
    byte[] image = {0, 1, 2, (byte) 0xff};
    Files.write(folder.resolve("image.bin"), image);
    Script s = w.scripts().keep("MG-1", "A", f);
    assertEquals(s.name(), "own");
    Files.delete(folder.resolve("image.bin"));
    Files.delete(f);
    Scripts.Opened kept = w.scripts().kept("MG-1", "A", "own");
    assertEquals(kept.script(), s);
    assertEquals(kept.images().image("image.bin"), image);
    assertEquals(w.scripts().kept("MG-1", "A").size(), 1);
    assertEquals(
        w.scripts().kept("MG-1", "B").stream().map(Script::name).toList(),
        List.of("first-load", "number"));
    expectThrows(ActException.class, () -> w.scripts().kept("MG-1", "A", "nothing"));
    Path bad =
        Files.writeString(
            folder.resolve("bad.json"), "{\"name\":\"a b\",\"steps\":[{\"wait\":0}]}");
    assertTrue(
        expectThrows(ActException.class, () -> w.scripts().keep("MG-1", "A", bad))
            .getMessage()
            .contains("word for a name"));
  }

  @Test
  public void allOrNothingOfWhatIsSaid() throws Exception {
    int before = w.talks().said("MS-1", "A").size();
    expectThrows(
        ActException.class,
        () -> w.talks().say("MS-1", "A", List.of("link R1 jumper", "link R99 jumper")));
    assertEquals(w.talks().said("MS-1", "A").size(), before, "not half of it");
    expectThrows(ActException.class, () -> w.talks().say("MS-1", "A", List.of(" ")));
    TalkPlan p = w.talks().say("MS-1", "A", List.of("link R1 jumper closed"));
    assertEquals(p.links().size(), 1);
    assertEquals(w.plan(w.buildOf("S01")).talk().links(), p.links(), "plans know it at once");
    w.talks().unsay("MS-1", "A");
    assertTrue(w.talks().of("MS-1", "A").links().isEmpty());
  }

  @Test
  public void answersHoldForTheRevision() throws Exception {
    w.talks().answer("MG-1", "A", "port", "/dev/ttyUSB0=yes");
    w.talks().answer("MG-1", "A", "chip", "MCU48");
    assertEquals(
        w.talks().answers("MG-1", "A"), Map.of("port", "/dev/ttyUSB0=yes", "chip", "MCU48"));
    assertTrue(w.talks().answers("MS-1", "A").isEmpty());
    for (String[] bad : new String[][] {{"a b", "x"}, {"a", "x\ny"}, {"", "x"}}) {
      expectThrows(ActException.class, () -> w.talks().answer("MG-1", "A", bad[0], bad[1]));
    }
  }

  @Test
  public void modulesAreKeptByName() throws Exception {
    List<Offer> pins = List.of(new Offer("P1", PinTable.words("in out"), "low", "", "10k low"));
    w.modules().keep("OWN", pins);
    w.modules().keep("OWN", pins);
    assertEquals(w.modules().all().get("OWN"), pins);
    assertEquals(w.modules().all().keySet(), java.util.Set.of("MCU48", "MCU32", "OWN"));
    expectThrows(ActException.class, () -> w.modules().keep("two words", pins));
    assertEquals(w.modules().needs("MG-1", "B").size(), 18);
    assertTrue(w.modules().needs("MG-1", "A").isEmpty());
    Path file = Files.writeString(folder.resolve("wants.csv"), "nothing");
    List<String> unused = new ArrayList<>();
    ActException no =
        expectThrows(
            ActException.class, () -> w.modules().keepNeeds("MG-1", "A", file, unused::add));
    assertTrue(no.getMessage().contains("wants.csv"), no.getMessage());
    assertTrue(w.modules().needs("MG-1", "A").isEmpty());
    // a file of an older editor, with a column that nobody asks for
    Files.write(
        file,
        "signal,needs,colour\nGRÜN,out,red\n"
            .getBytes(java.nio.charset.StandardCharsets.ISO_8859_1));
    assertEquals(w.modules().keepNeeds("MG-1", "A", file, unused::add).size(), 1);
    assertEquals(w.modules().needs("MG-1", "A").getFirst().signal(), "GRÜN");
    assertTrue(String.join("; ", unused).contains("colour"), unused.toString());
  }

  @Test(dependsOnMethods = {"aScriptIsKeptWithItsImages", "modulesAreKeptByName"})
  public void allOfItComesBack() throws Exception {
    Path out = folder.resolve("export");
    Export.write(w, out);
    try (Workshop back = Workshop.create(folder.resolve("back.ell"), Clock.systemUTC())) {
      Restore.read(out, back);
      assertEquals(back.talks().said("MG-1", "B"), w.talks().said("MG-1", "B"));
      assertEquals(back.scripts().kept("MG-1", "B"), w.scripts().kept("MG-1", "B"));
      assertEquals(
          back.scripts().kept("MG-1", "B", "first-load").images().image("gauge-1.4.txt"),
          w.scripts().kept("MG-1", "B", "first-load").images().image("gauge-1.4.txt"));
      assertEquals(back.modules().all(), w.modules().all());
      assertEquals(back.modules().needs("MG-1", "B"), w.modules().needs("MG-1", "B"));
      assertTrue(back.book().verify().ok());
    }
  }
}
