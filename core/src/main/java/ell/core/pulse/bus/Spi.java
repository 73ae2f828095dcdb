package ell.core.pulse.bus;

import ell.core.pulse.bus.Decoded.Item;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;

/// A bus of a clock, data out and in, and a select line that is low while a part is spoken to.
///
/// @param mode 0...3: whether the clock rests high (2, 3), and whether data are taken at its second
///   edge (1, 3)
/// @param bits of a word, 4...32
public record Spi(int mode, int bits) {
  private static final double PAUSE = 3;

  /// @throws IllegalArgumentException when a value is out of its range
  public Spi {
    if (mode < 0 || mode > 3 || bits < 4 || bits > 32) {
      throw new IllegalArgumentException(
          "modes are 0 to 3 and words of 4 to 32 bits, got " + mode + " and " + bits);
    }
  }

  /// Whether data are taken at the rising edge of the clock.
  private boolean atRising() {
    return mode == 0 || mode == 3;
  }

  /// Decodes a bus.
  ///
  /// @param select low while it is spoken to; where there is none, words end at pauses of the clock
  /// @param data lines by the name that their words carry
  public Decoded decode(Levels clock, Optional<Levels> select, Map<String, Levels> data) {
    List<Item> all = new ArrayList<>();
    List<String> told = new ArrayList<>();
    if (select.isEmpty()) {
      told.add("no select line: words begin behind pauses of the clock");
    }
    select.ifPresent(s -> selects(s, all));
    double usual = usual(clock);
    int[] words = new int[data.size()];
    int taken = 0;
    double began = 0;
    double before = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < clock.count(); i++) {
      if (clock.highAfter(i) != atRising()) {
        continue;
      }
      double t = clock.when(i);
      boolean spoken = select.map(s -> !s.highAt(t)).orElse(true);
      boolean fresh =
          select.isPresent()
              ? spoken && select.get().firstFrom(before) != select.get().firstFrom(t)
              : t - before > PAUSE * usual;
      if (fresh || !spoken) {
        cut(all, data, began, before, taken);
        taken = 0;
        Arrays.fill(words, 0);
      }
      before = t;
      if (!spoken) {
        continue;
      }
      began = taken == 0 ? t : began;
      int k = 0;
      for (Levels line : data.values()) {
        words[k] = words[k] << 1 | (line.highAt(t) ? 1 : 0);
        k++;
      }
      if (++taken == bits) {
        k = 0;
        for (String name : data.keySet()) {
          all.add(new Item(began, t, "byte", name, OptionalInt.of(words[k]), ""));
          k++;
        }
        taken = 0;
        Arrays.fill(words, 0);
      }
    }
    cut(all, data, began, before, taken);
    all.sort(java.util.Comparator.comparingDouble(Item::at));
    if (clock.count() == 0) {
      told.add("the clock does not move");
    }
    return new Decoded(all, told);
  }

  private void cut(List<Item> all, Map<String, Levels> data, double began, double at, int taken) {
    if (taken > 0) {
      all.add(
          new Item(
              began,
              at,
              "cut",
              "",
              OptionalInt.empty(),
              "a word ends after " + taken + " of " + bits + " bits"));
    }
  }

  private static void selects(Levels s, List<Item> all) {
    for (int i = 0; i < s.count(); i++) {
      all.add(
          new Item(
              s.when(i),
              s.when(i),
              s.highAfter(i) ? "release" : "select",
              "",
              OptionalInt.empty(),
              ""));
    }
  }

  private double usual(Levels clock) {
    double[] gaps = new double[Math.max(0, clock.count() - 2)];
    Arrays.setAll(gaps, i -> clock.when(i + 2) - clock.when(i));
    Arrays.sort(gaps);
    return gaps.length == 0 ? 0 : gaps[gaps.length / 2];
  }
}
