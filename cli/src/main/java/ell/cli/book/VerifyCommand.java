package ell.cli.book;

import ell.book.BookException;
import ell.book.Head;
import ell.book.Verification;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.core.json.JsonObject;
import ell.work.Workshop;
import ell.work.send.BoardLabels;
import ell.work.send.Export;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.OptionalLong;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ObjectNode;

/// Holds a workspace against its chains.
@Command(
    name = "verify",
    description = "check that every entry, table and photograph is as it was written")
public final class VerifyCommand extends WorkspaceCommand {
  @Option(
      names = "--against",
      description = "a head kept elsewhere, such as 538:2f6a91c04be7d512, or a copy or export")
  Optional<String> against = Optional.empty();

  @Option(
      names = "--label",
      paramLabel = "TEXT",
      description = "what was read off the code of a board's label")
  Optional<String> label = Optional.empty();

  @Override
  public Integer call() throws Exception {
    if (label.isPresent()) {
      return labelled(label.get());
    }
    Optional<Head> kept = against.isEmpty() ? Optional.empty() : Optional.of(kept(against.get()));
    try (Workshop w = look()) {
      Verification v = w.book().verify();
      if (v.ok() && kept.isPresent()) {
        Optional<String> no = kept.get().against(w.book());
        if (no.isPresent()) {
          v = new Verification(false, v.entries(), OptionalLong.empty(), no.get());
        }
      }
      return said(v, Optional.of(w.book().head()), w.book().seal());
    } catch (BookException e) {
      if (!e.damaged()) {
        throw e;
      }
      return said(
          new Verification(false, 0, OptionalLong.empty(), e.getMessage()), Optional.empty(), "");
    }
  }

  /// The book as a whole must hold, and know the board as its label names it.
  private int labelled(String read) throws Exception {
    try (Workshop w = look()) {
      Verification v = w.book().verify();
      BoardLabels.Checked c = BoardLabels.check(w, read);
      return said(
          v.ok() ? new Verification(c.ok(), v.entries(), OptionalLong.empty(), c.message()) : v,
          Optional.of(w.book().head()),
          w.book().seal());
    }
  }

  /// A head as it is printed, that of a copy, or that of an export.
  private static Head kept(String words) throws Exception {
    Path manifest = Path.of(words).resolve(Export.MANIFEST);
    return Files.isRegularFile(manifest)
        ? Head.of(JsonObject.parse(Files.readString(manifest), words).text("head"))
        : Head.of(words);
  }

  private int said(Verification v, Optional<Head> head, String seal) {
    if (json) {
      ObjectNode o = Json.object().put("ok", v.ok()).put("entries", v.entries());
      v.firstBad().ifPresent(n -> o.put("firstBad", n));
      o.put("message", v.message()).put("seal", seal);
      head.ifPresent(h -> o.put("head", h.toString()));
      print(o);
    } else {
      out().println(v.message());
      head.filter(_ -> v.ok()).ifPresent(h -> out().println("head " + h));
    }
    return v.ok() ? Exit.DONE : Exit.NOT_HELD;
  }
}
