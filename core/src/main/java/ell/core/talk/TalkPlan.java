package ell.core.talk;

import ell.core.board.Revision;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What is known of loading and talking to the boards of a revision: as it was said, a line each,
/// and guessed where nothing was. A guess judges nothing, and says what to type.
///
/// @param links in the order of the board
/// @param operations in the order in which they were said
/// @param port the line to the controller
/// @param straps that it reads at reset
/// @param memory for settings and serial numbers
/// @param sharers what else speaks on the line
/// @param chains elements one behind the other
/// @param told what is guessed, and how it is put right
public record TalkPlan(
    Revision revision,
    List<Link> links,
    List<Operation> operations,
    Optional<SerialPort> port,
    List<Strap> straps,
    Optional<Memory> memory,
    List<Sharer> sharers,
    List<ChainOnBoard> chains,
    List<String> told) {
  public TalkPlan {
    links = List.copyOf(links);
    operations = List.copyOf(operations);
    straps = List.copyOf(straps);
    sharers = List.copyOf(sharers);
    chains = List.copyOf(chains);
    told = List.copyOf(told);
  }

  /// The plan of a revision.
  ///
  /// @param lines what was said, oldest first; later ones over earlier ones
  /// @throws IllegalArgumentException when a line cannot be understood, or names what the revision
  ///   lacks; with the line
  public static TalkPlan of(Revision revision, List<String> lines) {
    TalkSaid said = TalkSaid.of(revision, lines);
    List<String> told = new ArrayList<>();
    List<Link> links = TalkGuess.links(revision, said, told);
    for (Operation o : said.operations().values()) {
      for (String l : o.links().keySet()) {
        if (links.stream().noneMatch(x -> x.part().equals(l))) {
          throw new IllegalArgumentException(
              "operation "
                  + o.name()
                  + ": "
                  + l
                  + " is no link; say it: link "
                  + l
                  + " solder, jumper or switch");
        }
      }
      for (String a : o.after()) {
        if (!said.operations().containsKey(a)) {
          throw new IllegalArgumentException(
              "operation " + o.name() + " comes after " + a + ", which nobody spoke of");
        }
      }
    }
    Optional<SerialPort> port =
        said.port().or(() -> TalkGuess.port(revision, told)).filter(p -> !p.tx().isEmpty());
    return new TalkPlan(
        revision,
        links,
        List.copyOf(said.operations().values()),
        port,
        TalkGuess.straps(revision, said, port, told),
        said.memory().or(() -> TalkGuess.memory(revision, told)).filter(m -> !m.part().isEmpty()),
        said.sharers(),
        ChainOnBoard.of(revision),
        told);
  }

  /// The operation of a name.
  public Optional<Operation> operation(String name) {
    return operations.stream().filter(o -> o.name().equals(name)).findFirst();
  }

  /// The link of a part.
  public Optional<Link> link(String part) {
    return links.stream().filter(l -> l.part().equals(part)).findFirst();
  }
}
