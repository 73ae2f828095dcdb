package ell.core.kit.substitute;

import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// What is known of a part, as it was written.
///
/// @param values by trait
public record Traits(Map<Trait, String> values) {
  private static final Pattern DIELECTRIC =
      Pattern.compile("(?i)\\b(C0G|NP0|NPO|X[5678][RST]|Y5V|Z5U|X6S)\\b");
  private static final Pattern CHIP =
      Pattern.compile("(?:^|[^0-9.])(0201|0402|0603|0805|1206|1210|2010|2512)(?:[^0-9.]|$)");
  private static final Pattern PERCENT = Pattern.compile("(\\d+(?:[.,]\\d+)?)\\s*%");
  private static final Pattern PPM = Pattern.compile("(?i)(\\d+(?:[.,]\\d+)?)\\s*ppm");
  private static final Pattern VOLTS = Pattern.compile("(?i)(\\d+(?:[.,]\\d+)?)\\s*V\\b");
  private static final Pattern WATTS =
      Pattern.compile("(?i)(\\d+(?:[.,]\\d+)?\\s*m?|1/\\d+\\s*)W\\b");
  private static final Pattern AMPS = Pattern.compile("(\\d+(?:[.,]\\d+)?\\s*m?)A\\b");
  private static final Pattern PICO = Pattern.compile("(\\d+(?:[.,]\\d+)?)\\s*pF?\\b");

  public Traits {
    values = Map.copyOf(values);
  }

  /// From parameters by name; names that are no trait are left out.
  public static Traits of(Map<String, String> parameters, Template template) {
    Map<Trait, String> found = new EnumMap<>(Trait.class);
    for (Trait t : template.traits()) {
      parameters.forEach((name, value) -> {
        if (t.named(name) && !value.isBlank()) {
          found.putIfAbsent(t, value.strip());
        }
      });
    }
    return new Traits(found);
  }

  /// From free words such as `100n 50 V X7R 0603 10 %`, as a bill writes them.
  ///
  /// @param words value and description
  /// @param outline the package, empty when the words say it or nothing does
  public static Traits ofWords(String words, String outline, Template template) {
    Map<Trait, String> found = new LinkedHashMap<>();
    if (!outline.isBlank()) {
      found.put(Trait.OUTLINE, outline.strip());
    } else {
      first(CHIP, words).ifPresent(c -> found.put(Trait.OUTLINE, c));
    }
    first(PERCENT, words).ifPresent(p -> found.put(Trait.TOLERANCE, p + " %"));
    first(PPM, words).ifPresent(p -> found.put(Trait.TOLERANCE, p + " ppm"));
    first(DIELECTRIC, words).ifPresent(d -> found.put(Trait.DIELECTRIC, d));
    switch (template) {
      case CAPACITOR -> first(VOLTS, words).ifPresent(v -> found.put(Trait.VOLTAGE, v + " V"));
      case RESISTOR -> first(WATTS, words).ifPresent(w -> found.put(Trait.POWER, watts(w)));
      case CRYSTAL ->
          first(PICO, words).ifPresent(p -> found.put(Trait.LOAD_CAPACITANCE, p + " pF"));
      case DIODE -> {
        if (words.toLowerCase(Locale.ROOT).contains("schottky")) {
          found.put(Trait.TYPE, "schottky");
        } else if (words.toLowerCase(Locale.ROOT).contains("zener")) {
          found.put(Trait.TYPE, "zener");
        }
      }
      case REGULATOR -> {
        first(VOLTS, words).ifPresent(v -> found.put(Trait.OUTPUT_VOLTAGE, v + " V"));
        first(AMPS, words).ifPresent(a -> found.put(Trait.CURRENT, a + "A"));
      }
      default -> {}
    }
    template
        .mainTrait()
        .flatMap(t -> main(t, words))
        .ifPresent(v -> found.put(template.mainTrait().orElseThrow(), v));
    found.keySet().removeIf(t -> !template.traits().contains(t));
    return new Traits(found);
  }

  /// The main value: a word with its unit behind a blank, else a word that reads as one; four
  /// digits are a size of chip.
  private static Optional<String> main(Trait t, String words) {
    String[] all = words.strip().split("[\\s/;,]+");
    for (int i = 0; i < all.length; i++) {
      String pair =
          i + 1 < all.length && all[i + 1].matches("[^\\d.,].*") ? all[i] + " " + all[i + 1] : "";
      if (!pair.isEmpty() && t.read(pair).isPresent()) {
        return Optional.of(pair);
      }
      if (!all[i].matches("\\d{4}") && t.read(all[i]).isPresent()) {
        return Optional.of(all[i]);
      }
    }
    return Optional.empty();
  }

  private static String watts(String text) {
    String t = text.strip();
    return t.startsWith("1/") ? 1.0 / Double.parseDouble(t.substring(2).strip()) + " W" : t + "W";
  }

  private static Optional<String> first(Pattern p, String text) {
    Matcher m = p.matcher(text);
    return m.find() ? Optional.of(m.group(1)) : Optional.empty();
  }

  /// These, and others where these say nothing.
  public Traits or(Traits others) {
    Map<Trait, String> all = new LinkedHashMap<>(others.values);
    all.putAll(values);
    return new Traits(all);
  }

  /// The words of a trait.
  public Optional<String> text(Trait t) {
    return Optional.ofNullable(values.get(t));
  }

  /// The number of a trait, in its unit.
  public Optional<Double> number(Trait t) {
    return text(t).flatMap(t::read);
  }
}
