package ell.work.talk;

import ell.core.entry.Entry;
import ell.core.rack.Stage;
import ell.core.talk.ChainOnBoard;
import ell.core.talk.ChainSeen;
import ell.core.talk.Operation;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Optional;

/// Words of the tape about links and chains.
public final class TalkVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          new Verb(
              Optional.of(Stage.TALK),
              List.of("open", "closed"),
              true,
              "LINK open or closed",
              List.of("SJ1 closed", "SJ1 open"),
              "how a link stands; a solder link that changes is heated once more",
              TalkVerbs::link,
              _ -> List.of()),
          Verb.first(
                  "did",
                  "did OPERATION [WORDS]",
                  "an operation was done by hand, such as a sleep current that was measured; refused"
                      + " while its links and plugs are not as it needs them",
                  TalkVerbs::did,
                  "did sleep-current 4 uA")
              .offering(
                  t -> t.plan().talk().operations().stream().map(o -> o.name() + " ").toList())
              .of(Stage.TALK),
          Verb.first(
                  "chain",
                  "chain PART WHAT",
                  "what is seen of a chain, named by its first element: lit up to N, first dead, N"
                      + " dead, wrong colour from N, flickers from N, nothing at the end, fine",
                  TalkVerbs::chain,
                  "chain U4 lit up to 2")
              .offering(t ->
                  t.plan().talk().chains().stream()
                      .map(c -> c.elements().getFirst() + " ")
                      .toList())
              .of(Stage.TALK));

  private TalkVerbs() {}

  /// A place that is no link may be open as well: that is a defect, and another verb's.
  private static Optional<Meaning> link(Said s) {
    return s.plan().talk().link(s.place()).isEmpty()
        ? Optional.empty()
        : Optional.of(Meaning.ready(new Entry.Stands(s.place(), s.word(), s.rest())));
  }

  private static Meaning did(Said s) {
    String[] two = s.two();
    List<String> names = s.plan().talk().operations().stream().map(Operation::name).toList();
    if (names.isEmpty()) {
      return Meaning.wrong("nobody said what operations there are; W at Talk, or links --say");
    }
    if (two[0].isEmpty()) {
      return Meaning.unfinished("one of " + String.join(", ", names));
    }
    if (!names.contains(two[0])) {
      return Meaning.wrong(
          "there is no operation '" + two[0] + "'; there are " + String.join(", ", names));
    }
    return Meaning.ready(Entry.Talk.byHand(two[0], two[1]));
  }

  private static Meaning chain(Said s) {
    String[] two = s.two();
    List<ChainOnBoard> all = s.plan().talk().chains();
    if (all.isEmpty()) {
      return Meaning.wrong("this board has no chain of equal elements");
    }
    Optional<ChainOnBoard> c =
        all.stream()
            .filter(x -> x.elements().getFirst().equalsIgnoreCase(two[0]))
            .findFirst()
            .or(() ->
                all.stream()
                    .filter(x -> x.elements().stream().anyMatch(e -> e.equalsIgnoreCase(two[0])))
                    .findFirst());
    if (c.isEmpty()) {
      String names = String.join(", ", all.stream().map(ChainOnBoard::words).toList());
      return two[0].isEmpty()
          ? Meaning.unfinished("an element of " + names)
          : Meaning.wrong("there is no chain with " + two[0] + "; there is " + names);
    }
    if (two[1].isBlank()) {
      return Meaning.unfinished("what is seen, such as lit up to 2");
    }
    try {
      ChainSeen.parse(two[1], c.get().elements().size());
    } catch (IllegalArgumentException e) {
      return Meaning.wrong(e.getMessage());
    }
    return Meaning.ready(
        new Entry.ChainLook(
            c.get().elements().getFirst(), c.get().elements().size(), two[1].strip()));
  }
}
