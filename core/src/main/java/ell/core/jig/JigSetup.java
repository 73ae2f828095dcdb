package ell.core.jig;

import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.SheetProblem;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/// What is taken for granted of a jig and of the work with it: typical, no source, until somebody
/// says otherwise, one by one.
///
/// @param said by name, as it was written
public record JigSetup(Map<String, String> said) {
  /// Everything that can be said, with what is taken until it is.
  public static final List<Input> KNOWN =
      List.of(
          Input.number("thickness", Unit.METRE).in(0.2e-3, 10e-3).or("1.6mm"),
          Input.number("modulus", Unit.PASCAL).in(1e8, 1e12).or("22GPa"),
          Input.number("poisson", Unit.ONE).in(0, 0.49).or("0.15"),
          Input.number("strainLimit", Unit.ONE).in(1e-6, 0.01).or("500e-6"),
          Input.number("bendLimit", Unit.METRE).in(1e-6, 5e-3).or("0.25mm"),
          Input.number("drillError", Unit.METRE).in(0, 1e-3).or("0.05mm"),
          Input.number("holeError", Unit.METRE).in(0, 1e-3).or("0.08mm"),
          Input.number("artworkError", Unit.METRE).in(0, 1e-3).or("0.05mm"),
          Input.number("pinPlay", Unit.METRE).in(0, 1e-3).or("0.05mm"),
          Input.number("guidePlay", Unit.METRE).in(0, 1e-3).or("0.03mm"),
          Input.number("mostMiss", Unit.ONE).in(1e-9, 0.5).or("0.02"),
          Input.number("tall", Unit.METRE).in(0, 50e-3).or("3mm"),
          Input.number("edge", Unit.METRE).in(0, 20e-3).or("0.5mm"),
          Input.number("force2.54", Unit.NEWTON).in(0.05, 10).or("1.5N"),
          Input.number("force1.91", Unit.NEWTON).in(0.05, 10).or("1.2N"),
          Input.number("force1.27", Unit.NEWTON).in(0.05, 10).or("0.8N"),
          Input.number("fingerRadius", Unit.METRE).in(0.2e-3, 10e-3).or("1.5mm"),
          Input.number("fingerRoom", Unit.METRE).in(0, 20e-3).or("0.5mm"),
          Input.number("brittleRoom", Unit.METRE).in(0, 50e-3).or("3mm"),
          Input.whole("mostFingers").in(3, 60).or("16"),
          Input.number("plate", Unit.METRE).in(0, 30e-3).or("0mm"),
          Input.number("plateModulus", Unit.PASCAL).in(1e8, 1e12).or("3GPa"),
          Input.number("plateBend", Unit.METRE).in(1e-6, 5e-3).or("0.1mm"),
          Input.number("hand", Unit.NEWTON).in(1, 500).or("60N"),
          Input.number("lever", Unit.ONE).in(1, 50).or("5"),
          Input.number("probePrice", Unit.MONEY).in(0, 1000).or("1.2"),
          Input.number("platePrice", Unit.MONEY).in(0, 10_000).or("18"),
          Input.number("framePrice", Unit.MONEY).in(0, 100_000).or("60"),
          Input.number("hours", Unit.ONE).in(0, 10_000).or("14"),
          Input.number("hourRate", Unit.MONEY).in(0, 10_000).or("30"),
          Input.number("helperRate", Unit.MONEY).in(0, 10_000).or("16"),
          Input.number("minutesBefore", Unit.ONE).in(0, 10_000).or("5"),
          Input.number("minutesAfter", Unit.ONE).in(0, 10_000).or("1"),
          Input.number("cornerHours", Unit.ONE).in(0, 1000).or("1.5"),
          Input.number("cornerMinutes", Unit.ONE).in(0, 10_000).or("3"),
          Input.number("boardsNow", Unit.ONE).in(0, 1e6).or("25"),
          Input.number("boardsLater", Unit.ONE).in(0, 1e6).or("75"),
          Input.number("escapes", Unit.ONE).in(0, 1).or("0.01"),
          Input.number("escapePrice", Unit.MONEY).in(0, 1e6).or("40"),
          Input.number("spread", Unit.ONE).in(0, 0.9).or("0.3"),
          Input.number("cable", Unit.METRE).in(0, 20).or("0.3m"),
          Input.number("cableFarads", Unit.FARAD).in(0, 1e-6).or("100p"),
          Input.number("wireOhms", Unit.OHM).in(0, 100).or("0.085"),
          Input.whole("signalsPerGround").in(1, 100).or("8"),
          Input.words("fingers", "10,20 30.5,20").or(""),
          Input.words("reach", "tests, power, all, or nets").or("tests"),
          Input.words("targets", "points,holes,pads,vias").or("points,holes,pads,vias"),
          Input.choice(
                  "top", Map.of("1", "yes", "true", "yes", "0", "no", "false", "no"), "yes", "no")
              .or("no"));

  /// No board reaches so far, millimetre.
  private static final double MOST_MM = 2000;

  /// Nothing was said.
  public static final JigSetup TYPICAL = new JigSetup(Map.of());

  public JigSetup {
    said = Collections.unmodifiableMap(new LinkedHashMap<>(said));
    said.forEach((k, v) -> input(k).read(v));
    places(said.getOrDefault("fingers", ""));
  }

  /// Where somebody wants the fingers, `{x, y}` in millimetre; empty when they are chosen.
  public List<double[]> fingers() {
    return places(said.getOrDefault("fingers", ""));
  }

  private static List<double[]> places(String text) {
    List<double[]> all = new ArrayList<>();
    for (String one : text.strip().split("\\s+")) {
      if (one.isEmpty()) {
        continue;
      }
      String[] xy = one.split(",");
      try {
        if (xy.length != 2) {
          throw new NumberFormatException();
        }
        double[] at = {Double.parseDouble(xy[0]), Double.parseDouble(xy[1])};
        if (!(Math.abs(at[0]) < MOST_MM && Math.abs(at[1]) < MOST_MM)) {
          throw new NumberFormatException();
        }
        all.add(at);
      } catch (NumberFormatException e) {
        throw new SheetProblem(
            "fingers are places in millimetre such as 10,20 30.5,20, found '" + one + "'");
      }
    }
    return all;
  }

  private static Input input(String name) {
    return KNOWN.stream()
        .filter(i -> i.name().equalsIgnoreCase(name))
        .findFirst()
        .orElseThrow(() ->
            new SheetProblem(
                "a jig has no '"
                    + name
                    + "'; it has "
                    + KNOWN.stream().map(Input::name).collect(Collectors.joining(", "))));
  }

  /// Reads what was kept.
  public static JigSetup read(Optional<String> text) {
    Map<String, String> said = new LinkedHashMap<>();
    text.ifPresent(t ->
        t.lines()
            .filter(l -> l.contains("="))
            .forEach(
                l -> said.put(l.substring(0, l.indexOf('=')), l.substring(l.indexOf('=') + 1))));
    return new JigSetup(said);
  }

  /// As it is kept, a line each.
  public String text() {
    return said.entrySet().stream()
        .map(e -> e.getKey() + "=" + e.getValue() + "\n")
        .collect(Collectors.joining());
  }

  /// The setup with one thing said, or taken back when nothing stands behind the `=`.
  ///
  /// @param words such as `thickness=1.0mm`
  /// @throws SheetProblem when there is no such thing, or the value is not right
  public JigSetup say(String words) {
    int eq = words.indexOf('=');
    if (eq < 1) {
      throw new SheetProblem(
          "expected what and its value such as thickness=1.0mm, found '" + words + "'");
    }
    Input i = input(words.substring(0, eq).strip());
    String value = words.substring(eq + 1).strip();
    Map<String, String> all = new LinkedHashMap<>(said);
    all.remove(i.name());
    if (!value.isEmpty()) {
      i.read(value);
      all.put(i.name(), value.replace('\n', ' '));
    }
    return new JigSetup(all);
  }

  /// A value, in SI units.
  public double number(String name) {
    Input i = input(name);
    return (Double) i.read(said.getOrDefault(i.name(), i.byDefault().orElseThrow()));
  }

  /// Words.
  public String words(String name) {
    Input i = input(name);
    return (String) i.read(said.getOrDefault(i.name(), i.byDefault().orElseThrow()));
  }

  /// A length in millimetre.
  public double mm(String name) {
    return 1e3 * number(name);
  }

  /// The errors of landing.
  public Landing.Errors errors() {
    return new Landing.Errors(
        mm("drillError"), mm("holeError"), mm("artworkError"), mm("pinPlay"), mm("guidePlay"));
  }

  /// The series, with the forces that were said.
  public List<ProbeSeries> series() {
    return ProbeSeries.TYPICAL.stream().map(s -> s.pressing(number("force" + s.name()))).toList();
  }
}
