package ell.core.entry;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Every kind of entry, a row each.
public final class Kinds {
  /// The rows, by subject.
  public static final List<Kind<?>> ALL = all();

  private static final Map<Class<?>, Kind<?>> BY_TYPE = new HashMap<>();
  private static final Map<String, Kind<?>> BY_WORD = new HashMap<>();

  static {
    for (Kind<?> k : ALL) {
      BY_TYPE.put(k.type(), k);
      BY_WORD.put(k.word(), k);
    }
  }

  private Kinds() {}

  private static List<Kind<?>> all() {
    List<Kind<?>> all = new ArrayList<>();
    all.addAll(BuildingKinds.ROWS);
    all.addAll(PasteAndHeatKinds.ROWS);
    all.addAll(MeasuringKinds.ROWS);
    all.addAll(CaptureKinds.ROWS);
    all.addAll(TalkKinds.ROWS);
    all.addAll(FindingKinds.ROWS);
    all.addAll(TraceKinds.ROWS);
    all.addAll(JigKinds.ROWS);
    all.addAll(ProveKinds.ROWS);
    all.addAll(ReviseKinds.ROWS);
    all.addAll(BookKinds.ROWS);
    return List.copyOf(all);
  }

  /// The row of an entry.
  ///
  /// @throws IllegalStateException when its kind has none, which a test rules out
  public static Kind<?> of(Entry entry) {
    Kind<?> k = BY_TYPE.get(entry.getClass());
    if (k == null) {
      throw new IllegalStateException("no row for the kind " + entry.getClass().getSimpleName());
    }
    return k;
  }

  /// The row of a word, empty when no kind has it.
  public static Optional<Kind<?>> named(String word) {
    return Optional.ofNullable(BY_WORD.get(word));
  }
}
