package ell.work.heat;

import ell.core.heat.ProfileCheck;
import ell.core.heat.ProfileLog;
import ell.core.heat.ProfileStatistic;
import ell.core.heat.ProfileWindow;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.SheetProblem;
import ell.core.sheet.Worked;
import ell.files.Account;
import ell.files.Problem;
import ell.files.Read;
import ell.files.Source;
import ell.files.series.ProfileReader;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/// Temperature logs and the windows that they are held against.
public final class Profiles {
  private Profiles() {}

  /// Reads a log.
  ///
  /// @throws ActException with every problem, a line each
  public static Logged read(Path file) throws IOException, ActException {
    return read(file, "", "");
  }

  /// A log and what is to be said of its file.
  public record Logged(ProfileLog log, Account account) {
    /// What a person should know, a sentence each: guesses, what was put up with, what was passed
    /// over.
    public List<String> words() {
      List<String> all = new ArrayList<>();
      account.guesses().forEach(g -> all.add(g.words()));
      Account.grouped(account.warnings()).forEach(g -> all.add(g.toString()));
      account.grouped().forEach(g -> all.add("passed over: " + g));
      return all;
    }
  }

  /// Reads a log whose units somebody knows.
  ///
  /// @param unit of columns that do not say theirs, `C`, `F` or `K`; empty when not known
  /// @param timeUnit of times that do not say theirs, `s`, `ms` or `min`; empty when not known
  /// @throws ActException with every problem, a line each
  public static Logged read(Path file, String unit, String timeUnit)
      throws IOException, ActException {
    if (!unit.matches("[CFK]?") || !timeUnit.matches("(s|ms|min)?")) {
      throw new ActException("expected a unit C, F or K, and a time unit s, ms or min");
    }
    try {
      return switch (ProfileReader.read(Source.of(file), unit, timeUnit)) {
        case Read.Whole<ProfileLog>(ProfileLog log, Account account) -> new Logged(log, account);
        case Read.Flawed<ProfileLog>(var problems) ->
            throw new ActException(
                String.join("\n", problems.stream().map(Problem::toString).toList()));
      };
    } catch (NoSuchFileException e) {
      throw new ActException(file + ": there is no such file", e);
    }
  }

  /// A window by its name, or from a JSON file.
  public static ProfileWindow window(String nameOrFile) throws IOException, ActException {
    try {
      if (nameOrFile.endsWith(".json")) {
        return ProfileWindow.read(Files.readString(Path.of(nameOrFile), StandardCharsets.UTF_8));
      }
      return ProfileWindow.of(nameOrFile);
    } catch (NoSuchFileException e) {
      throw new ActException(nameOrFile + ": there is no such file", e);
    } catch (IllegalArgumentException e) {
      throw new ActException(
          (nameOrFile.endsWith(".json") ? nameOrFile + ": " : "") + e.getMessage(), e);
    }
  }

  /// Holds a log against a window.
  public static ProfileCheck check(ProfileLog log, ProfileWindow window, double accuracy)
      throws ActException {
    try {
      return ProfileCheck.of(log, window, accuracy);
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
  }

  /// The channel that keeps to its window least.
  public static ProfileCheck.Channel worst(ProfileCheck check) {
    return check.channels().stream()
        .max(
            Comparator.comparingInt((ProfileCheck.Channel c) ->
                    c.lines().stream().mapToInt(l -> l.verdict().ordinal()).max().orElse(0))
                .thenComparingDouble(c -> Double.isNaN(c.pwi()) ? 0 : c.pwi()))
        .orElseThrow();
  }

  /// The sheet `heat.profile`, which reads a file and so cannot stand in the core.
  public static Sheet sheet() {
    return new Sheet(
        "heat.profile",
        "Does a logged profile keep to a window",
        List.of(
            Input.words("file", "run.csv"),
            Input.words("window", "sac305, snpb, snbi or mine.json").or("sac305"),
            Input.number("accuracy", Unit.KELVIN).in(0, 50).or("0")),
        List.of(),
        Sheet.results(
            "rampUp °C/s, soakTime s, timeAboveLiquidus s, peak °C, rampDown °C/s, timeToPeak s, pwi, channel, verdict"),
        List.of("the window's own source; slopes by least squares and by Theil and Sen"),
        (a, s) -> {
          try {
            Logged read = read(Path.of(a.text("file")));
            ProfileCheck c = check(read.log(), window(a.text("window")), a.number("accuracy"));
            return worked(c, a.text("file"), a.text("window"), read.words());
          } catch (IOException | ActException e) {
            throw new SheetProblem("heat.profile: " + e.getMessage());
          }
        });
  }

  private static Worked worked(ProfileCheck c, String file, String window, List<String> mind) {
    ProfileCheck.Channel worst = worst(c);
    Worked w = c.sheet(worst);
    Worked.Builder s = Worked.of(w.sheet(), w.title()).input("file", file).input("window", window);
    for (ProfileCheck.Line l : worst.lines()) {
      String limits =
          l.limits()
              .map((Limits x) -> ProfileCheck.text(x, l.statistic().unit()))
              .orElse("no limit");
      if (Double.isNaN(l.value())) {
        s.line(l.statistic().words(), limits, "not reached");
        s.result(l.statistic().key(), "not reached");
      } else {
        s.line(
            l.statistic().words(),
            limits + " · " + l.verdict().words(),
            l.value(),
            l.statistic().unit());
        s.result(l.statistic().key(), l.value());
      }
      l.limits().ifPresent(x -> limits(s, l.statistic(), x));
      s.result(l.statistic().key() + "Verdict", l.verdict().key());
    }
    if (!Double.isNaN(worst.pwi())) {
      s.line("window index", "max 100·|value − middle| / half range", worst.pwi(), "");
      s.result("pwi", worst.pwi());
    }
    s.result("channel", worst.name());
    w.sources().forEach(s::source);
    w.assumptions().forEach(s::assume);
    mind.forEach(s::assume);
    w.cautions().forEach(s::caution);
    if (c.channels().size() > 1) {
      s.assume("shown is the worst of " + c.channels().size() + " channels");
    }
    return s.verdict(c.verdict()).done();
  }

  private static void limits(Worked.Builder s, ProfileStatistic statistic, Limits l) {
    if (Double.isFinite(l.low())) {
      s.result(statistic.key() + "Low", l.low());
    }
    if (Double.isFinite(l.high())) {
      s.result(statistic.key() + "High", l.high());
    }
  }
}
