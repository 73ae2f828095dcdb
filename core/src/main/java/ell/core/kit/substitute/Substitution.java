package ell.core.kit.substitute;

import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.power.Ladder;
import ell.core.quantity.Verdict;
import ell.core.sheet.Worked;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Whether a candidate may be fitted for a part: one line for each parameter that decides.
///
/// @param part reference of the part, of several with one code the one that asks most is the first
/// @param code of the part that was drawn
/// @param candidate code of the other
/// @param template which parameters decide
/// @param lines in the order of the template
public record Substitution(
    String part, String code, String candidate, Template template, List<Line> lines) {

  /// One parameter.
  ///
  /// @param found what the candidate has, empty when nobody knows
  public record Line(Requirement need, Optional<String> found, Verdict verdict) {}

  public Substitution {
    lines = List.copyOf(lines);
  }

  /// Out when one parameter is out, too close to call when one is not known, else within.
  public Verdict verdict() {
    if (lines.stream().anyMatch(l -> l.verdict() == Verdict.OUT)) {
      return Verdict.OUT;
    }
    return lines.isEmpty() || lines.stream().anyMatch(l -> l.verdict() == Verdict.CLOSE)
        ? Verdict.CLOSE
        : Verdict.WITHIN;
  }

  /// Compares.
  ///
  /// @param drawn parameters that are known of the part's own code, by name
  /// @param other parameters that are known of the candidate, by name
  /// @param otherWords value, description and package of the candidate as a bill or a person writes
  ///   them, may be empty
  public static Substitution of(
      Revision revision,
      Ladder ladder,
      Part part,
      Map<String, String> drawn,
      String candidate,
      Map<String, String> other,
      String otherWords,
      String otherOutline) {
    Template t = Template.of(revision, ladder, part);
    Traits own =
        Traits.of(drawn, t)
            .or(Traits.ofWords(part.value() + " " + part.description(), part.packageName(), t));
    Traits found = Traits.of(other, t).or(Traits.ofWords(otherWords, otherOutline, t));
    List<Line> lines = new ArrayList<>();
    for (Requirement r : new CircuitNeeds(revision, ladder, part, own, t).all()) {
      Optional<String> has = found.text(r.trait());
      lines.add(new Line(r, has, r.judge(has)));
    }
    return new Substitution(part.reference(), part.code(), candidate, t, lines);
  }

  /// The comparison as a worked sheet.
  public Worked sheet() {
    Worked.Builder s = Worked.of("kit.substitute", candidate + " for " + part + " (" + code + ")");
    for (Line l : lines) {
      s.line(
          l.need().trait().words(),
          "need " + l.need().text() + ": " + l.need().from(),
          l.found().orElse("not known") + " · " + l.verdict().words());
    }
    return s.verdict(verdict())
        .source("common practice, no source: which parameters decide, and their margins")
        .assume("what is not known of the candidate never passes: its data sheet decides")
        .done();
  }
}
