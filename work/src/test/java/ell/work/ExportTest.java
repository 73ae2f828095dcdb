package ell.work;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.book.BookException;
import ell.core.entry.Entry;
import ell.core.heat.Alloy;
import ell.core.heat.ProfileWindow;
import ell.core.json.JsonObject;
import ell.core.order.Method;
import ell.work.demo.DemoWorkspace;
import ell.work.look.Photographs;
import ell.work.order.Wishes;
import ell.work.send.Export;
import ell.work.send.Restore;
import ell.work.space.ActException;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.testng.annotations.AfterClass;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Everything is everything: what a workspace holds is in its export, and an empty workspace that
/// is made of it exports the same files again.
public class ExportTest {
  private Path folder;
  private Workshop w;
  private Path export;

  @BeforeClass
  public void fill() throws Exception {
    folder = Files.createTempDirectory("export");
    w = DemoWorkspace.make(folder.resolve("a.ell"), Demo.FOLDER, true);
    // one of everything that the demo does not have
    w.heating().setWindow(Alloy.SAC305, window());
    w.printing().setRules("PASTE-SAC3", "{\"warmHours\":6,\"outHours\":100}");
    w.stockroom().setAttrition("small=5%/2");
    w.revisions()
        .setPackages("MG-1", "B", "Package,Family,Length,Width,Height\nODD-1,chip,3.2,1.6,0.9\n");
    var plan = w.plans().of("MG-1", "B", Method.STENCIL_PLATE, "", 1);
    w.wishes().keep(plan, Wishes.parse(plan, List.of("M1 before J6", "C5 last")));
    Path photo = folder.resolve("bridge at u4, größer.png");
    ImageIO.write(new BufferedImage(30, 20, BufferedImage.TYPE_INT_RGB), "png", photo.toFile());
    Photographs.keep(w.space(), "07", "U4.13", photo);
    w.pulses().keepFamilies("mine,3V,0.9,1.5,0.2,2.5,5ns/V,3.6,bench\n");
    w.pulses().say("MG-1", "B", List.of("XIN clock=12MHz within=100ppm family=mine"));
    Path wave = folder.resolve("xin, first look.csv");
    Files.writeString(wave, "increment,1e-8\nCH1 (V)\n" + "0\n0\n0\n3\n3\n3\n".repeat(40));
    w.captures()
        .keep(
            w.plan(w.buildOf("07")).pulse(),
            "07",
            "XIN",
            wave,
            java.util.Optional.empty(),
            0,
            _ -> {});
    w.log("", List.of(new Entry.Note("a line that belongs to no board"))).orThrow();
    w.type("05", "note \"quoted\", with; commas\tand µΩ 漢字").orThrow();
    export = folder.resolve("out");
    Export.write(w, export);
  }

  @AfterClass(alwaysRun = true)
  public void close() throws Exception {
    w.close();
  }

  private static String window() {
    return ProfileWindow.SAC305.write();
  }

  private static Map<String, String> files(Path of) throws IOException {
    Map<String, String> all = new TreeMap<>();
    try (Stream<Path> walk = Files.walk(of)) {
      for (Path p : walk.filter(Files::isRegularFile).toList()) {
        all.put(
            of.relativize(p).toString(),
            new String(Files.readAllBytes(p), StandardCharsets.ISO_8859_1));
      }
    }
    return all;
  }

  @Test
  public void anEmptyWorkspaceMadeOfItExportsTheSame() throws Exception {
    Path second = folder.resolve("again");
    try (Workshop b = Workshop.create(folder.resolve("b.ell"), Clock.systemDefaultZone())) {
      Restore.read(export, b);
      assertEquals(b.book().seal(), w.book().seal());
      assertTrue(b.book().verify().ok(), b.book().verify().message());
      Export.write(b, second);
      for (String board : List.of("01", "04", "07", "A03")) {
        assertEquals(b.standing(board), w.standing(board));
        assertEquals(b.entries(board), w.entries(board));
      }
      assertEquals(b.stockroom().now().lines(), w.stockroom().now().lines());
      assertEquals(b.revision("MG-1", "B").parts(), w.revision("MG-1", "B").parts());
      assertEquals(b.revision("MG-1", "B").joints(), w.revision("MG-1", "B").joints());
      assertEquals(b.revision("MG-1", "B").outline(), w.revision("MG-1", "B").outline());
      assertEquals(
          b.plans().of("MG-1", "B", Method.STENCIL_PLATE, "", 1).order().steps(),
          w.plans().of("MG-1", "B", Method.STENCIL_PLATE, "", 1).order().steps(),
          "the wishes too");
    }
    Map<String, String> a = files(export);
    Map<String, String> b = files(second);
    assertEquals(b.keySet(), a.keySet());
    a.forEach((name, text) -> assertEquals(b.get(name), text, name));
  }

  @DataProvider
  Object[][] wanted() {
    return new Object[][] {
      {"kept/offers.csv"},
      {"kept/window_sac305.json"},
      {"kept/jar-rules_PASTE-SAC3.json"},
      {"kept/attrition.txt"},
      {"MG-1-B/packages.csv"},
      {"MG-1-B/wishes.txt"},
      {"MG-1-B/paste-first.gbr"},
      {"MG-1-B/paste-second.gbr"},
      {"MG-1-B/legend.gbr"},
      {"MG-1-B/drill.xnc"},
      {"MG-1-B/faults.json"},
      {"MG-1-B/ladder.json"},
      {"MG-1-A/ladder.json"},
      {"chain.csv"},
      {"workspace.json"},
      {"shelf.csv"},
    };
  }

  @Test(dataProvider = "wanted")
  public void nothingIsForgotten(String name) throws IOException {
    Path file = export.resolve(name);
    assertTrue(Files.isRegularFile(file), name + " is not among " + files(export).keySet());
    assertTrue(Files.size(file) > 0, name);
  }

  /// Whatever the tables of the book hold is named in the manifest: a kind that somebody adds later
  /// is exported without anybody thinking of it.
  @Test
  public void theManifestNamesWhatTheTablesHold() throws Exception {
    JsonObject root = JsonObject.parse(Files.readString(export.resolve("workspace.json")), "it");
    assertEquals(root.object("keepsakes").keys(), w.book().keepsakes().keySet());
    for (JsonObject r : root.objects("revisions")) {
      assertEquals(
          r.object("documents").keys(),
          w.book().documents(r.text("design"), r.text("name")).keySet());
    }
    assertEquals(root.objects("photographs").size(), w.book().photographs().size());
    assertEquals(root.object("parameters").keys().size(), w.book().codesWithParameters().size());
    assertEquals(root.objects("builds").size(), w.book().builds().size());
    assertEquals(root.objects("shelf").size(), w.book().shelf().size());
  }

  @Test
  public void aWorkspaceThatHoldsSomethingIsNotOverwritten() throws Exception {
    String seal = w.book().seal();
    BookException e = expectThrows(BookException.class, () -> Restore.read(export, w));
    assertTrue(e.getMessage().contains("is not empty"), e.getMessage());
    assertEquals(w.book().seal(), seal);
  }

  private interface Harm {
    void to(Path copy) throws IOException;
  }

  private static void edit(Path file, String from, String to) throws IOException {
    String text = Files.readString(file);
    assertTrue(text.contains(from), "there is something to harm: " + from);
    Files.writeString(file, text.replaceFirst(java.util.regex.Pattern.quote(from), to));
  }

  @DataProvider
  Object[][] harms() {
    return new Object[][] {
      {
        "an entry changed", (Harm) d -> edit(d.resolve("chain.csv"), "3V3A", "5V0"), "changed after"
      },
      {
        "an entry that is none",
        (Harm)
            d ->
                edit(
                    d.resolve("chain.csv"),
                    "\"\"kind\"\":\"\"step\"\"",
                    "\"\"kind\"\":\"\"leap\"\""),
        "chain.csv, line 2"
      },
      {"no chain", (Harm) d -> Files.delete(d.resolve("chain.csv")), "no chain.csv"},
      {"no manifest", (Harm) d -> Files.delete(d.resolve("workspace.json")), "no workspace.json"},
      {
        "half a manifest",
        (Harm) d -> edit(d.resolve("workspace.json"), "\"seal\"", "\"seel\""),
        "seal"
      },
      {"no offers", (Harm) d -> Files.delete(d.resolve("kept/offers.csv")), "offers.csv"},
      {
        "a file outside",
        (Harm) d -> edit(d.resolve("workspace.json"), "kept/offers.csv", "../../offers.csv"),
        "not in the export"
      },
      {
        "a bill that is none",
        (Harm) d -> Files.writeString(d.resolve("MG-1-B/bom.csv"), "nothing\n"),
        "bom.csv"
      },
    };
  }

  @Test(dataProvider = "harms")
  public void aHarmedExportChangesNothing(String what, Harm harm, String says) throws Exception {
    Path copy = Files.createTempDirectory("harmed").resolve("x");
    try (Stream<Path> all = Files.walk(export)) {
      for (Path p : all.toList()) {
        Files.copy(p, copy.resolve(export.relativize(p).toString()));
      }
    }
    harm.to(copy);
    Path file = copy.resolveSibling("new.ell");
    try (Workshop b = Workshop.create(file, Clock.systemDefaultZone())) {
      Exception e = expectThrows(Exception.class, () -> Restore.read(copy, b));
      assertTrue(e instanceof ActException || e instanceof IOException, what + ": " + e);
      assertTrue(e.getMessage().contains(says), what + ": " + e.getMessage());
      assertEquals(b.book().size(), 0);
      assertTrue(b.book().revisions().isEmpty(), "all or nothing");
      assertFalse(b.book().keepsake("offers").isPresent());
    }
  }
}
