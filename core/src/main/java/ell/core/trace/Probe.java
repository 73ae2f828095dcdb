package ell.core.trace;

import ell.core.board.PartKind;
import java.util.List;
import java.util.Optional;

/// Something that can be measured or looked at.
///
/// @param kind what is done
/// @param a the place
/// @param b the other place, empty for none
/// @param knobs how the supplies stand, empty where it does not matter or the board is off
public record Probe(Kind kind, String a, String b, Optional<Knobs> knobs) {
  /// Stands for the other place where volts were read in a jig.
  static final String JIG = "jig";

  /// Ohms between two places, whichever is named first.
  static Probe ohms(String a, String b) {
    boolean turned = a.compareTo(b) > 0 && !b.equals("GND") || a.equals("GND");
    return new Probe(Kind.OHMS, turned ? b : a, turned ? a : b, Optional.empty());
  }

  /// A look at a joint or at a part.
  ///
  /// @param how empty for a look at it alone, `all` for one at many places at once
  static Probe look(String place, String how) {
    return new Probe(Kind.LOOK, place, how, Optional.empty());
  }

  /// Milliohms from several joints of a net to another net, whose tip stays where it is.
  ///
  /// @param places the joints, in the order in which they are read
  static Probe along(List<String> places, String other) {
    return new Probe(Kind.ALONG, String.join(" ", places), other, Optional.empty());
  }

  /// Milliohms along a net that were read.
  static Probe alongRead(String net, String other) {
    return new Probe(Kind.ALONG, net, other, Optional.empty());
  }

  /// The places where the first tip goes: one, or several joints one after the other.
  public List<String> places() {
    return kind == Kind.ALONG ? List.of(a.split(" ")) : List.of(a);
  }

  /// Whether a part of a kind gets warm in a way that is known.
  static boolean touchable(PartKind k) {
    return switch (k) {
      case RESISTOR, DIODE, TRANSISTOR, CHIP -> true;
      default -> false;
    };
  }

  /// What is done.
  public enum Kind {
    /// Volts between a place and ground.
    VOLTS("volts", true, 1.0 / 3),
    /// Ohms between two places.
    OHMS("ohms", false, 0.4),
    /// Milliohms along a net, to find where it touches another.
    ALONG("ohms", false, 0.6),
    /// Amperes that a source gives.
    AMPS("amps", true, 0.2),
    /// Hertz at a place.
    WAVE("wave", true, 1),
    /// How a joint or a part looks.
    LOOK("look", false, 0.3),
    /// Whether a lamp is lit.
    LIT("look", true, 0.1),
    /// How warm a part feels.
    TOUCH("touch", true, 0.15),
    /// Whether it works with another part.
    SWAP("swap", false, 14),
    /// Whether it works while something is pressed.
    PRESS("try", true, 0.5),
    /// Whether it speaks.
    TALK("try", true, 1),
    /// How the scope seems to be set, by what it shows.
    SCOPE("wave", true, 1);

    private final String key;
    private final boolean power;
    private final double minutes;

    Kind(String key, boolean power, double minutes) {
      this.key = key;
      this.power = power;
      this.minutes = minutes;
    }

    /// The word in JSON.
    public String key() {
      return key;
    }

    /// Whether the board must have power.
    public boolean power() {
      return power;
    }

    /// What it takes by itself at most parts, minutes, typical; no source. [Board#minutes] knows
    /// the part.
    public double minutes() {
      return minutes;
    }
  }

  /// The line of the tape, with `?` where the answer goes.
  public String line() {
    return switch (kind) {
      case VOLTS -> a + " ?";
      case OHMS -> a + " " + b + " ? ohm";
      case ALONG -> places().getFirst() + " ? ohm";
      case AMPS -> a + " ? A";
      case WAVE -> a + " ? Hz";
      case LOOK -> a + " look ?";
      case LIT -> a + " lamp ?";
      case TOUCH -> a + " touch ?";
      case SWAP -> a + " swapped ?";
      case PRESS -> a + " pressed ?";
      case TALK -> "talks ?";
      case SCOPE -> "scope ?";
    };
  }

  /// The line with an answer in it.
  public String line(String answer) {
    return line().replace("?", answer);
  }
}
