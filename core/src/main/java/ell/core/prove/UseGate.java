package ell.core.prove;

import ell.core.beep.BeepCheck;
import ell.core.beep.BeepFacts;
import ell.core.beep.BeepList;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.heat.HeatFacts;
import ell.core.look.LookFacts;
import ell.core.order.BuildOrder;
import ell.core.order.OrderFacts;
import ell.core.power.ChargeWatch;
import ell.core.power.Ladder;
import ell.core.power.PowerFacts;
import ell.core.power.WarmParts;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.revise.Erratum;
import ell.core.revise.Stand;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Whether a board may be used: what is missing, a sentence each with what would settle it.
///
/// @param missing empty when it may
/// @param caution what a use that may hurt asks beside all that Ell can know; empty for others
public record UseGate(List<String> missing, String caution) {
  public UseGate {
    missing = List.copyOf(missing);
  }

  /// What it is asked of.
  ///
  /// @param errata that its revision has and that are open
  public record Asked(
      Revision revision,
      BuildOrder order,
      BeepList beep,
      Ladder ladder,
      BoardState state,
      List<Erratum> errata) {
    public Asked {
      errata = List.copyOf(errata);
    }
  }

  /// Whether it may.
  public boolean open() {
    return missing.isEmpty();
  }

  /// The gate of a board.
  public static UseGate of(Asked a, UseRules rules) {
    List<String> no = new ArrayList<>();
    a.state()
        .findings()
        .forEach(f ->
            no.add("open finding: " + f.place() + " " + f.what() + " (entry " + f.number() + ")"));
    proof(a.state(), rules, no);
    for (Intermittent i : Intermittent.of(a.state())) {
      long needed = i.needed(rules.sure());
      if (i.clean() < needed) {
        no.add(
            String.format(
                java.util.Locale.ROOT,
                "%s: bad at %d of %d tries, and %d times clean since; %d clean tries are needed to"
                    + " be %.4g %% sure that it is gone",
                i.what(),
                i.bad(),
                i.tries(),
                i.clean(),
                needed,
                100 * rules.sure()));
      }
    }
    HeatFacts.of(a.state())
        .heatCycles()
        .forEach((part, n) -> {
          if (n > rules.heats()) {
            no.add(part + " was heated " + n + " times, more than " + rules.heats());
          }
        });
    mended(a, no);
    complete(a, no);
    hurts(a, rules, no);
    return new UseGate(
        no,
        rules.mayHurt()
            ? "It "
                + String.join(" and ", rules.uses())
                + ": a board that fails may hurt somebody. Ell knows what is in its book, not what"
                + " a product needs to be safe: data sheets, local rules and whoever is licensed to"
                + " judge it come first."
            : "");
  }

  private static void proof(BoardState s, UseRules rules, List<String> no) {
    ProveFacts f = ProveFacts.of(s);
    if (f.runs().isEmpty()) {
      no.add("not proved yet: it has to go through its test plan");
      return;
    }
    if (f.open().isPresent()) {
      no.add("its proof was cut off (entry " + f.open().get().number() + "): let it go on");
      return;
    }
    ProveFacts.Run last = f.lastEnded().orElseThrow();
    Verdict v = last.verdict().orElseThrow();
    if (v != Verdict.WITHIN) {
      no.add(
          "its last proof "
              + (v == Verdict.OUT ? "failed" : "was not settled")
              + " (entry "
              + last.ended().orElseThrow().number()
              + ")"
              + unsettled(last));
      return;
    }
    if (last.number() < f.touched()) {
      no.add("it was changed after its last proof (entry " + f.touched() + "): prove it again");
      return;
    }
    long clean =
        f.runs().reversed().stream()
            .takeWhile(r ->
                r.number() > f.touched()
                    && r.verdict().filter(x -> x == Verdict.WITHIN).isPresent())
            .count();
    if (clean < rules.clean()) {
      no.add(
          clean
              + (clean == 1 ? " clean proof" : " clean proofs")
              + " in a row since it was last changed, "
              + rules.clean()
              + " are asked for: prove it again");
    }
  }

  private static String unsettled(ProveFacts.Run r) {
    Optional<Entry.ProofStep> out =
        r.made().stream()
            .filter(x -> x.verdict().filter(v -> v == Verdict.OUT).isPresent())
            .findFirst();
    if (out.isPresent()) {
      return ": " + out.get().name();
    }
    return r.made().stream()
        .filter(x -> x.left() || x.verdict().filter(v -> v == Verdict.WITHIN).isEmpty())
        .findFirst()
        .map(x -> ": " + x.name() + (x.words().isEmpty() ? "" : ", " + x.words()))
        .orElse("");
  }

  /// Whether it is mended of what its revision is known to do wrong.
  private static void mended(Asked a, List<String> no) {
    for (Erratum e : a.errata()) {
      Stand s = Stand.of(e, a.revision(), a.state());
      if (!e.severity().holds()) {
        continue;
      }
      switch (s.state()) {
        case NEEDED -> no.add(e.id() + ", " + e.title() + ": not mended on this board");
        case CANNOT -> no.add(e.id() + ", " + e.title() + ": cannot be mended, " + s.why());
        case DONE ->
            no.add(
                e.id()
                    + ", "
                    + e.title()
                    + ": mended, and nothing shows it yet"
                    + e.shows()
                        .map(p -> "; " + p.text() + " does")
                        .orElse("; say it: bodge " + e.id() + " proved HOW"));
        case PROVED, NOT_NEEDED -> {}
      }
    }
  }

  /// Whether the book says everything of how it came to be.
  private static void complete(Asked a, List<String> no) {
    int steps = a.order().steps().size();
    int done = OrderFacts.of(a.state()).done(a.order());
    if (done < steps) {
      no.add("record not complete: step " + done + " of " + steps + " of its order is done");
    }
    if (LookFacts.of(a.state()).seen().isEmpty()) {
      no.add("record not complete: nobody looked at its joints; look, then: rest good");
    }
    List<BeepCheck> open = BeepFacts.of(a.state()).open(a.beep());
    if (!open.isEmpty()) {
      no.add(
          "record not complete: "
              + open.size()
              + (open.size() == 1 ? " check" : " checks")
              + " before power not within, the first is "
              + open.getFirst().netB()
              + " to "
              + open.getFirst().netA());
    }
    List<Ladder.RailSpec> rails = a.ladder().supplied().stream().filter(r -> !r.guessed()).toList();
    PowerFacts power = PowerFacts.of(a.state());
    List<String> unread =
        rails.stream()
            .filter(r -> power.verdict(r).filter(v -> v == Verdict.WITHIN).isEmpty())
            .map(Ladder.RailSpec::net)
            .toList();
    if (!unread.isEmpty()) {
      no.add("record not complete: not read within its limits: " + String.join(", ", unread));
    }
    if (power.mayBeOn()) {
      no.add("its output may be on: see to it, then log: off");
    }
    if (LookFacts.of(a.state()).who().isEmpty()) {
      no.add("record not complete: nobody said who worked on it; say it: hands NAME");
    }
  }

  /// What uses that may hurt ask beside; common practice, no source.
  private static void hurts(Asked a, UseRules rules, List<String> no) {
    if (rules.mayHurt() && !LookFacts.restGood(a.revision(), a.state()).isEmpty()) {
      no.add(
          "for a board that "
              + String.join(" and ", rules.uses())
              + " every joint is looked at; not yet: "
              + first(LookFacts.restGood(a.revision(), a.state())));
    }
    if (rules.away()) {
      List<String> hand =
          a.state().standing().stream()
              .map(Logged::entry)
              .filter(e -> e instanceof Entry.Action x && x.heat())
              .map(e -> ((Entry.Action) e).place())
              .distinct()
              .toList();
      if (!hand.isEmpty()) {
        no.add(
            "reworked by hand: "
                + first(hand)
                + "; what flies or moves is better off with a board that was not");
      }
    }
    if (rules.uses().contains("heats")) {
      PowerFacts power = PowerFacts.of(a.state());
      List<String> unfelt =
          WarmParts.of(a.ladder(), "worst").stream()
              .filter(w -> w.limits().isPresent())
              .map(WarmParts.Warm::part)
              .filter(p ->
                  power
                      .reading(p)
                      .filter(r -> r.unit() == Unit.CELSIUS)
                      .flatMap(Entry.Reading::verdict)
                      .filter(v -> v == Verdict.WITHIN)
                      .isEmpty())
              .toList();
      if (!unfelt.isEmpty()) {
        no.add("it heats: nobody felt how warm " + first(unfelt) + " gets");
      }
    }
    if (rules.uses().contains("charges") && !charged(a)) {
      no.add(
          "it charges: no charge of its cell was watched; charge WS --board " + a.state().board());
    }
  }

  private static boolean charged(Asked a) {
    List<String> places = new ArrayList<>();
    for (Part p : a.revision().parts()) {
      if (PartKind.of(p) == PartKind.CELL
          || a.ladder().sources().stream().anyMatch(s -> s.rail().equals(p.reference()))) {
        places.add(p.reference());
        a.revision().jointsOf(p.reference()).forEach(j -> places.add(j.place()));
        a.revision().jointsOf(p.reference()).stream()
            .filter(j -> j.connected() && !j.net().equals(a.ladder().ground()))
            .forEach(j -> places.add(j.net()));
      }
    }
    return ChargeWatch.samples(a.state(), places).size() >= 2;
  }

  private static String first(List<String> all) {
    return all.getFirst() + (all.size() > 1 ? " and " + (all.size() - 1) + " more" : "");
  }

  /// What is missing in one line, empty when nothing is.
  public Optional<String> why() {
    return missing.isEmpty() ? Optional.empty() : Optional.of(String.join("; ", missing));
  }
}
