package ell.core.trace;

import java.util.List;
import java.util.Optional;

/// Where the fault of a board may be, as far as the book says.
///
/// @param entropy what is not known, bit
/// @param explained how well what was seen is explained, 0...1; small where nothing that was
///   thought of explains it
/// @param designChance that the cause is in the design, if there is a fault, 0...1
/// @param suspects likeliest first, `healthy` and `other` among them; together 1
/// @param groups the same, those together that are one to whoever asks what it is; likeliest first
/// @param next what to measure, best first
/// @param finding empty before anything is likely enough
/// @param sister which other board to look at, and how much it tells of whether it is the design;
///   empty where that is no question
/// @param stairs what was not known before and after each clue, bit
/// @param told what was not used, not explained or left out, a sentence each
public record Traced(
    double entropy,
    double explained,
    double designChance,
    List<Ranked> suspects,
    List<Group> groups,
    List<Choice> next,
    Optional<Finding> finding,
    Optional<SisterLook> sister,
    List<Stair> stairs,
    List<String> told) {
  public Traced {
    suspects = List.copyOf(suspects);
    groups = List.copyOf(groups);
    next = List.copyOf(next);
    stairs = List.copyOf(stairs);
    told = List.copyOf(told);
  }

  /// A suspect with its chance.
  ///
  /// @param fault in words; `healthy`, `other`, or two faults joined by ` and `
  /// @param chance now, 0...1
  /// @param suspects none, one or two
  /// @param why what speaks for it, strongest first
  public record Ranked(String fault, double chance, List<Suspect> suspects, List<String> why) {
    public Ranked {
      suspects = List.copyOf(suspects);
      why = List.copyOf(why);
    }
  }

  /// Suspects that are one to whoever asks what it is: bridges between the same two nets at any
  /// place, parts that may join the same two nets, any wrong value of one part.
  ///
  /// @param words for a person
  /// @param chance of them together, 0...1
  /// @param members likeliest first, 1 or more
  public record Group(String words, double chance, List<Ranked> members) {
    public Group {
      members = List.copyOf(members);
    }
  }

  /// Another board that tells whether it is the design.
  ///
  /// @param board its serial
  /// @param line of the tape, for that board
  /// @param information that it is expected to give about design or not, bit
  public record SisterLook(String board, String line, double information, String why) {}

  /// One step of what is not known.
  ///
  /// @param entry of the clue, 0 for the beginning
  /// @param words of it
  /// @param minutes that it took, typical
  /// @param entropy after it, bit
  public record Stair(long entry, String words, double minutes, double entropy) {}

  /// The likeliest of all.
  public Ranked first() {
    return suspects.getFirst();
  }

  /// A chance for a person; never none, never certain.
  public static String percent(double chance) {
    return chance > 0.995
        ? ">99 %"
        : chance < 5e-4
            ? "<0.1 %"
            : String.format(
                java.util.Locale.ROOT, chance < 0.0995 ? "%.1f %%" : "%.0f %%", 100 * chance);
  }
}
