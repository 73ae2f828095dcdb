package ell.core.power;

import ell.core.board.Revision;
import ell.core.power.Ladder.Kind;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/// What somebody said of a power ladder, one thing at a time: how many volts a rail has, where
/// power comes in, what a part draws, what a regulator gives, and which net is no rail. Each answer
/// replaces an earlier one on the same thing, and the assumption that it answers.
///
/// @param rails by net
/// @param sources by net, in the order in which they were said
/// @param loads by part
/// @param regulators by part
/// @param notRails nets
/// @param parts how they act, by reference
public record LadderSaid(
    Map<String, Span> rails,
    Map<String, Span> sources,
    Map<String, Draw> loads,
    Map<String, Gives> regulators,
    Set<String> notRails,
    Map<String, PartSaid> parts) {
  /// Nothing was said.
  public static final LadderSaid NOTHING =
      new LadderSaid(Map.of(), Map.of(), Map.of(), Map.of(), Set.of(), Map.of());

  /// What a rail without a tolerance of its own may be off, of its volts; common practice, no
  /// source.
  static final double TOLERANCE = 0.05;

  /// Volts with their limits.
  ///
  /// @param channel output of the bench supply, counted from 1; 0 when not said
  public record Span(double low, double volts, double high, int channel) {
    /// Volts of which no output of a supply was said.
    public Span(double low, double volts, double high) {
      this(low, volts, high, 0);
    }
  }

  /// What a part draws.
  ///
  /// @param rail from which, empty when it is as proposed
  /// @param amps by state
  public record Draw(String rail, Map<String, Double> amps) {
    public Draw {
      amps = Map.copyOf(amps);
    }
  }

  public LadderSaid {
    // in the order in which they were said
    rails = Collections.unmodifiableMap(new LinkedHashMap<>(rails));
    sources = Collections.unmodifiableMap(new LinkedHashMap<>(sources));
    loads = Collections.unmodifiableMap(new LinkedHashMap<>(loads));
    regulators = Collections.unmodifiableMap(new LinkedHashMap<>(regulators));
    notRails = Collections.unmodifiableSet(new TreeSet<>(notRails));
    parts = Collections.unmodifiableMap(new LinkedHashMap<>(parts));
  }

  /// What a regulator gives; NaN, empty or null where it was not said.
  public record Gives(
      double volts,
      double limit,
      double dropout,
      double efficiency,
      Kind kind,
      String from,
      String to) {}

  /// What can be said, and how.
  public enum About {
    /// Volts of a rail.
    RAIL("rail", "BAT+=3.0..4.25"),
    /// Where power comes in.
    SOURCE("source", "J1.1=12V,channel=1"),
    /// What a part draws.
    LOAD("load", "U3=80mA"),
    /// What a regulator gives.
    REGULATOR("regulator", "U2=3.3V,600mA,dropout=0.3"),
    /// How a part acts.
    PART("part", "Q1=n-channel,threshold=1.1V,on=40mohm"),
    /// A net that is no rail.
    NOT_A_RAIL("not-a-rail", "VREF");

    private final String word;
    private final String example;

    About(String word, String example) {
      this.word = word;
      this.example = example;
    }

    /// The fixed word.
    public String word() {
      return word;
    }

    /// How it is said.
    public String example() {
      return example;
    }

    /// The one of this word.
    public static Optional<About> of(String word) {
      for (About a : values()) {
        if (a.word.equals(word)) {
          return Optional.of(a);
        }
      }
      return Optional.empty();
    }
  }

  /// Reads answers, a line each such as `rail BAT+=3.0..4.25`; a later one replaces an earlier one.
  ///
  /// @throws IllegalArgumentException naming the line, when it cannot be understood or names what
  ///   the revision does not have
  public static LadderSaid read(List<String> lines, Revision revision) {
    return new LadderWords(revision).read(lines);
  }

  /// A ladder with what was said.
  ///
  /// @throws IllegalArgumentException when a regulator is between no two rails that are known
  public Ladder on(Ladder ladder, Revision revision) {
    return equals(NOTHING) ? ladder : new LadderAnswers(this).on(ladder, revision);
  }
}
