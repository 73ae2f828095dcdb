package ell.cli.share;

import ell.book.Person;
import ell.book.Shared;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.WorkspaceCommand;
import ell.work.Workshop;
import ell.work.share.Hands;
import ell.work.space.ActException;
import java.io.Console;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// Who may come to a workspace on a server, and what they may do there.
@Command(
    name = "people",
    description =
        "who may come to a workspace on a server: readers look, helpers log, makers do everything;"
            + " the server holds it")
public final class PeopleCommand extends WorkspaceCommand {
  @Option(names = "--add", paramLabel = "NAME", description = "somebody who may come")
  Optional<String> add = Optional.empty();

  @Option(names = "--as", paramLabel = "ROLE", description = "reader, helper or maker")
  Optional<String> role = Optional.empty();

  @Option(
      names = "--password",
      description = "ask for a password of theirs, on the terminal or a line of standard input")
  boolean password;

  @Option(names = "--remove", paramLabel = "NAME", description = "somebody who comes no more")
  Optional<String> remove = Optional.empty();

  @Override
  public Integer call() throws Exception {
    if (add.isPresent() && remove.isPresent() || add.isPresent() != role.isPresent()) {
      throw new ActException("say: --add NAME --as ROLE, or: --remove NAME");
    }
    try (Workshop w = add.isPresent() || remove.isPresent() ? open() : look()) {
      Shared shared = new Hands(w).shared();
      if (add.isPresent()) {
        shared.invite(
            add.get(), role.get(), password ? Optional.of(asked(add.get())) : Optional.empty());
      } else if (remove.isPresent()) {
        shared.dismiss(remove.get());
      }
      if (json) {
        ObjectNode root = Json.object();
        ArrayNode all = root.putArray("people");
        for (Person p : shared.people()) {
          all.addObject().put("name", p.name()).put("role", p.role());
        }
        print(root);
      } else {
        for (Person p : shared.people()) {
          out().println(p.name() + "  " + p.role());
        }
      }
    }
    return Exit.DONE;
  }

  private static String asked(String name) throws ActException {
    Console c = System.console();
    String said = null;
    if (c != null && c.isTerminal()) {
      char[] typed = c.readPassword("password of %s: ", name);
      said = typed == null ? null : new String(typed);
    } else {
      java.util.Scanner s =
          new java.util.Scanner(System.in, java.nio.charset.StandardCharsets.UTF_8);
      said = s.hasNextLine() ? s.nextLine() : null;
    }
    if (said == null || said.isBlank()) {
      throw new ActException("no password was given");
    }
    return said;
  }
}
