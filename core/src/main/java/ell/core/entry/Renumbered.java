package ell.core.entry;

import java.util.function.LongUnaryOperator;

/// An entry with the numbers of other entries that it speaks of put right, for when those got other
/// numbers: written while a bench was alone, and taken over by a server later.
public final class Renumbered {
  private Renumbered() {}

  /// The same entry, speaking of the numbers that others have now.
  ///
  /// @param now gives the number that an entry has for the one that it had
  public static Entry of(Entry e, LongUnaryOperator now) {
    return switch (e) {
      case Entry.Strike s -> new Entry.Strike(now.applyAsLong(s.target()), s.why());
      case Entry.ProofStep s ->
          new Entry.ProofStep(
              now.applyAsLong(s.run()),
              s.number(),
              s.round(),
              s.name(),
              s.place(),
              s.value(),
              s.unit(),
              s.limits(),
              s.uncertainty(),
              s.verdict(),
              s.words(),
              s.left(),
              s.seconds());
      case Entry.ProofEnded p ->
          new Entry.ProofEnded(now.applyAsLong(p.run()), p.verdict(), p.why(), p.minutes());
      case Entry.Found f ->
          new Entry.Found(
              f.fault(),
              f.place(),
              f.design(),
              f.chance(),
              f.evidence().stream().map(now::applyAsLong).toList(),
              f.todo(),
              f.again());
      case Entry.Erratum r ->
          new Entry.Erratum(
              r.id(),
              r.title(),
              r.design(),
              r.revisions(),
              r.fault(),
              r.places(),
              r.severity(),
              r.bodge(),
              r.proof(),
              r.fix(),
              r.taughtBy().stream().map(now::applyAsLong).toList());
      case Entry.ErratumSaid s when s.what().equals("taught") ->
          new Entry.ErratumSaid(s.id(), s.what(), numbers(s.text(), now));
      default -> e;
    };
  }

  /// Words in which only numbers stand for entries.
  private static String numbers(String text, LongUnaryOperator now) {
    return java.util.regex.Pattern.compile("\\d+")
        .matcher(text)
        .replaceAll(m ->
            m.group().length() > 18
                ? m.group()
                : String.valueOf(now.applyAsLong(Long.parseLong(m.group()))));
  }
}
