package ell.core.entry;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.lang.reflect.RecordComponent;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.SequencedMap;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Every kind of entry has exactly one row, and a row writes what it reads: entries of every kind,
/// made of any values, come back as they were.
public class KindsTest {
  @Test
  public void everyKindHasOneRow() {
    Set<Class<?>> rows = new HashSet<>();
    Set<String> words = new HashSet<>();
    for (Kind<?> k : Kinds.ALL) {
      assertTrue(rows.add(k.type()), k.type() + " has two rows");
      assertTrue(words.add(k.word()), k.word() + " names two kinds");
    }
    assertEquals(rows, Set.of(Entry.class.getPermittedSubclasses()));
  }

  @DataProvider
  Object[][] kinds() {
    return Kinds.ALL.stream().map(k -> new Object[] {k}).toArray(Object[][]::new);
  }

  @Test(dataProvider = "kinds")
  public void whatIsWrittenIsRead(Kind<?> kind) throws Exception {
    Random random = new Random(kind.word().hashCode());
    for (int i = 0; i < 60; i++) {
      Entry e = (Entry) any(kind.type(), random);
      String text = EntryJson.write(e);
      assertEquals(EntryJson.read(text), e, text);
      assertEquals(EntryJson.write(EntryJson.read(text)), text, "the hash covers every letter");
      assertEquals(EntryJson.kind(e), kind.word());
      assertFalse(EntryWords.of(e).isBlank(), "it can be told: " + text);
      assertFalse(EntryWords.of(e).contains("null"), EntryWords.of(e));
      assertEquals(text.lines().count(), 1, "on one line");
    }
  }

  @Test
  public void aWordThatNobodyKnowsIsToldApart() {
    assertTrue(Kinds.named("tide").isEmpty());
    IllegalArgumentException e =
        expectThrows(
            IllegalArgumentException.class, () -> EntryJson.read("{\"v\":1,\"kind\":\"tide\"}"));
    assertEquals(e.getMessage(), "unknown kind of entry 'tide'");
  }

  /// A record with values at random, by the types of its components.
  private static Object any(Class<?> type, Random r) throws Exception {
    RecordComponent[] parts = type.getRecordComponents();
    Object[] values = new Object[parts.length];
    for (int i = 0; i < parts.length; i++) {
      values[i] = value(type, parts[i], r);
    }
    Class<?>[] types = Arrays.stream(parts).map(RecordComponent::getType).toArray(Class<?>[]::new);
    return type.getConstructor(types).newInstance(values);
  }

  private static Object value(Class<?> of, RecordComponent c, Random r) throws Exception {
    Class<?> t = c.getType();
    String generic = c.getGenericType().getTypeName();
    if (t == String.class) {
      return words(r);
    } else if (t == int.class) {
      return 1 + r.nextInt(1000);
    } else if (t == long.class) {
      return (long) r.nextInt(1_000_000);
    } else if (t == boolean.class) {
      return r.nextBoolean();
    } else if (t == double.class) {
      return number(of, c.getName(), r);
    } else if (t == Limits.class) {
      return limits(r);
    } else if (t == Verdict.class) {
      return pick(Verdict.values(), r);
    } else if (t == Unit.class) {
      // money has no symbol of its own, and nobody measures it
      return pick(
          Arrays.stream(Unit.values()).filter(u -> u != Unit.MONEY).toArray(Unit[]::new), r);
    } else if (t.isEnum()) {
      return pick(t.getEnumConstants(), r);
    } else if (t == Entry.Capture.Outline.class) {
      return new Entry.Capture.Outline(
          -1e-6, 2e-9, List.of(0.0, 0.1), List.of(3.3, r.nextInt(5) + 0.5));
    } else if (t == List.class && generic.contains("Measure")) {
      return List.of(
          new Entry.Capture.Measure(
              "rise",
              r.nextInt(100) * 1e-9,
              Unit.SECOND,
              1e-10,
              Optional.of(Limits.atMost(2e-8)),
              Optional.of(Verdict.WITHIN)));
    } else if (t == List.class && generic.contains("Talk$Step")) {
      return List.of(
          new Entry.Talk.Step(
              1, words(r), words(r), words(r), r.nextInt(100) / 8.0, pick(Verdict.values(), r)));
    } else if (t == List.class && generic.contains("Curve")) {
      return List.of(
          new Entry.HeatRun.Curve(
              "board", 1 + r.nextInt(4), List.of(20.5, 31.0, r.nextInt(250) + 0.5)));
    } else if (t == List.class && generic.contains("Long")) {
      return List.of((long) r.nextInt(100_000), 7L);
    } else if (t == List.class) {
      List<String> all = new ArrayList<>();
      for (int i = r.nextInt(9); i >= 0; i--) {
        all.add(words(r));
      }
      return all;
    } else if (t == SequencedMap.class) {
      SequencedMap<String, Double> all = new LinkedHashMap<>();
      for (int i = r.nextInt(4); i >= 0; i--) {
        all.put("n" + i, r.nextInt(1000) / 8.0);
      }
      return all;
    } else if (t == Optional.class) {
      return r.nextBoolean() ? Optional.empty() : Optional.of(some(generic, r));
    }
    throw new AssertionError("the test knows no values for " + c);
  }

  private static Object some(String generic, Random r) {
    return generic.contains("Limits")
        ? limits(r)
        : generic.contains("Verdict")
            ? pick(Verdict.values(), r)
            : generic.contains("LocalDate")
                ? LocalDate.of(2026, 1 + r.nextInt(12), 1 + r.nextInt(28))
                : (Object) (r.nextInt(100000) / 1000.0);
  }

  /// Ohms may be an open loop, and a window index may not be told; everything else is a number.
  private static double number(Class<?> of, String name, Random r) {
    if (name.equals("ohms") && r.nextInt(3) == 0) {
      return Double.POSITIVE_INFINITY;
    }
    if (name.equals("pwi") && r.nextInt(3) == 0) {
      return Double.NaN;
    }
    boolean optional = of == Entry.StepDone.class && name.equals("seconds");
    return optional && r.nextBoolean()
        ? 0
        : Math.abs(r.nextGaussian()) * Math.pow(10, r.nextInt(9) - 4);
  }

  private static Limits limits(Random r) {
    double low = r.nextInt(1000) / 10.0;
    double high = low + 1 + r.nextInt(50);
    return switch (r.nextInt(3)) {
      case 0 -> new Limits(low, Double.POSITIVE_INFINITY);
      case 1 -> new Limits(Double.NEGATIVE_INFINITY, high);
      default -> new Limits(low, high);
    };
  }

  private static <T> T pick(T[] from, Random r) {
    return from[r.nextInt(from.length)];
  }

  private static String words(Random r) {
    String[] some = {
      "U4.7",
      "it's \"so\"",
      "größer, als µΩ 漢字",
      "line\nbreak",
      "tab\there",
      "3V3",
      "back\\slash",
      "a"
    };
    return some[r.nextInt(some.length)];
  }
}
