package ell.files;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// What a reader says of a file beside its value: what was found in it, what was guessed, what was
/// put up with, and what was passed over. Nothing of a file is left out in silence.
///
/// @param found in words, such as `62 parts`, `value: the column Value`
/// @param guesses what the file did not say
/// @param warnings things that were put up with
/// @param passedOver things that were left out, with what they are
public record Account(
    List<String> found, List<Guess> guesses, List<Problem> warnings, List<Problem> passedOver) {
  /// Nothing to say.
  public static final Account NOTHING = new Account(List.of(), List.of(), List.of(), List.of());

  private static final int SHOWN = 4;

  public Account {
    found = List.copyOf(found);
    guesses = List.copyOf(guesses);
    warnings = List.copyOf(warnings);
    passedOver = List.copyOf(passedOver);
  }

  /// This account and what another says behind it.
  public Account and(Account other) {
    return new Account(
        joined(found, other.found),
        joined(guesses, other.guesses),
        joined(warnings, other.warnings),
        joined(passedOver, other.passedOver));
  }

  /// This account with more that was found.
  public Account finding(List<String> more) {
    return and(new Account(more, List.of(), List.of(), List.of()));
  }

  private static <T> List<T> joined(List<T> a, List<T> b) {
    List<T> all = new ArrayList<>(a);
    all.addAll(b);
    return all;
  }

  /// Several things of one kind, told once.
  ///
  /// @param kind what they have in common, such as `comment`
  /// @param examples the first few, each with its line
  public record Group(String kind, int count, List<String> examples) {
    @Override
    public String toString() {
      return (count == 1 ? kind : count + " × " + kind)
          + (examples.isEmpty() ? "" : ": " + String.join("; ", examples))
          + (count > examples.size() && !examples.isEmpty() ? "; …" : "");
    }
  }

  /// What was passed over, things of one kind together: a kind is what stands before the colon.
  public List<Group> grouped() {
    return grouped(passedOver);
  }

  /// Things of one kind together, in the order in which the kinds first came.
  public static List<Group> grouped(List<Problem> several) {
    Map<String, List<Problem>> kinds = new LinkedHashMap<>();
    for (Problem p : several) {
      int colon = p.message().indexOf(": ");
      kinds
          .computeIfAbsent(
              colon < 0 ? p.message() : p.message().substring(0, colon), _ -> new ArrayList<>())
          .add(p);
    }
    List<Group> groups = new ArrayList<>();
    kinds.forEach((kind, all) ->
        groups.add(
            new Group(
                kind,
                all.size(),
                all.stream()
                    .map(p -> example(p, kind))
                    .filter(x -> !x.isEmpty())
                    .limit(SHOWN)
                    .toList())));
    return groups;
  }

  private static String example(Problem p, String kind) {
    String rest =
        p.message().length() > kind.length() ? p.message().substring(kind.length() + 2) : "";
    String at = p.line() > 0 ? "line " + p.line() : "";
    return rest.isEmpty() ? at : at.isEmpty() ? rest : rest + ", " + at;
  }
}
