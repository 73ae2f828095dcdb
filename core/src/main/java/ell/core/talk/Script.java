package ell.core.talk;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// What is said to a board and what it should answer, as data.
///
/// @param name of the script
/// @param operation whose links and plugs must be so before it begins, empty for none
/// @param baud of the line, 0 where the line's own is right
/// @param banner pattern of what a board says when it starts, empty where it is not known
/// @param steps at least one
public record Script(String name, String operation, int baud, String banner, List<Step> steps) {
  /// How often at most a script goes back.
  public static final int MOST_JUMPS = 10_000;

  public Script {
    steps = List.copyOf(steps);
  }

  /// What a step does.
  public sealed interface Act {
    /// Sends something, or only listens.
    ///
    /// @param bytes text to send as it is, empty to listen only; `{board}`, `{revision}`,
    ///   `{design}` and what earlier steps found are put in
    record Send(String bytes) implements Act {}

    /// Waits without listening for anything.
    record Pause(double seconds) implements Act {}

    /// Waits for a serial port whose name or description fits a pattern: the board is seen by the
    /// computer.
    record Appears(String pattern) implements Act {}

    /// Asks the person a question; answered from the book where the book has it.
    ///
    /// @param key what it is about, in a word; what was answered once for the revision is kept
    record Ask(String key, String question) implements Act {}

    /// Sends an image with the loader's frames.
    ///
    /// @param file beside the script
    record Load(String file) implements Act {}

    /// Sends settings one by one, reads each back.
    ///
    /// @param values by name
    /// @param set what is sent for one, with `{name}` and `{value}`
    /// @param get what asks for one
    record Settings(Map<String, String> values, String set, String get) implements Act {
      public Settings {
        values = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(values));
      }
    }

    /// Writes the board's serial number and revision into its memory and reads them back.
    ///
    /// @param write what is sent, with `{board}` and `{revision}`, or `{identity}` for the bytes in
    ///   hexadecimal
    /// @param read what asks for them
    record Write(String write, String read) implements Act {}
  }

  /// A step.
  ///
  /// @param label by which other steps go to it, may be empty
  /// @param act what is done
  /// @param expect a pattern that what is heard must hold, empty for none
  /// @param within seconds in which it must come
  /// @param retries how often it is tried again
  /// @param then where to go on when it is so: a label, `stop`, or nothing for the next step
  /// @param otherwise where to go on when it is not: a label, `next`, or nothing to stop
  /// @param why what it means when it is not so, in words, may be empty
  public record Step(
      String label,
      Act act,
      Optional<String> expect,
      double within,
      int retries,
      String then,
      String otherwise,
      String why) {
    /// What it does, in a few words.
    public String words() {
      return switch (act) {
        case Act.Send x ->
            (x.bytes().isEmpty() ? "listen" : "send " + x.bytes().strip())
                + expect.map(e -> " · expect " + e).orElse("");
        case Act.Pause p -> "wait " + p.seconds() + " s";
        case Act.Appears a -> "a port appears: " + a.pattern();
        case Act.Ask a -> a.question();
        case Act.Load l -> "load " + l.file();
        case Act.Settings t -> t.values().size() + " settings, sent and read back";
        case Act.Write _ -> "number and revision into the memory";
      };
    }
  }
}
