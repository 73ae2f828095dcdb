package ell.cli;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/// Every sheet, given anything within what it says it takes and anything outside of it.
public class CalcContractTest {
  private static JsonNode list() {
    return MainTest.ell("calc", "--json").json().get("sheets");
  }

  @DataProvider
  Object[][] sheets() {
    List<Object[]> out = new ArrayList<>();
    list().forEach(s -> out.add(new Object[] {s.get("name").stringValue(), s}));
    return out.toArray(Object[][]::new);
  }

  private static Set<String> names(JsonNode list) {
    Set<String> out = new HashSet<>();
    list.forEach(x -> out.add(x.get("name").stringValue()));
    return out;
  }

  private static boolean required(JsonNode input) {
    return !input.has("default") && !input.has("optional");
  }

  private static String within(JsonNode input, Random random) {
    if (input.has("choices")) {
      return input.get("choices").get(random.nextInt(input.get("choices").size())).asString();
    }
    double low = input.get("min").doubleValue();
    double high = input.get("max").doubleValue();
    // small and large alike: evenly over the powers of ten
    double from = Math.max(low, Math.min(high, 1e-6) / 10);
    double x =
        low < 0
            ? low + (high - low) * random.nextDouble()
            : from * Math.pow(Math.max(1, high / from), random.nextDouble());
    x = Math.clamp(x, low, high);
    // counts are whole
    boolean count = input.get("unit").stringValue().isEmpty() && high >= 1000;
    return count ? String.valueOf(Math.round(x)) : String.valueOf(x);
  }

  /// Either the sheet is worked, whole and finite, or it says why not; it never stumbles.
  @Test(dataProvider = "sheets")
  public void anythingWithinIsWorkedOrRefusedInWords(String name, JsonNode sheet) {
    Random random = new Random(name.hashCode());
    int worked = 0;
    for (int round = 0; round < 40; round++) {
      List<String> args = new ArrayList<>(List.of("calc", name));
      for (JsonNode i : sheet.get("inputs")) {
        boolean numeric = i.has("min") && i.has("max") || i.has("choices");
        if (numeric && (required(i) || random.nextBoolean())) {
          args.add(i.get("name").stringValue() + "=" + within(i, random));
        }
      }
      args.add("--json");
      MainTest.Ran r = MainTest.ell(args.toArray(String[]::new));
      if (r.code() == 0) {
        worked++;
        JsonNode w = r.json();
        assertEquals(w.get("sheet").stringValue(), name);
        Set<String> told = names(sheet.get("results"));
        w.get("results")
            .propertyNames()
            .forEach(k -> assertTrue(told.contains(k), name + " gives " + k + " unannounced"));
        w.get("results").forEach(v -> finite(args, v));
        assertTrue(w.get("lines").size() > 0, "shows its working");
        w.get("lines").forEach(l -> assertTrue(l.has("unit"), "every line has its unit: " + l));
        assertEquals(w.get("sources"), sheet.get("sources"));
      } else {
        assertEquals(r.code(), 2, args + r.out());
        assertEquals(r.out(), "");
        assertTrue(r.err().startsWith("ell: "), args + r.err());
        assertFalse(r.err().contains("Exception"), args + r.err());
      }
    }
    boolean wordy =
        sheet
            .get("inputs")
            .valueStream()
            .anyMatch(i -> !i.has("min") && !i.has("choices") && !i.has("default"));
    assertTrue(worked > 0 || wordy, name + " can be worked within its own bounds");
  }

  private static void finite(List<String> args, JsonNode v) {
    if (v.isArray() || v.isObject()) {
      v.forEach(x -> finite(args, x));
    } else if (v.isNumber()) {
      assertTrue(Double.isFinite(v.doubleValue()), args + " gives " + v);
    } else {
      assertTrue(v.isString() || v.isBoolean(), args + " gives " + v);
    }
  }

  /// Beyond what a sheet takes, in a wrong unit, or in no number at all: the name of the input and
  /// what was expected stand in the message.
  @Test(dataProvider = "sheets")
  public void anythingOutsideIsRefusedByName(String name, JsonNode sheet) {
    for (JsonNode i : sheet.get("inputs")) {
      if (!i.has("max")) {
        continue;
      }
      String key = i.get("name").stringValue();
      double low = i.get("min").doubleValue();
      double high = i.get("max").doubleValue();
      List<String> wrong =
          new ArrayList<>(
              List.of(
                  String.valueOf(high * 2 + 1),
                  String.valueOf(low - Math.abs(low) - 1),
                  "NaN",
                  "Infinity",
                  "many",
                  "",
                  "1e999",
                  "5furlong"));
      for (String w : wrong) {
        List<String> args = new ArrayList<>(List.of("calc", name, key + "=" + w));
        Random random = new Random(3);
        if (!i.has("optional")) {
          // where one of several ways is asked for, the last one is given
          sheet
              .get("inputs")
              .valueStream()
              .filter(o -> o.has("optional"))
              .reduce((_, last) -> last)
              .ifPresent(o -> args.add(o.get("name").stringValue() + "=" + within(o, random)));
        }
        for (JsonNode other : sheet.get("inputs")) {
          boolean numeric = other.has("min") || other.has("choices");
          if (other != i && numeric && required(other)) {
            args.add(other.get("name").stringValue() + "=" + within(other, random));
          }
        }
        MainTest.Ran r = MainTest.ell(args.toArray(String[]::new));
        assertEquals(r.code(), 2, args + "\n" + r.out());
        assertFalse(r.err().contains("Exception"), args + r.err());
        assertTrue(
            r.err().contains(key)
                || r.err().contains("expected")
                || i.has("optional") && r.err().contains("needs exactly one of"),
            args + r.err());
      }
    }
  }

  /// The same value in other units is the same value.
  @DataProvider
  Object[][] same() {
    return new Object[][] {
      {
        "power.linear",
        "vin=5 vout=3.3 current=0.1 theta=90",
        "vin=5V vout=3V3 current=100mA theta=90"
      },
      {
        "power.linear",
        "vin=5 vout=3.3 current=0.1 theta=90",
        "vin=5000mV vout=3300mV current=0.1A theta=90"
      },
      {"beep.capacitor", "capacitance=1e-6", "capacitance=1u"},
      {"beep.capacitor", "capacitance=4.7e-6", "capacitance=4u7"},
      {"beep.capacitor", "capacitance=1e-7", "capacitance=100nF"},
      {"beep.sheet", "length=0.1 width=0.001", "length=100mm width=1mm"},
      {"beep.sheet", "length=0.0254 width=0.000254", "length=1in width=10mil"},
      {
        "power.inrush",
        "capacitance=1e-4 voltage=12 riseTime=0.005",
        "capacitance=100µF voltage=12V riseTime=5ms"
      },
    };
  }

  @Test(dataProvider = "same")
  public void unitsAreRead(String name, String plain, String dressed) {
    assertEquals(results(name, dressed), results(name, plain));
  }

  private static String results(String name, String args) {
    List<String> all = new ArrayList<>(List.of("calc", name));
    all.addAll(List.of(args.split(" ")));
    all.add("--json");
    MainTest.Ran r = MainTest.ell(all.toArray(String[]::new));
    assertEquals(r.code(), 0, r.err());
    StringBuilder out = new StringBuilder();
    JsonNode results = r.json().get("results");
    for (String k : results.propertyNames()) {
      JsonNode v = results.get(k);
      out.append(k)
          .append('=')
          .append(v.isNumber() ? "%.9e".formatted(v.doubleValue()) : v.toString())
          .append(' ');
    }
    return out.toString();
  }
}
