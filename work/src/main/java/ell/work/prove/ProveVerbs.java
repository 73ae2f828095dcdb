package ell.work.prove;

import ell.core.entry.Entry;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.rack.Stage;
import ell.work.tape.Meaning;
import ell.work.tape.Said;
import ell.work.tape.Verb;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Words of the tape about proofs.
public final class ProveVerbs {
  /// The verbs.
  public static final List<Verb> ALL =
      List.of(
          Verb.first(
                  "proof",
                  "proof begin or end",
                  "a proof that is typed, by the plan that is kept with the revision, or the one that"
                      + " is proposed",
                  ProveVerbs::proof,
                  "proof begin",
                  "proof end")
              .offering(_ -> List.of("begin", "end"))
              .of(Stage.PROVE),
          Verb.first(
                  "test",
                  "test NAME VALUE, good, bad or left WHY",
                  "what a step of the open proof shows, judged by the plan; a name of several words"
                      + " stands between quotation marks",
                  ProveVerbs::test,
                  "test 3V3 3.287",
                  "test \"VIN current boot\" 13mA",
                  "test first-load good")
              .of(Stage.PROVE),
          Verb.first(
                  "released",
                  "released [WORDS]",
                  "the board leaves the bench to be used: only when nothing is missing that its"
                      + " revision asks for",
                  s -> Meaning.ready(new Entry.Released(s.rest())),
                  "released",
                  "released to the marsh station")
              .of(Stage.PROVE));

  private static final Pattern QUOTED = Pattern.compile("\"([^\"]+)\"\\s*(.*)");

  private ProveVerbs() {}

  private static Meaning proof(Said s) {
    return switch (s.rest().strip().toLowerCase(Locale.ROOT)) {
      case "begin" -> Meaning.ready(new Entry.ProofBegun("", "", 0, 0, "typed"));
      case "end" -> Meaning.ready(new Entry.ProofEnded(HandProof.TYPED, Verdict.CLOSE, "", 0));
      case "" -> Meaning.unfinished("begin or end");
      default -> Meaning.wrong("a proof is begin or end, found '" + s.rest() + "'");
    };
  }

  private static Meaning test(Said s) {
    String rest = s.rest().strip();
    Matcher m = QUOTED.matcher(rest);
    String name = m.matches() ? m.group(1) : rest.split("\\s+", 2)[0];
    String is = m.matches() ? m.group(2) : rest.substring(name.length()).strip();
    if (name.isEmpty() || is.isEmpty()) {
      return Meaning.unfinished("the name of the test, then a value, good, bad or left WHY");
    }
    return Meaning.ready(
        new Entry.ProofStep(
            HandProof.TYPED,
            0,
            1,
            name,
            "",
            Optional.empty(),
            Unit.ONE,
            Optional.empty(),
            Optional.empty(),
            Optional.empty(),
            is,
            false,
            0));
  }
}
