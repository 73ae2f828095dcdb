package ell.core.revise;

import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// All errata of a workspace, folded from the entries that stand: an entry that is struck takes
/// back what it said, as everywhere.
///
/// @param all in the order in which they were written down
public record Errata(List<Erratum> all) {
  /// What can be said of an erratum afterwards.
  public static final List<String> SAYS =
      List.of(
          "title",
          "fault",
          "at",
          "severity",
          "bodge",
          "proof",
          "fix",
          "revisions",
          "taught",
          "fixed",
          "closed",
          "open");

  public Errata {
    all = List.copyOf(all);
  }

  /// Folds them.
  ///
  /// @param entries that stand, of all boards, in the order of time; others than those about errata
  ///   are passed over
  public static Errata of(List<Logged> entries) {
    Map<String, Erratum> by = new LinkedHashMap<>();
    for (Logged l : entries) {
      switch (l.entry()) {
        case Entry.Erratum e -> by.putIfAbsent(e.id(), of(e, l.board(), l.number()));
        case Entry.ErratumSaid s -> by.computeIfPresent(s.id(), (_, e) -> said(e, s));
        default -> {} // says nothing of errata
      }
    }
    return new Errata(List.copyOf(by.values()));
  }

  /// Those of a design, closed ones too.
  public List<Erratum> of(String design) {
    return all.stream().filter(e -> e.design().equals(design)).toList();
  }

  /// Those that a revision has and that are open, wishes not among them.
  public List<Erratum> of(String design, String revision) {
    return all.stream()
        .filter(e -> e.open() && e.of(design, revision) && e.severity() != Severity.WISH)
        .toList();
  }

  /// The one with an id, whatever case it is typed in.
  public Optional<Erratum> named(String id) {
    return all.stream().filter(e -> e.id().equalsIgnoreCase(id)).findFirst();
  }

  private static Erratum of(Entry.Erratum e, String board, long number) {
    return new Erratum(
        e.id(),
        e.title(),
        e.design(),
        e.revisions(),
        fault(e.fault()),
        e.places(),
        Severity.of(e.severity()).orElse(Severity.FAILS),
        steps(e.bodge()),
        !e.bodge().isEmpty(),
        proof(e.proof()),
        fix(e.fix()),
        e.fix(),
        Optional.empty(),
        Optional.empty(),
        e.taughtBy(),
        board,
        number);
  }

  private static Erratum said(Erratum e, Entry.ErratumSaid s) {
    String t = s.text().strip();
    return switch (s.what()) {
      case "title" -> with(e, t, e.revisions(), e.fault(), e.places(), e.severity());
      case "fault" -> with(e, e.title(), e.revisions(), fault(t), e.places(), e.severity());
      case "at" -> with(e, e.title(), e.revisions(), e.fault(), words(t), e.severity());
      case "severity" ->
          with(
              e,
              e.title(),
              e.revisions(),
              e.fault(),
              e.places(),
              Severity.of(t).orElse(e.severity()));
      case "revisions" -> with(e, e.title(), words(t), e.fault(), e.places(), e.severity());
      case "bodge" -> mended(e, steps(List.of(t.split(";"))), e.proof(), e.fix(), e.fixWords());
      case "proof" -> mended(e, e.bodge(), proof(t), e.fix(), e.fixWords());
      case "fix" -> mended(e, e.bodge(), e.proof(), fix(t), t);
      case "taught" -> taught(e, t);
      case "fixed" ->
          ended(e, t.isEmpty() ? Optional.empty() : Optional.of(t), e.closed(), e.taughtBy());
      case "closed" -> ended(e, e.fixedIn(), Optional.of(t.isEmpty() ? "closed" : t), e.taughtBy());
      case "open" -> ended(e, Optional.empty(), Optional.empty(), e.taughtBy());
      default -> e; // words of a newer Ell
    };
  }

  private static Erratum taught(Erratum e, String text) {
    List<Long> all = new ArrayList<>(e.taughtBy());
    words(text).stream()
        .filter(w -> w.matches("\\d{1,15}"))
        .map(Long::valueOf)
        .filter(n -> !all.contains(n))
        .forEach(all::add);
    return ended(e, e.fixedIn(), e.closed(), all);
  }

  private static Erratum with(
      Erratum e,
      String title,
      List<String> revisions,
      Optional<Fault> fault,
      List<String> places,
      Severity severity) {
    return new Erratum(
        e.id(),
        title,
        e.design(),
        revisions,
        fault,
        places,
        severity,
        e.bodge(),
        e.proposed(),
        e.proof(),
        e.fix(),
        e.fixWords(),
        e.fixedIn(),
        e.closed(),
        e.taughtBy(),
        e.board(),
        e.number());
  }

  private static Erratum mended(
      Erratum e, List<BodgeStep> bodge, Optional<Proof> proof, List<BodgeStep> fix, String words) {
    return new Erratum(
        e.id(),
        e.title(),
        e.design(),
        e.revisions(),
        e.fault(),
        e.places(),
        e.severity(),
        bodge,
        bodge == e.bodge() && e.proposed(),
        proof,
        fix,
        words,
        e.fixedIn(),
        e.closed(),
        e.taughtBy(),
        e.board(),
        e.number());
  }

  private static Erratum ended(
      Erratum e, Optional<String> fixedIn, Optional<String> closed, List<Long> taughtBy) {
    return new Erratum(
        e.id(),
        e.title(),
        e.design(),
        e.revisions(),
        e.fault(),
        e.places(),
        e.severity(),
        e.bodge(),
        e.proposed(),
        e.proof(),
        e.fix(),
        e.fixWords(),
        fixedIn,
        closed,
        taughtBy,
        e.board(),
        e.number());
  }

  /// Words between commas or blanks.
  public static List<String> words(String text) {
    return Arrays.stream(text.split("[,\\s]+")).filter(w -> !w.isEmpty()).toList();
  }

  private static Optional<Fault> fault(String words) {
    try {
      return words.isBlank() ? Optional.empty() : Optional.of(FaultWords.parse(words));
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // words of a newer Ell
    }
  }

  private static List<BodgeStep> steps(List<String> texts) {
    List<BodgeStep> all = new ArrayList<>();
    for (String t : texts) {
      try {
        all.addAll(BodgeStep.all(t));
      } catch (IllegalArgumentException e) {
        all.add(new BodgeStep(BodgeStep.Kind.DO, "", List.of(), t.strip()));
      }
    }
    return all;
  }

  /// A fix that is no steps is words.
  private static List<BodgeStep> fix(String text) {
    try {
      return BodgeStep.all(text);
    } catch (IllegalArgumentException e) {
      return List.of();
    }
  }

  private static Optional<Proof> proof(String text) {
    try {
      return text.isBlank() ? Optional.empty() : Optional.of(Proof.parse(text));
    } catch (IllegalArgumentException e) {
      return Optional.empty(); // words of a newer Ell
    }
  }
}
