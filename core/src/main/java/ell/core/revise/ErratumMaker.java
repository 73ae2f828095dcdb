package ell.core.revise;

import ell.core.board.Joint;
import ell.core.board.Revision;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// Writes an erratum down from what taught it: a finding, a defect, a part that was fitted in place
/// of another, or words. What is guessed here (the fault, the steps of its bodge) is told, and put
/// right by saying it otherwise.
public final class ErratumMaker {
  private static final Pattern TIED = Pattern.compile("(?i)\\btied to ([^\\s,;:]+)");
  private static final Pattern WIRED = Pattern.compile("(?i)\\bwired?(?: over)? to ([^\\s,;:]+)");
  private static final int LONGEST = 160;

  private ErratumMaker() {}

  /// Whether an erratum can be written down from an entry.
  public static boolean teaches(Entry e) {
    return switch (e) {
      case Entry.Found _,
          Entry.Defect _,
          Entry.Fitted _,
          Entry.Symptom _,
          Entry.Note _,
          Entry.Gate _ ->
          true;
      case Entry.Reading r -> r.verdict().isPresent();
      case Entry.Check c -> c.verdict() != ell.core.quantity.Verdict.WITHIN;
      case Entry.ProofStep p -> p.verdict().isPresent();
      default -> false;
    };
  }

  /// The erratum that an entry teaches, still without an id.
  ///
  /// @param source the entry
  /// @param title what it is called; empty takes the words of the entry
  /// @param all entries of the design's boards that stand: what was seen at the same place on other
  ///   boards, and how it was mended there, comes with it
  public static Entry.Erratum of(Logged source, String title, Revision revision, List<Logged> all) {
    List<String> places = places(source.entry(), revision);
    Optional<Fault> fault = fault(source.entry(), places, revision);
    Set<Long> taught = new LinkedHashSet<>(List.of(source.number()));
    all.stream()
        .filter(l -> alike(source.entry(), l.entry(), places))
        .forEach(l -> taught.add(l.number()));
    List<BodgeStep> bodge = new ArrayList<>(fault.map(f -> bodge(f, revision)).orElse(List.of()));
    if (bodge.size() <= 1) {
      List<BodgeStep> seen = mended(all, places, revision);
      if (seen.size() > bodge.size()) {
        bodge.clear();
        bodge.addAll(seen);
      }
    }
    boolean wish = source.entry() instanceof Entry.Fitted || source.entry() instanceof Entry.Note;
    return new Entry.Erratum(
        "",
        title.isBlank() ? shortened(words(source.entry())) : shortened(title),
        revision.design(),
        List.of(revision.name()),
        fault.map(FaultWords::words).orElse(""),
        places,
        wish ? Severity.WISH.key() : Severity.FAILS.key(),
        bodge.stream().map(BodgeStep::text).toList(),
        "",
        "",
        List.copyOf(taught));
  }

  /// An erratum or a wish that somebody says, without an entry that taught it: the places that its
  /// words name come with it.
  public static Entry.Erratum said(String words, boolean wish, Revision revision) {
    Optional<Fault> fault = parse(words);
    List<String> places =
        fault.map(f -> atFault(f, revision)).orElseGet(() -> named(words, revision));
    return new Entry.Erratum(
        "",
        shortened(words.strip()),
        revision.design(),
        List.of(revision.name()),
        fault.map(FaultWords::words).orElse(""),
        places,
        wish ? Severity.WISH.key() : Severity.FAILS.key(),
        fault.map(f -> bodge(f, revision)).orElse(List.of()).stream().map(BodgeStep::text).toList(),
        "",
        "",
        List.of());
  }

  private static String shortened(String s) {
    String one = s.replaceAll("\\s+", " ").strip();
    return one.length() <= LONGEST ? one : one.substring(0, LONGEST - 1) + "\u2026";
  }

  private static String words(Entry e) {
    return switch (e) {
      case Entry.Found f -> f.fault();
      case Entry.Defect d ->
          d.place() + " " + d.defect() + (d.text().isEmpty() ? "" : ": " + d.text());
      case Entry.Fitted f ->
          "second source for "
              + f.place()
              + ": "
              + f.code()
              + (f.why().isEmpty() ? "" : ", " + f.why());
      case Entry.Note n -> n.text();
      default -> EntryWords.of(e);
    };
  }

  private static Optional<Fault> parse(String words) {
    try {
      return Optional.of(FaultWords.parse(words));
    } catch (IllegalArgumentException e) {
      return Optional.empty();
    }
  }

  private static Optional<Fault> fault(Entry e, List<String> places, Revision revision) {
    if (e instanceof Entry.Found f) {
      return parse(f.fault());
    }
    if (e instanceof Entry.Defect d && !places.isEmpty()) {
      Optional<Joint> j = revision.joint(d.place());
      Matcher m = TIED.matcher(d.text());
      if (j.isPresent() && m.find() && !revision.net(m.group(1)).isEmpty()) {
        return Optional.of(new Fault.Tied(j.get().part(), j.get().pin(), m.group(1)));
      }
    }
    return Optional.empty();
  }

  private static List<String> places(Entry e, Revision revision) {
    return switch (e) {
      case Entry.Found f ->
          parse(f.fault())
              .map(x -> atFault(x, revision))
              .filter(p -> !p.isEmpty())
              .orElseGet(() -> f.place().isEmpty() ? List.of() : List.of(f.place()));
      case Entry.Defect d -> List.of(d.place());
      case Entry.Fitted f -> List.of(f.place());
      case Entry.Symptom s -> s.place().isEmpty() ? List.of() : List.of(s.place());
      case Entry.Reading r -> List.of(r.place());
      case Entry.Check c -> List.of(c.a(), c.b());
      case Entry.ProofStep p -> p.place().isEmpty() ? List.of() : List.of(p.place());
      case Entry.Note n -> named(n.text(), revision);
      default -> List.of();
    };
  }

  /// Where a fault is, as places of the board.
  static List<String> atFault(Fault fault, Revision revision) {
    return switch (fault) {
      case Fault.Open f -> List.of(f.part() + "." + f.pin());
      case Fault.Resistive f -> List.of(f.part() + "." + f.pin());
      case Fault.Tied f -> List.of(f.part() + "." + f.pin());
      case Fault.Loose f -> List.of(f.part() + "." + f.pin());
      case Fault.Bridge f -> List.of(f.a(), f.b());
      case Fault.Dead f -> List.of(f.part());
      case Fault.WrongValue f -> List.of(f.part());
      case Fault.Turned f -> List.of(f.part());
      case Fault.Short f -> List.of(f.part());
      case Fault.Missing f -> List.of(f.part());
      case Fault.Link f -> List.of(f.part());
      case Fault.Sometimes f -> atFault(f.fault(), revision);
      case Fault.Setting _, Fault.Firmware _ -> List.of();
    };
  }

  /// Places of the board that words name: joints and parts first, nets as they are written.
  private static List<String> named(String words, Revision revision) {
    Set<String> all = new LinkedHashSet<>();
    for (String w : words.split("[\\s,;:()]+")) {
      String place = w.replaceAll("\\.$", "");
      if (revision.joint(place).isPresent()
          || revision.part(place).isPresent()
          || place.length() > 1 && !revision.net(place).isEmpty()) {
        all.add(place);
      }
    }
    return List.copyOf(all);
  }

  /// Whether an entry of another board, or a later one, says the same.
  private static boolean alike(Entry a, Entry b, List<String> places) {
    return switch (a) {
      case Entry.Found f -> b instanceof Entry.Found g && g.fault().equals(f.fault());
      case Entry.Defect d ->
          b instanceof Entry.Defect x
              && x.place().equals(d.place())
              && x.defect().equals(d.defect());
      case Entry.Fitted f ->
          b instanceof Entry.Fitted x && x.place().equals(f.place()) && x.code().equals(f.code());
      case Entry.ProofStep p ->
          b instanceof Entry.ProofStep x
              && x.name().equals(p.name())
              && x.verdict().equals(p.verdict());
      default -> false;
    };
  }

  /// How a fault of the design is mended by hand, as far as that follows from the drawing.
  static List<BodgeStep> bodge(Fault fault, Revision revision) {
    return switch (fault) {
      case Fault.Tied f -> {
        String place = f.part() + "." + f.pin();
        List<BodgeStep> steps = new ArrayList<>(List.of(step("lift " + place)));
        revision
            .joint(f.part(), f.pin())
            .map(Joint::net)
            .filter(n -> !n.isEmpty() && !n.equals(f.net()))
            .ifPresent(n -> steps.add(step("wire " + place + " " + n)));
        yield steps;
      }
      case Fault.Loose f ->
          revision
              .joint(f.part(), f.pin())
              .map(Joint::net)
              .filter(n -> !n.isEmpty())
              .map(n -> List.of(step("wire " + f.part() + "." + f.pin() + " " + n)))
              .orElse(List.of());
      case Fault.Turned f -> List.of(step("turn " + f.part()));
      case Fault.Missing f -> List.of(step("fit " + f.part()));
      case Fault.Link f -> List.of(step((f.open() ? "close " : "open ") + f.part()));
      default -> List.of();
    };
  }

  private static BodgeStep step(String text) {
    return BodgeStep.parse(text);
  }

  /// How a maker has mended the place on some board, as far as the words of the action say it.
  private static List<BodgeStep> mended(List<Logged> all, List<String> places, Revision revision) {
    for (Logged l : all) {
      if (l.entry() instanceof Entry.Action a && places.contains(a.place())) {
        List<BodgeStep> steps = steps(a, revision);
        if (!steps.isEmpty()) {
          return steps;
        }
      }
    }
    return List.of();
  }

  /// The steps that the words of an action speak of, as far as they do.
  static List<BodgeStep> steps(Entry.Action a, Revision revision) {
    List<BodgeStep> steps = new ArrayList<>();
    if (revision.joint(a.place()).isEmpty()) {
      return steps;
    }
    if (a.text().toLowerCase(java.util.Locale.ROOT).contains("lifted")) {
      steps.add(step("lift " + a.place()));
    } else if (a.action().equals("cut")) {
      steps.add(step("cut " + a.place()));
    }
    Matcher m = WIRED.matcher(a.text());
    if (m.find()) {
      String to = m.group(1).equalsIgnoreCase("ground") ? ground(revision) : m.group(1);
      if (!revision.net(to).isEmpty() || revision.joint(to).isPresent()) {
        steps.add(step("wire " + a.place() + " " + to));
      }
    }
    return steps;
  }

  /// The net that everybody calls ground, by name.
  private static String ground(Revision revision) {
    return revision.nets().stream()
        .filter(n -> n.matches("(?i)A?GND|0V|VSS"))
        .findFirst()
        .orElse("GND");
  }
}
