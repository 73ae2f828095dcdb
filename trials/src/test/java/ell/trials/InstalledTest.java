package ell.trials;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.testng.SkipException;
import org.testng.annotations.BeforeClass;
import org.testng.annotations.Test;

/// The door of an installed Ell, over an image whose Java only says what it was asked: what is run,
/// with which jars, caches and flags. The image itself is made and started by the checks before a
/// change lands.
public class InstalledTest {
  private Path home;

  @BeforeClass
  public void image() throws Exception {
    if (!Files.isExecutable(Path.of("/bin/sh"))) {
      throw new SkipException("no shell here");
    }
    home = Files.createTempDirectory("installed");
    Path app = Files.createDirectories(home.resolve("lib/app"));
    Path bin = Files.createDirectories(home.resolve("lib/runtime/bin"));
    Files.createDirectories(home.resolve("bin"));
    for (String jar : List.of("ell-core-1.jar", "ell-desk-1.jar", "sqlite-jdbc-1.jar", "a.jar")) {
      Files.createFile(app.resolve(jar));
    }
    for (String more : List.of("ell.aot", "ell-calc.aot", "libsqlitejdbc.so")) {
      Files.createFile(app.resolve(more));
    }
    copy("run.sh", app.resolve("run.sh"));
    copy("door", home.resolve("bin/ell"));
    Path java = bin.resolve("java");
    Files.writeString(java, "#!/bin/sh\nfor a in \"$@\"; do echo \"$a\"; done\n");
    for (Path p : List.of(java, home.resolve("bin/ell"))) {
      Files.setPosixFilePermissions(p, PosixFilePermissions.fromString("rwxr-xr-x"));
    }
  }

  private static void copy(String name, Path to) throws Exception {
    Files.copy(Path.of("../packaging").resolve(name), to, StandardCopyOption.REPLACE_EXISTING);
  }

  private record Ran(int code, List<String> out, String err) {}

  private Ran run(Map<String, String> more, Path door, String... words) throws Exception {
    ProcessBuilder b = new ProcessBuilder();
    b.command().add(door.toString());
    b.command().addAll(List.of(words));
    b.environment().clear();
    b.environment().put("PATH", "/usr/bin:/bin");
    b.environment().putAll(more);
    Process p = b.start();
    p.getOutputStream().close();
    List<String> out = p.inputReader().lines().toList();
    String err = new String(p.getErrorStream().readAllBytes());
    assertTrue(p.waitFor(20, TimeUnit.SECONDS));
    return new Ran(p.exitValue(), out, err);
  }

  private Ran ell(String... words) throws Exception {
    return run(Map.of(), home.resolve("bin/ell"), words);
  }

  private static String after(List<String> all, String word) {
    return all.get(all.indexOf(word) + 1);
  }

  @Test
  public void aCommandRunsWithItsOwnJavaAndWordsAsTheyWereTyped() throws Exception {
    Ran r = ell("log", "my boards.ell", "--board", "01", "note a  b");
    assertEquals(r.code(), 0, r.err());
    int main = r.out().indexOf("ell.cli.Main");
    assertEquals(
        r.out().subList(main + 1, r.out().size()),
        List.of("log", "my boards.ell", "--board", "01", "note a  b"));
    String app = home.resolve("lib/app").toString();
    assertTrue(r.out().contains("-Dell.demo=" + app + "/demo"), r.out().toString());
    assertTrue(r.out().contains("-Dorg.sqlite.lib.path=" + app), "the store's native part");
    assertEquals(
        after(r.out(), "-cp"),
        app
            + "/a.jar:"
            + app
            + "/ell-core-1.jar:"
            + app
            + "/ell-desk-1.jar:"
            + app
            + "/sqlite-jdbc-1.jar");
    assertFalse(String.join(" ", r.out()).contains("AOTCache"), "a cache that is not there");
  }

  @Test
  public void aSumLooksAtFewerJarsAndHasItsOwnCache() throws Exception {
    Ran r = ell("calc", "led");
    assertTrue(
        r.out().contains("-XX:AOTCache=" + home.resolve("lib/app/ell-calc.aot")),
        r.out().toString());
    assertFalse(after(r.out(), "-cp").contains("desk"), after(r.out(), "-cp"));
    assertTrue(r.out().contains("-XX:TieredStopAtLevel=1"));
    Ran without = run(Map.of("ELL_NO_CACHE", "1"), home.resolve("bin/ell"), "calc", "led");
    assertFalse(String.join(" ", without.out()).contains("AOTCache"));
  }

  @Test
  public void theWindowNeedsADisplayAndTheDemoDoesNot() throws Exception {
    Ran none = ell("open", "a.ell");
    assertEquals(none.code(), 1);
    assertTrue(none.err().contains("no display"), none.err());
    Ran there = run(Map.of("DISPLAY", ":9"), home.resolve("bin/ell"), "open", "a b.ell");
    assertEquals(there.out().getLast(), "a b.ell");
    assertTrue(there.out().contains("ell.desk.Launcher"));
    assertTrue(there.out().contains("-XX:AOTCache=" + home.resolve("lib/app/ell.aot")));
    Ran played = ell("demo", "out");
    assertTrue(played.err().contains("offscreen"), played.err());
    assertEquals(
        played.out().subList(played.out().size() - 2, played.out().size()),
        List.of("--play", "out"));
    assertTrue(played.out().contains("-Dglass.platform=Headless"));
    Ran shown = run(Map.of("WAYLAND_DISPLAY", "w"), home.resolve("bin/ell"), "demo");
    assertEquals(shown.out().getLast(), "--demo");
  }

  /// The command on the path is a link, and may be a link to a link.
  @Test
  public void itFindsItselfThroughLinks() throws Exception {
    Path first = home.resolve("one");
    Path second = home.resolve("bin/two");
    Files.createSymbolicLink(second, Path.of("ell"));
    Files.createSymbolicLink(first, second);
    Ran r = run(Map.of(), first, "words");
    assertEquals(r.out().getLast(), "words");
    Ran help = ell();
    assertTrue(help.out().getFirst().startsWith("ell demo"), help.out().toString());
  }
}
