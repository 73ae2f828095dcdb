package ell.core.look;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/// What can be wrong with a joint or a part: what causes it, what to do, and whether that heats it
/// once more. Common practice, no source.
public enum DefectKind {
  /// Joined with a neighbour.
  BRIDGE(
      "bridge",
      "J",
      "solder joins what should be apart",
      true,
      List.of(
          "too much paste, or the foil not wiped",
          "part pressed too deep",
          "paste slumped: old or warm"),
      "flux, then the iron drawn along the pins, or braid",
      "touched-up",
      true),
  /// Too little solder.
  STARVED(
      "starved",
      "T",
      "too little solder",
      true,
      List.of(
          "opening too small or clogged", "foil lifted at a slant", "solder drawn away down a via"),
      "flux and a little wire",
      "touched-up",
      true),
  /// Solder that has not wetted.
  BALL(
      "ball",
      "U",
      "a ball that has not wetted the pad or the pin",
      true,
      List.of("pad or lead oxidised", "iron on one of the two only", "too cold, too short"),
      "flux, heat both, feed wire to the joint and not to the tip",
      "resoldered",
      true),
  /// Cold or moved.
  COLD(
      "cold",
      "C",
      "dull, grainy or cracked: too cold, or moved while it set",
      true,
      List.of("too little heat on much copper", "moved before it was solid"),
      "flux and melt it again without touching",
      "resoldered",
      true),
  /// Open, or a lifted lead.
  OPEN(
      "open",
      "O",
      "the lead does not touch its solder",
      true,
      List.of("lead bent up", "board or part warped", "no paste on the pad"),
      "press the lead down, flux, iron",
      "resoldered",
      true),
  /// A chip on one end.
  STANDING(
      "standing",
      "S",
      "a chip stands on one end",
      false,
      List.of("one pad wets first: more copper or more paste there", "part placed off its pads"),
      "melt both ends and lay it down",
      "resoldered",
      true),
  /// Off its pads.
  SHIFTED(
      "shifted",
      "K",
      "off its pads",
      false,
      List.of("placed askew", "blown by the hot air", "board knocked while wet"),
      "melt all of it and push it straight",
      "reflowed",
      true),
  /// The wrong way round.
  TURNED(
      "turned",
      "P",
      "the part sits the wrong way round",
      false,
      List.of("mark misread", "drawing seen from the other side"),
      "take it off, look whether it lived, fit a new one",
      "replaced",
      true),
  /// Another part.
  WRONG(
      "wrong",
      "W",
      "another part than the bill names",
      false,
      List.of("neighbouring bin or reel", "value misread"),
      "replace it, and count the others of that bin",
      "replaced",
      true),
  /// Not there.
  MISSING(
      "missing",
      "M",
      "the part is not there",
      false,
      List.of("never placed", "blown away", "stuck to the tweezers"),
      "fit it",
      "fitted",
      true),
  /// Loose balls of solder.
  BEADS(
      "beads",
      "D",
      "balls of solder beside the joint",
      true,
      List.of("wet paste: opened cold", "paste under the body of a chip", "heated too fast"),
      "brush them off, look beneath the part",
      "cleaned",
      false),
  /// A void that cannot be seen.
  VOID(
      "void",
      "V",
      "a void is suspected under a pad",
      true,
      List.of("flux caught under a large pad", "soak too short"),
      "melt it again with a longer soak, or let it be and measure its heat",
      "reflowed",
      true),
  /// A pad or lead has come off.
  LIFTED(
      "lifted",
      "I",
      "a pad has come off the board",
      true,
      List.of("iron too hot or too long", "heated too often", "pulled while solid"),
      "wire from the lead to the next point of the net",
      "wired",
      true),
  /// Broken.
  CRACKED(
      "cracked",
      "X",
      "the body is broken",
      false,
      List.of("board bent after soldering", "iron on the body", "cooled too fast"),
      "replace it",
      "replaced",
      true),
  /// It smelled or smoked.
  BURNT(
      "burnt",
      "H",
      "it smelled or smoked",
      false,
      List.of("turned, or a short behind it", "hot air too long"),
      "find the cause first, then replace it",
      "replaced",
      true),
  /// Flux or dirt.
  DIRTY(
      "dirty",
      "Y",
      "flux or dirt left",
      true,
      List.of("flux not washed away", "handled without gloves"),
      "alcohol and a brush",
      "cleaned",
      false),
  /// The wire does not go through.
  THICK(
      "thick",
      "Z",
      "the wire is too thick for its hole",
      true,
      List.of("hole drilled for another lead", "stranded or tinned wire is fatter"),
      "lay it flat on a tinned pad",
      "resoldered",
      true),
  /// Joined to a rail or to ground.
  SHORT(
      "short",
      "",
      "joined to a rail or to ground",
      true,
      List.of("bridge out of sight", "part broken inside"),
      "find it before any power",
      "cleared",
      false),
  /// More than enough.
  EXCESS(
      "excess",
      "",
      "too much solder",
      true,
      List.of("too much wire or paste"),
      "draw it off with braid",
      "touched-up",
      true),
  /// It does nothing.
  DEAD(
      "dead",
      "",
      "it does nothing",
      false,
      List.of("no supply at its pins", "killed by static or heat"),
      "measure its supply, then replace it",
      "replaced",
      true),
  /// Hotter than it should be.
  HOT(
      "hot",
      "",
      "hotter than it should be",
      false,
      List.of("a load that is too heavy", "turned or broken"),
      "off, find what it feeds",
      "checked",
      false);

  private final String word;
  private final String letter;
  private final String meaning;
  private final boolean joint;
  private final List<String> causes;
  private final String remedy;
  private final String action;
  private final boolean heats;

  DefectKind(
      String word,
      String letter,
      String meaning,
      boolean joint,
      List<String> causes,
      String remedy,
      String action,
      boolean heats) {
    this.word = word;
    this.letter = letter;
    this.meaning = meaning;
    this.joint = joint;
    this.causes = causes;
    this.remedy = remedy;
    this.action = action;
    this.heats = heats;
  }

  /// The fixed word in files and on the tape.
  public String word() {
    return word;
  }

  /// Its key on the walk, empty when it has none.
  public String letter() {
    return letter;
  }

  /// What it means.
  public String meaning() {
    return meaning;
  }

  /// Whether it is about one joint, not the whole part.
  public boolean joint() {
    return joint;
  }

  /// Likely causes.
  public List<String> causes() {
    return causes;
  }

  /// What to do.
  public String remedy() {
    return remedy;
  }

  /// The action word of the remedy.
  public String action() {
    return action;
  }

  /// Whether the remedy heats it once more.
  public boolean heats() {
    return heats;
  }

  /// The defect with this word.
  public static Optional<DefectKind> of(String word) {
    return Arrays.stream(values()).filter(d -> d.word.equals(word)).findFirst();
  }
}
