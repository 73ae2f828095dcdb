package ell.work.kit;

import ell.book.RevisionStore;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.kit.substitute.Substitution;
import ell.core.kit.substitute.Template;
import ell.core.kit.substitute.Trait;
import ell.core.kit.substitute.Traits;
import ell.core.rack.Plan;
import ell.work.bring.Revisions;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// Compares a candidate with what the circuit needs, from everything that the workspace knows of
/// both: parameters, and the bills of its revisions.
public final class Substituting {
  private Substituting() {}

  /// Compares a candidate for a part, or for every part of a code.
  ///
  /// @param what a reference or a code
  /// @param candidate a code, or words such as `100n 50 V X7R 0603`
  /// @param said more that is known of the candidate, as `name=value`
  /// @return one for each part of the code, the one that fits least first
  public static List<Substitution> of(
      Workspace w, Revisions revisions, Plan plan, String what, String candidate, List<String> said)
      throws IOException, ActException {
    List<Part> parts = parts(plan.revision(), what);
    Map<String, String> other = new LinkedHashMap<>();
    for (String s : said) {
      int eq = s.indexOf('=');
      if (eq < 1 || eq == s.length() - 1) {
        throw new ActException(
            "expected name=value of the candidate, such as voltage=25V, found '" + s + "'");
      }
      other.put(s.substring(0, eq).strip().toLowerCase(Locale.ROOT), s.substring(eq + 1).strip());
    }
    w.book().parameters(candidate).forEach(other::putIfAbsent);
    Optional<Part> known = billed(w, revisions, candidate);
    boolean words = known.isEmpty() && candidate.strip().contains(" ");
    if (known.isEmpty() && !words && other.isEmpty()) {
      throw new ActException(
          "nothing is known of '"
              + candidate
              + "': give its parameters (shelf --parameters F), or say them here as name=value,"
              + " or in words such as '100n 50 V X7R 0603'");
    }
    List<Substitution> all = new ArrayList<>();
    for (Part p : parts) {
      all.add(
          Substitution.of(
              plan.revision(),
              plan.ladder(),
              p,
              w.book().parameters(p.code()),
              candidate,
              other,
              words ? candidate : known.map(k -> k.value() + " " + k.description()).orElse(""),
              known.map(Part::packageName).orElse("")));
    }
    all.sort(
        Comparator.comparing((Substitution s) -> s.verdict().ordinal())
            .reversed()
            .thenComparing(s -> -s.lines().stream().filter(l -> l.found().isEmpty()).count()));
    return all;
  }

  /// Codes of which enough is known to hold them against a part's need: those that state the
  /// parameter that decides first.
  ///
  /// @param what a reference or a code
  public static List<String> candidates(Workspace w, Plan plan, String what)
      throws IOException, ActException {
    Part part = parts(plan.revision(), what).getFirst();
    Template t = Template.of(plan.revision(), plan.ladder(), part);
    Trait first = t.mainTrait().orElse(t.traits().getFirst());
    List<String> found = new ArrayList<>();
    for (String code : w.book().codesWithParameters()) {
      if (!code.equals(part.code())
          && Traits.of(w.book().parameters(code), t).text(first).isPresent()) {
        found.add(code);
      }
    }
    return found;
  }

  private static List<Part> parts(Revision revision, String what) throws ActException {
    Optional<Part> one =
        revision.parts().stream().filter(p -> p.reference().equalsIgnoreCase(what)).findFirst();
    if (one.isPresent()) {
      return List.of(one.get());
    }
    List<Part> all =
        revision.parts().stream()
            .filter(p -> p.fitted() && p.code().equalsIgnoreCase(what))
            .toList();
    if (all.isEmpty()) {
      throw new ActException(revision.title() + " has no part and no code '" + what + "'");
    }
    return all;
  }

  /// What the bills of the workspace say of a code.
  private static Optional<Part> billed(Workspace w, Revisions revisions, String code)
      throws IOException, ActException {
    for (RevisionStore.Id id : w.book().revisions().reversed()) {
      Optional<Part> p =
          revisions.get(id.design(), id.name()).parts().stream()
              .filter(x -> x.code().equalsIgnoreCase(code))
              .findFirst();
      if (p.isPresent()) {
        return p;
      }
    }
    return Optional.empty();
  }
}
