package ell.core.sheet;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BiFunction;
import java.util.stream.Collectors;

/// A stand-alone sheet of the catalogue: its inputs, what it results in, and how it is worked.
///
/// @param name `stage.computation`
/// @param title a short sentence
/// @param inputs in the order in which they are asked
/// @param either groups of which exactly one must be given, such as `length,width` or `diameter`
/// @param results names and units of what comes out
/// @param sources where the formula is from
/// @param working the computation, given an empty sheet with the inputs already on it
public record Sheet(
    String name,
    String title,
    List<Input> inputs,
    List<List<String>> either,
    List<Result> results,
    List<String> sources,
    BiFunction<Args, Worked.Builder, Worked> working) {

  /// A result's name and unit.
  public record Result(String name, String unit) {}

  public Sheet {
    inputs = List.copyOf(inputs);
    either = List.copyOf(either);
    results = List.copyOf(results);
    sources = List.copyOf(sources);
  }

  /// Reads results written `name unit, name unit`; a result without a unit is words or a pure
  /// number.
  public static List<Result> results(String text) {
    List<Result> list = new ArrayList<>();
    for (String one : text.split(",")) {
      String[] parts = one.strip().split(" ", 2);
      list.add(new Result(parts[0], parts.length > 1 ? parts[1] : ""));
    }
    return list;
  }

  /// Works the sheet.
  ///
  /// @param given key to text, as on the command line
  /// @throws SheetProblem for an unknown, missing, unreadable or out-of-range input
  public Worked work(Map<String, String> given) {
    for (String key : given.keySet()) {
      if (inputs.stream().noneMatch(i -> i.name().equals(key))) {
        throw new SheetProblem(name + " has no input '" + key + "'; it takes " + names());
      }
    }
    checkEither(given);
    Map<String, Object> values = new LinkedHashMap<>();
    List<String> missing = new ArrayList<>();
    for (Input input : inputs) {
      String text =
          given.containsKey(input.name())
              ? given.get(input.name())
              : input.byDefault().orElse(null);
      if (text != null) {
        values.put(input.name(), input.read(text));
      } else if (!input.optional()) {
        missing.add(input.right());
      }
    }
    if (!missing.isEmpty()) {
      throw new SheetProblem(name + " also needs: " + String.join("; ", missing));
    }
    Worked.Builder sheet = Worked.of(name, title);
    Args args = new Args(values);
    args.on(sheet);
    sources.forEach(sheet::source);
    try {
      return working.apply(args, sheet);
    } catch (SheetProblem e) {
      throw e;
    } catch (IllegalArgumentException e) {
      throw new SheetProblem(name + ": " + e.getMessage());
    }
  }

  private void checkEither(Map<String, String> given) {
    if (either.isEmpty()) {
      return;
    }
    List<List<String>> touched =
        either.stream().filter(g -> g.stream().anyMatch(given::containsKey)).toList();
    if (touched.size() != 1 || !given.keySet().containsAll(touched.getFirst())) {
      throw new SheetProblem(
          name
              + " needs exactly one of: "
              + either.stream()
                  .map(g -> String.join(" and ", g))
                  .collect(Collectors.joining(", or ")));
    }
  }

  private String names() {
    return inputs.stream().map(Input::name).collect(Collectors.joining(", "));
  }
}
