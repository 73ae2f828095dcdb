package ell.work.power;

import ell.core.entry.Entry;
import ell.core.power.BeforePower;
import ell.core.power.BeforePower.Item;
import ell.work.act.Refusal;
import ell.work.act.Rule;
import ell.work.act.Situation;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/// No first power while the book says that something is plugged in which must not be. A helper has
/// to say of each thing that it is so; what a maker does not say is taken as so, and written.
final class PluggedRule implements Rule {
  /// The rule's word.
  static final String KEY = "plugged";

  @Override
  public String key() {
    return KEY;
  }

  @Override
  public String guards() {
    return "no first power while something is plugged in that must not be";
  }

  @Override
  public Optional<Refusal> refusal(Entry next, Situation s) {
    if (!(next instanceof Entry.Supply on)
        || !on.on()
        || BeforePower.over(s.plan().ladder(), s.state())) {
      return Optional.empty();
    }
    boolean helps = Helping.at(s.state()).isPresent();
    List<Item> wrong =
        BeforePower.of(s.plan().revision(), s.plan().ladder(), s.state()).stream()
            .filter(i ->
                i.state() == BeforePower.State.AGAINST
                    || helps && i.state() == BeforePower.State.OPEN)
            .toList();
    if (wrong.isEmpty()) {
      return Optional.empty();
    }
    return Optional.of(
        new Refusal(
            KEY,
            "before first power of board "
                + s.board()
                + " it must be so: "
                + wrong.stream()
                    .map(i ->
                        i.says()
                            + (i.state() == BeforePower.State.AGAINST
                                ? " (the book says otherwise)"
                                : ""))
                    .collect(Collectors.joining("; ")),
            "Look, then log it: "
                + wrong.getFirst().typed()
                + (wrong.size() > 1 ? ", or so for all of them" : "")
                + (helps ? "" : "; or write why: override " + KEY + " WHY")));
  }
}
