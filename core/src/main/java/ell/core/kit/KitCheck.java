package ell.core.kit;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;

/// Can I start: what a build needs, what the shelf has, how many boards that makes now and on later
/// days, and how far they get.
///
/// @param boards of the build
/// @param on the day that was asked about
/// @param lines by code, in the order of the bill
/// @param boardsNow the most boards that the shelf supports on that day, with losses and alternates
///   counted and with the boards that are built already
/// @param limiting the line that limits, empty when nothing does
/// @param next the line that would limit next, were there enough of the first
/// @param stairs boards over dates, the day that was asked about first
/// @param gates how far the build gets
/// @param supplies what else it needs and the shelf keeps: blank boards, stencil, paste
/// @param verdict start, start up to a gate, or wait
/// @param gate the last gate that can be reached, for [Verdict#START_UP_TO]
/// @param date when everything is there, when that is known
/// @param pasteShort codes that are short and would lie in the paste
/// @param setAside why the maker set the rule of the paste aside
/// @param reasons one sentence each, the chain that leads to the verdict
public record KitCheck(
    int boards,
    LocalDate on,
    List<KitLine> lines,
    long boardsNow,
    Optional<String> limiting,
    Optional<Limit> next,
    List<Stair> stairs,
    List<GateReach> gates,
    List<Supply> supplies,
    Verdict verdict,
    Optional<String> gate,
    Optional<LocalDate> date,
    List<String> pasteShort,
    Optional<String> setAside,
    List<String> reasons) {

  /// Whether to start.
  public enum Verdict {
    /// Everything is there.
    START("start"),
    /// Enough is there to reach a gate.
    START_UP_TO("startUpTo"),
    /// Do not open the paste.
    WAIT("wait");

    private final String key;

    Verdict(String key) {
      this.key = key;
    }

    /// The verdict as a key in files.
    public String key() {
      return key;
    }
  }

  /// A line and the boards that it allows.
  public record Limit(String code, long boards) {}

  /// From a day on, so many boards.
  ///
  /// @param limiting the line that allows no more
  public record Stair(LocalDate from, long boards, Optional<String> limiting) {}

  /// Whether a gate can be reached by every board of the build.
  ///
  /// @param blockedBy codes that are missing before it
  /// @param boards how many boards can reach it
  public record GateReach(String gate, boolean reachable, List<String> blockedBy, long boards) {
    public GateReach {
      blockedBy = List.copyOf(blockedBy);
    }
  }

  /// Something other than parts that a build needs.
  public record Supply(ShelfLine.Kind kind, String code, long have, long need, String words) {
    /// Whether there is enough.
    public boolean enough() {
      return have >= need;
    }
  }

  public KitCheck {
    lines = List.copyOf(lines);
    stairs = List.copyOf(stairs);
    gates = List.copyOf(gates);
    supplies = List.copyOf(supplies);
    pasteShort = List.copyOf(pasteShort);
    reasons = List.copyOf(reasons);
  }

  /// The lines that are short.
  public List<KitLine> shorts() {
    return lines.stream().filter(l -> l.shortBy() > 0).toList();
  }

  /// Whether the paste is not to be opened: something that lies in it is short, and the maker has
  /// not set the rule aside.
  public boolean pasteStaysClosed() {
    return !pasteShort.isEmpty() && setAside.isEmpty();
  }

  /// Checks a kit.
  public static KitCheck of(KitQuestion question) {
    return new KitJudge(question).judge();
  }
}
