package ell.work;

import ell.files.Source;
import ell.work.bring.ImportFiles;
import ell.work.demo.DemoWorkspace;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/// The demo's files, for tests that begin from something good.
final class Demo {
  static final Path FOLDER = Path.of("../fixtures/marram");

  private Demo() {}

  static Path file() throws IOException {
    return Files.createTempDirectory("ell-test").resolve("ws.ell");
  }

  /// A workspace with both revisions and both builds; with the script replayed or not.
  static Workshop workspace(boolean replay) throws IOException, ActException {
    return DemoWorkspace.make(file(), FOLDER, replay);
  }

  static String read(String name) throws IOException {
    return Files.readString(FOLDER.resolve(name));
  }

  static ImportFiles files(String bom, String placement, String netlist) {
    return new ImportFiles(
        Source.of("bom.csv", bom),
        Source.of("placement.csv", placement),
        Source.of("netlist.ipc", netlist),
        Optional.empty(),
        Optional.empty(),
        Optional.empty(),
        false);
  }

  static ImportFiles good() throws IOException {
    return files(read("mg-1-b/bom.csv"), read("mg-1-b/placement.csv"), read("mg-1-b/netlist.ipc"));
  }
}
