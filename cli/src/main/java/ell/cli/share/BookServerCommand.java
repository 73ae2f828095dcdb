package ell.cli.share;

import ell.book.LocalServer;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.JsonText;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.concurrent.CountDownLatch;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/// Starts a database server of this system in a folder.
@Command(
    name = "book-server",
    description =
        "start a database server of this system in a folder, for this machine alone, and print its"
            + " address; runs until it is ended")
public final class BookServerCommand implements Callable<Integer> {
  @Parameters(index = "0", paramLabel = "FOLDER", description = "where its data are; made when new")
  Path folder;

  @Option(names = "--port", description = "any free one when not said")
  int port;

  @Option(
      names = "--no-password",
      description = "let everybody on this machine in; for trying things")
  boolean open;

  @Option(names = "--json", description = "one JSON object on standard output")
  boolean json;

  @Spec CommandSpec spec;

  @Override
  public Integer call() throws Exception {
    var out = spec.commandLine().getOut();
    try (LocalServer s = LocalServer.start(folder, port, !open)) {
      CountDownLatch end = new CountDownLatch(1);
      Thread hook = new Thread(() -> ended(s));
      Runtime.getRuntime().addShutdownHook(hook);
      if (json) {
        out.println(
            JsonText.of(Json.object().put("address", s.address("DATABASE")).put("port", s.port())));
      } else {
        out.println("a server listens at " + s.address("DATABASE") + ", on this machine alone");
        if (!open) {
          out.println("its owner's password is in " + s.passwordFile());
        }
        out.println("next: move FILE.ell " + s.address("NAME"));
      }
      out.flush();
      end.await();
    }
    return Exit.DONE;
  }

  private static void ended(LocalServer s) {
    try {
      s.close();
    } catch (java.io.IOException e) {
      // it ends with the machine
    }
  }
}
