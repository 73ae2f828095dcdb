package ell.core.heat;

import ell.core.json.JsonObject;
import ell.core.quantity.Check;
import ell.core.quantity.Limits;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// What a profile should keep to. The ones that ship are upper bounds for parts and typical for
/// pastes; the paste's own data sheet decides.
///
/// @param name short, as on the command line
/// @param title in words
/// @param soakFrom where the soak begins, degree Celsius
/// @param soakTo where it ends
/// @param above time is counted above this: the liquidus as the source rounds it
/// @param limits by statistic: low and high in the statistic's unit, either may be missing
/// @param source where they are from
public record ProfileWindow(
    String name,
    String title,
    double soakFrom,
    double soakTo,
    double above,
    Map<ProfileStatistic, Limits> limits,
    String source) {
  private static final String J_STD = "J-STD-020 classification reflow, from memory";

  /// Leaded.
  public static final ProfileWindow SNPB =
      new ProfileWindow(
          "snpb",
          "leaded, Sn63Pb37",
          100,
          150,
          183,
          of(3, 60, 120, 60, 150, 205, 225, 6, 360),
          J_STD + "; peak 205...225 °C typical");

  /// Lead-free.
  public static final ProfileWindow SAC305 =
      new ProfileWindow(
          "sac305",
          "lead-free, SAC305",
          150,
          200,
          217,
          of(3, 60, 120, 60, 150, 235, 250, 6, 480),
          J_STD + "; peak 235...250 °C typical");

  /// Low melting.
  public static final ProfileWindow SNBI =
      new ProfileWindow(
          "snbi",
          "low melting, Sn42Bi58",
          90,
          120,
          138,
          of(3, 60, 120, 60, 90, 155, 180, 6, 360),
          "typical of low melting pastes, no source; ramps as J-STD-020, from memory");

  public ProfileWindow {
    Check.inRange(soakFrom, 0, 400, "soakFrom");
    Check.inRange(soakTo, 0, 400, "soakTo");
    Check.inRange(above, 0, 400, "above");
    if (soakTo <= soakFrom) {
      throw new IllegalArgumentException(
          "soakTo must be above soakFrom, got " + soakFrom + "..." + soakTo);
    }
    limits = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(limits));
  }

  private static Map<ProfileStatistic, Limits> of(
      double ramp,
      double soakLow,
      double soakHigh,
      double aboveLow,
      double aboveHigh,
      double peakLow,
      double peakHigh,
      double cooling,
      double toPeak) {
    Map<ProfileStatistic, Limits> m = new LinkedHashMap<>();
    m.put(ProfileStatistic.RAMP_UP, new Limits(0, ramp));
    m.put(ProfileStatistic.SOAK_TIME, new Limits(soakLow, soakHigh));
    m.put(ProfileStatistic.TIME_ABOVE, new Limits(aboveLow, aboveHigh));
    m.put(ProfileStatistic.PEAK, new Limits(peakLow, peakHigh));
    m.put(ProfileStatistic.RAMP_DOWN, new Limits(0, cooling));
    m.put(ProfileStatistic.TIME_TO_PEAK, new Limits(0, toPeak));
    return m;
  }

  /// The windows that ship.
  public static List<ProfileWindow> shipped() {
    return List.of(SNPB, SAC305, SNBI);
  }

  /// The shipped window of a name; alloys and their short words mean theirs.
  ///
  /// @throws IllegalArgumentException when there is none, listing what there is
  public static ProfileWindow of(String name) {
    String n = name.strip().toLowerCase(Locale.ROOT);
    return switch (n) {
      case "sac", "lead-free", "leadfree", "sac305" -> SAC305;
      case "snpb", "leaded", "sn63pb37", "sn60pb40", "sn62pb36ag2" -> SNPB;
      case "snbi", "sn42bi58", "sn42bi57ag1", "low" -> SNBI;
      default ->
          throw new IllegalArgumentException(
              "a window is "
                  + String.join(", ", shipped().stream().map(ProfileWindow::name).toList())
                  + " or a JSON file of your own, found '"
                  + name
                  + "'");
    };
  }

  /// The window by which boards of an alloy are soldered; a tin-copper or tin-silver alloy goes by
  /// the lead-free one.
  public static ProfileWindow of(Alloy alloy) {
    return alloy.leaded() ? SNPB : alloy.liquidus() < 150 ? SNBI : SAC305;
  }

  /// Reads a window of one's own.
  ///
  /// ```
  /// {"name":"mine","title":"...","soakFrom":150,"soakTo":200,"above":217,"source":"data sheet",
  ///  "limits":{"peak":{"low":235,"high":250},"rampUp":{"high":3}}}
  /// ```
  ///
  /// @throws IllegalArgumentException naming the key that is not as expected
  public static ProfileWindow read(String json) {
    JsonObject o = JsonObject.parse(json, "a profile window");
    Map<ProfileStatistic, Limits> limits = new LinkedHashMap<>();
    JsonObject all = o.object("limits");
    for (String key : all.keys()) {
      ProfileStatistic s =
          ProfileStatistic.of(key)
              .orElseThrow(() ->
                  all.wrong(
                      key,
                      "one of "
                          + String.join(
                              ", ",
                              Arrays.stream(ProfileStatistic.values())
                                  .map(ProfileStatistic::key)
                                  .toList())));
      JsonObject l = all.object(key);
      limits.put(
          s,
          new Limits(
              l.number("low", s.zeroBased() && l.has("high") ? 0 : Double.NEGATIVE_INFINITY),
              l.number("high", Double.POSITIVE_INFINITY)));
    }
    if (limits.isEmpty()) {
      throw all.wrong("limits", "at least one statistic with low or high");
    }
    return new ProfileWindow(
        o.text("name"),
        o.text("title", o.text("name")),
        o.number("soakFrom"),
        o.number("soakTo"),
        o.number("above"),
        limits,
        o.text("source", "as it was typed in"));
  }

  /// Writes it, so that it can be edited.
  public String write() {
    StringBuilder s = new StringBuilder("{\n");
    s.append(
        String.format(Locale.ROOT, "  \"name\": \"%s\",%n  \"title\": \"%s\",%n", name, title));
    s.append(
        String.format(
            Locale.ROOT,
            "  \"soakFrom\": %s,%n  \"soakTo\": %s,%n  \"above\": %s,%n  \"limits\": {%n",
            soakFrom,
            soakTo,
            above));
    int left = limits.size();
    for (Map.Entry<ProfileStatistic, Limits> e : limits.entrySet()) {
      StringBuilder l = new StringBuilder();
      if (Double.isFinite(e.getValue().low())) {
        l.append("\"low\": ").append(e.getValue().low());
      }
      if (Double.isFinite(e.getValue().high())) {
        l.append(l.isEmpty() ? "" : ", ").append("\"high\": ").append(e.getValue().high());
      }
      s.append("    \"").append(e.getKey().key()).append("\": {").append(l).append("}");
      s.append(--left > 0 ? ",\n" : "\n");
    }
    return s.append("  },\n  \"source\": \"").append(source).append("\"\n}\n").toString();
  }
}
