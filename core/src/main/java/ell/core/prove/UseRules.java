package ell.core.prove;

import ell.core.trace.Remedy;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/// What a board must have before it is used, as somebody said it of the revision. What is not said
/// is usual practice, no source.
///
/// @param uses what may hurt when it fails: `flies`, `heats`, `charges`, `moves`
/// @param heats the most heat cycles that a part may have
/// @param confidence with which a fault that comes and goes must be gone, above 0 and below 1
/// @param proofs clean proofs in a row since the board was last changed
/// @param lot when a lot of boards is accepted or rejected
public record UseRules(Set<String> uses, int heats, double confidence, int proofs, Sequential lot) {
  /// Uses in which a board that fails may hurt somebody.
  public static final List<String> USES = List.of("flies", "heats", "charges", "moves");

  /// One board in twenty may fail at first, one in four may not; typical, no source.
  private static final Sequential LOT = new Sequential(0.05, 0.25, 0.05, 0.1);

  /// Nothing is said.
  public static final UseRules USUAL = new UseRules(Set.of(), Remedy.MOST_HEATS, 0, 0, LOT);

  private static final double CONFIDENCE = 0.95;
  private static final double SURER = 0.99;
  private static final int MORE_PROOFS = 3;

  public UseRules {
    uses = java.util.Collections.unmodifiableSet(new LinkedHashSet<>(uses));
  }

  /// Whether a board that fails may hurt somebody.
  public boolean mayHurt() {
    return !uses.isEmpty();
  }

  /// Whether it leaves the ground or moves: nobody is there to switch it off.
  public boolean away() {
    return uses.contains("flies") || uses.contains("moves");
  }

  /// The confidence that holds.
  public double sure() {
    return confidence > 0 ? confidence : mayHurt() ? SURER : CONFIDENCE;
  }

  /// The clean proofs in a row that hold.
  public int clean() {
    return proofs > 0 ? proofs : away() ? MORE_PROOFS : 1;
  }

  /// The same with one more thing said, such as `use=flies,charges`; nothing behind the `=` takes
  /// it back.
  ///
  /// @throws IllegalArgumentException when it cannot be understood
  public UseRules say(String words) {
    int eq = words.indexOf('=');
    String key = eq < 0 ? words.strip() : words.substring(0, eq).strip().toLowerCase(Locale.ROOT);
    String is = eq < 0 ? "" : words.substring(eq + 1).strip();
    if (eq < 0) {
      throw new IllegalArgumentException(
          "expected use=, heats=, confidence=, proofs= or lot=, found '" + words + "'");
    }
    return switch (key) {
      case "use" -> new UseRules(uses(is), heats, confidence, proofs, lot);
      case "heats" ->
          new UseRules(
              uses, is.isEmpty() ? Remedy.MOST_HEATS : whole(is, 1, 99), confidence, proofs, lot);
      case "confidence" -> new UseRules(uses, heats, is.isEmpty() ? 0 : share(is), proofs, lot);
      case "proofs" ->
          new UseRules(uses, heats, confidence, is.isEmpty() ? 0 : whole(is, 1, 1000), lot);
      case "lot" -> new UseRules(uses, heats, confidence, proofs, is.isEmpty() ? LOT : lot(is));
      default ->
          throw new IllegalArgumentException(
              "nothing is said of '"
                  + key
                  + "'; expected use=, heats=, confidence=, proofs= or lot=");
    };
  }

  /// Everything that is said, a line each, as [#read] reads it.
  public String text() {
    StringBuilder s = new StringBuilder();
    if (!uses.isEmpty()) {
      s.append("use=").append(String.join(",", uses)).append('\n');
    }
    if (heats != Remedy.MOST_HEATS) {
      s.append("heats=").append(heats).append('\n');
    }
    if (confidence > 0) {
      s.append("confidence=").append(confidence).append('\n');
    }
    if (proofs > 0) {
      s.append("proofs=").append(proofs).append('\n');
    }
    if (!lot.equals(LOT)) {
      s.append("lot=").append(lot.good()).append(',').append(lot.bad()).append('\n');
    }
    return s.toString();
  }

  /// Reads what was said.
  ///
  /// @throws IllegalArgumentException when a line cannot be understood
  public static UseRules read(String text) {
    UseRules r = USUAL;
    for (String l : text.lines().toList()) {
      if (!l.isBlank()) {
        r = r.say(l);
      }
    }
    return r;
  }

  private static Set<String> uses(String words) {
    Set<String> all = new LinkedHashSet<>();
    for (String w : words.toLowerCase(Locale.ROOT).split("[,\\s]+")) {
      if (!w.isEmpty() && !USES.contains(w)) {
        throw new IllegalArgumentException("a use is one of " + USES + ", found '" + w + "'");
      }
      if (!w.isEmpty()) {
        all.add(w);
      }
    }
    return all;
  }

  private static int whole(String text, int least, int most) {
    if (!text.matches("\\d{1,4}")
        || Integer.parseInt(text) < least
        || Integer.parseInt(text) > most) {
      throw new IllegalArgumentException(
          "a whole number in " + least + "..." + most + ", found '" + text + "'");
    }
    return Integer.parseInt(text);
  }

  private static Sequential lot(String text) {
    String[] two = text.split("[,;]");
    if (two.length != 2) {
      throw new IllegalArgumentException(
          "lot= takes the rate of failure to accept and the one to reject, such as 0.05,0.25, found '"
              + text
              + "'");
    }
    return new Sequential(share(two[0].strip()), share(two[1].strip()), LOT.alpha(), LOT.beta());
  }

  private static double share(String text) {
    try {
      double d =
          text.endsWith("%")
              ? Double.parseDouble(text.substring(0, text.length() - 1).strip()) / 100
              : Double.parseDouble(text);
      if (d > 0 && d < 1) {
        return d;
      }
    } catch (NumberFormatException e) {
      // said below
    }
    throw new IllegalArgumentException("a share is above 0 and below 1, found '" + text + "'");
  }
}
