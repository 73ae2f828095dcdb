package ell.core.heat;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/// Solder alloys with their melting range. Source: J-STD-006 alloys, values from memory.
public enum Alloy {
  /// Sn63Pb37, eutectic, leaded.
  SN63PB37("sn63pb37", 183, 183, 8400),
  /// Sn60Pb40, leaded.
  SN60PB40("sn60pb40", 183, 190, 8500),
  /// Sn62Pb36Ag2, leaded.
  SN62PB36AG2("sn62pb36ag2", 179, 179, 8410),
  /// Sn96.5Ag3Cu0.5.
  SAC305("sac305", 217, 220, 7400),
  /// Sn96.5Ag3.5, eutectic.
  SN96AG4("sn96.5ag3.5", 221, 221, 7360),
  /// Sn99.3Cu0.7, eutectic.
  SN99CU1("sn99.3cu0.7", 227, 227, 7310),
  /// Sn42Bi58, eutectic, low melting.
  SN42BI58("sn42bi58", 138, 138, 8560),
  /// Sn42Bi57Ag1, low melting.
  SN42BI57AG1("sn42bi57ag1", 137, 139, 8570),
  /// In52Sn48, eutectic, very low melting.
  IN52SN48("in52sn48", 118, 118, 7300);

  private final String key;
  private final double solidus;
  private final double liquidus;
  private final double density;

  Alloy(String key, double solidus, double liquidus, double density) {
    this.key = key;
    this.solidus = solidus;
    this.liquidus = liquidus;
    this.density = density;
  }

  /// The alloy as a key in files and on the command line.
  public String key() {
    return key;
  }

  /// Where it begins to melt, degree Celsius.
  public double solidus() {
    return solidus;
  }

  /// Where it is all molten, degree Celsius.
  public double liquidus() {
    return liquidus;
  }

  /// Density in kg/m³; from memory of handbook tables.
  public double density() {
    return density;
  }

  /// Whether there is lead in it.
  public boolean leaded() {
    return key.contains("pb");
  }

  /// The keys of all alloys.
  public static List<String> keys() {
    return Arrays.stream(values()).map(Alloy::key).toList();
  }

  /// The alloy with this key; `snpb`, `sac` and `snbi` stand for the common ones.
  ///
  /// @throws IllegalArgumentException when there is none, listing what there is
  public static Alloy of(String key) {
    String k = key.strip().toLowerCase(Locale.ROOT);
    String known =
        switch (k) {
          case "snpb", "leaded" -> "sn63pb37";
          case "sac", "lead-free" -> "sac305";
          case "snbi" -> "sn42bi58";
          default -> k;
        };
    return Arrays.stream(values())
        .filter(a -> a.key.equals(known))
        .findFirst()
        .orElseThrow(() ->
            new IllegalArgumentException(
                "an alloy is one of " + String.join(", ", keys()) + ", got '" + key + "'"));
  }
}
