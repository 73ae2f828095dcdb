package ell.work.talk;

import ell.core.entry.Entry;
import ell.core.talk.Link;
import ell.core.talk.LinkPlan;
import ell.core.talk.Operation;
import ell.core.talk.TalkFacts;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// No operation while the book has its links or plugs otherwise than it needs them.
final class LinksRule implements Rule {
  static final String KEY = "links";

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "no operation while its links or plugs are not as it needs them";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) {
    if (!(next instanceof Entry.Talk t) || t.operation().isEmpty()) {
      return Optional.empty();
    }
    Optional<Operation> o = s.plan().talk().operation(t.operation());
    if (o.isEmpty()) {
      return Optional.of(
          new Refusal(
              KEY,
              "nobody said what the operation " + t.operation() + " needs",
              "Say it: links --say \"operation "
                  + t.operation()
                  + " open JP1\", or override "
                  + KEY
                  + " WHY"));
    }
    return refusal(o.get(), s);
  }

  static Optional<Refusal> refusal(Operation o, Situation s) {
    TalkFacts facts = TalkFacts.of(s.state());
    LinkPlan.Step step = LinkPlan.of(o, s.plan().talk().links(), facts.stand(s.plan().talk()));
    List<String> before = o.after().stream().filter(a -> !facts.done().contains(a)).toList();
    if (step.ready() && before.isEmpty()) {
      return Optional.empty();
    }
    List<String> wrong = new ArrayList<>();
    before.forEach(a -> wrong.add(a + " is not done"));
    step.changes().forEach(c -> wrong.add(c.link() + " is " + Link.word(c.from())));
    step.plug().forEach(p -> wrong.add(p + " is not known to be in"));
    step.unplug().forEach(p -> wrong.add(p + " is not known to be out"));
    List<String> typed = new ArrayList<>();
    step.changes().forEach(c -> typed.add(c.link() + " " + Link.word(c.to())));
    step.plug().forEach(p -> typed.add(p + " in"));
    step.unplug().forEach(p -> typed.add(p + " out"));
    before.forEach(a -> typed.add("did " + a));
    return Optional.of(
        new Refusal(
            KEY,
            o.name() + " cannot begin on board " + s.board() + ": " + String.join(", ", wrong),
            "Make it so, then log it: "
                + String.join("; ", typed)
                + "; or write why: override "
                + KEY
                + " WHY"));
  }
}
