package ell.core.entry;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import java.time.LocalDate;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Optional;
import java.util.SequencedMap;

/// One thing that happened to a board. A closed set: a new kind does not compile until everything
/// handles it. Kinds are written to files under fixed words (see [EntryJson]), never class names.
public sealed interface Entry {
  /// A step of the build order was done.
  ///
  /// @param number of the step in the order that was shown
  /// @param action what was done, in words
  /// @param parts that it placed, may be empty
  /// @param seconds that it took, 0 when not timed
  /// @param side `first` or `second`, empty in entries of before sides were kept
  record StepDone(int number, String action, List<String> parts, double seconds, String side)
      implements Entry {
    /// The action of parts that the assembly house has fitted: they never lay on the shelf.
    public static final String ARRIVED = "arrive fitted";

    public StepDone {
      parts = List.copyOf(parts);
    }

    /// A step whose side is not kept.
    public StepDone(int number, String action, List<String> parts, double seconds) {
      this(number, action, parts, seconds, "");
    }
  }

  /// A part of the board is another than the bill says.
  ///
  /// @param place reference
  /// @param code what was fitted, or will be
  record Fitted(String place, String code, String why) implements Entry {}

  /// Parts meant for a place were dropped, broken or lost.
  ///
  /// @param place reference
  /// @param count how many, 1 or more
  record Lost(String place, int count, String why) implements Entry {}

  /// The shelf changed other than by building.
  ///
  /// @param bin empty when the code lies in one bin only
  /// @param quantity counted in the bin, or received, or ordered
  /// @param due when what was ordered arrives
  record Stock(
      StockChange change,
      String code,
      String bin,
      long quantity,
      Optional<LocalDate> due,
      String why)
      implements Entry {}

  /// A gate was asked.
  ///
  /// @param held whether it held
  record Gate(String gate, boolean held, String why) implements Entry {}

  /// Something was measured.
  ///
  /// @param place rail, net, test point, part or `part.pin`
  /// @param value in `unit`
  /// @param limits that it was held against, if any
  /// @param uncertainty expanded, in `unit`, if known
  /// @param verdict on the limits, if there were any
  /// @param with the instrument in words, may be empty
  record Reading(
      String place,
      double value,
      Unit unit,
      Optional<Limits> limits,
      Optional<Double> uncertainty,
      Optional<Verdict> verdict,
      String with)
      implements Entry {}

  /// A check of the beep list was made.
  ///
  /// @param kind `continuity` or `isolation`
  /// @param a place of one tip
  /// @param b place of the other
  /// @param ohms what the meter showed, infinite for an open loop
  /// @param limits of a healthy board
  record Check(
      String kind,
      String a,
      String b,
      String netA,
      String netB,
      double ohms,
      Limits limits,
      Verdict verdict)
      implements Entry {}

  /// Something is wrong at a place; opens a finding.
  record Defect(String place, String defect, String text) implements Entry {}

  /// Something was done at a place; closes the findings there.
  ///
  /// @param heat whether it heated the joints of the part once more
  record Action(String place, String action, boolean heat, String text) implements Entry {}

  /// Free words.
  record Note(String text) implements Entry {}

  /// The supply is about to be switched on, was switched, or a stage of first power ended.
  ///
  /// @param on whether the output was told to be on
  /// @param sure whether that is known; when not, the output may be on
  /// @param volts set point
  /// @param limit current limit, A
  /// @param amps measured, if it was
  /// @param verdict of the current against its band, if there is one
  /// @param why in words
  record Supply(
      boolean on,
      boolean sure,
      double volts,
      double limit,
      Optional<Double> amps,
      Optional<Limits> band,
      Optional<Verdict> verdict,
      String why)
      implements Entry {
    /// A supply of which is known whether it is on.
    public Supply(
        boolean on,
        double volts,
        double limit,
        Optional<Double> amps,
        Optional<Limits> band,
        Optional<Verdict> verdict,
        String why) {
      this(on, true, volts, limit, amps, band, verdict, why);
    }

    /// The supply was switched off and nothing was measured.
    public static Supply off(String why) {
      return new Supply(false, 0, 0, Optional.empty(), Optional.empty(), Optional.empty(), why);
    }

    /// Whether the output may be on afterwards.
    public boolean mayBeOn() {
      return on || !sure;
    }
  }

  /// A rule was set aside by the maker.
  ///
  /// @param rule which, such as `power`
  record Override(String rule, String why) implements Entry {}

  /// Paste was printed on a side.
  ///
  /// @param side `first` or `second`
  /// @param wiped whether the foil was wiped right before
  /// @param jar code of the jar, may be empty
  record Printed(String side, boolean wiped, String jar) implements Entry {}

  /// How the paste lies at a place after a print; places that are not mentioned are good.
  ///
  /// @param place `part.pin`
  record PasteSeen(String place, PasteLook look) implements Entry {}

  /// A jar of paste was moved.
  ///
  /// @param jar its code
  record Jar(String jar, JarMove move, String why) implements Entry {}

  /// A dry bag of parts was opened or closed.
  ///
  /// @param code of the parts
  /// @param open whether it is open afterwards
  /// @param level moisture level such as `3` or `5a`, empty when not said
  record Bag(String code, boolean open, String level) implements Entry {}

  /// A profile was run, live or from a log.
  ///
  /// @param side that was heated, empty for a test piece
  /// @param window that it was held against
  /// @param source the plate, or the file
  /// @param pwi process window index, NaN when it could not be told
  /// @param curves what was measured, thinned
  record HeatRun(
      String side,
      String window,
      String source,
      double pwi,
      Optional<Verdict> verdict,
      List<Curve> curves)
      implements Entry {
    public HeatRun {
      curves = List.copyOf(curves);
    }

    /// One channel at an even step.
    ///
    /// @param role `set`, `plate`, `board` or `part`, or the channel's own name
    /// @param step seconds between values
    /// @param celsius from time 0
    public record Curve(String role, double step, List<Double> celsius) {
      public Curve {
        celsius = List.copyOf(celsius);
      }
    }
  }

  /// Joints were looked at and are good.
  ///
  /// @param places `part.pin` each, or a part for all of its joints
  record Seen(List<String> places) implements Entry {
    public Seen {
      places = List.copyOf(places);
    }
  }

  /// A photograph of a place is kept.
  ///
  /// @param name of the file
  /// @param sha256 of its bytes, which are kept beside the book
  record Photo(String place, String name, String sha256) implements Entry {}

  /// A line was captured. The whole capture is kept beside the book, as it was read.
  ///
  /// @param place a net, or `part.pin`
  /// @param name of the file, or what the instrument was told
  /// @param channel of the file
  /// @param sha256 of the file's bytes, empty when they are not kept
  /// @param with the instrument in words, may be empty
  /// @param says in a few words what it is
  /// @param measures with their limits
  /// @param told what the instrument may have done, what is guessed
  /// @param verdict the worst of them, if anything was judged
  /// @param outline for pictures
  /// @param beside under which fingerprint its samples lie beside the workspace, for one that is
  ///   too large to be kept in it; empty for any other
  record Capture(
      String place,
      String name,
      String channel,
      String sha256,
      String with,
      String says,
      List<Measure> measures,
      List<String> told,
      Optional<Verdict> verdict,
      Outline outline,
      String beside)
      implements Entry {
    public Capture {
      measures = List.copyOf(measures);
      told = List.copyOf(told);
    }

    /// The measure of a name, empty when the capture has too little of it.
    public Optional<Measure> measure(String measure) {
      return measures.stream().filter(m -> m.name().equals(measure)).findFirst();
    }

    /// One thing that a capture measures.
    ///
    /// @param name such as `rise`
    /// @param value in `unit`
    /// @param uncertainty expanded, in `unit`, NaN when it is not known
    /// @param limits it was held against, if any
    public record Measure(
        String name,
        double value,
        Unit unit,
        double uncertainty,
        Optional<Limits> limits,
        Optional<Verdict> verdict) {
      /// The same, held against limits.
      public Measure against(Limits l) {
        double u = Double.isFinite(uncertainty) ? uncertainty : 0;
        return new Measure(
            name, value, unit, uncertainty, Optional.of(l), Optional.of(l.judge(value, u)));
      }

      /// What it is, in words, without its verdict.
      public String words() {
        return switch (name) {
          case "doubleClocks" ->
              Math.round(value) + (value == 1 ? " edge counts twice" : " edges count twice");
          case "dwell" -> "between the thresholds " + EngineeringNumber.print(value, unit, 4);
          default -> name + " " + EngineeringNumber.print(value, unit, 4);
        };
      }
    }

    /// A capture as small as the book keeps it for a picture: least and greatest in equal stretches
    /// of time.
    ///
    /// @param from second at its left edge
    /// @param step seconds of a stretch, above 0
    /// @param least V in each stretch
    /// @param most as many, V
    public record Outline(double from, double step, List<Double> least, List<Double> most) {
      /// @throws IllegalArgumentException when it has no width, or lists are not alike
      public Outline {
        least = List.copyOf(least);
        most = List.copyOf(most);
        if (least.size() != most.size() || !(step > 0)) {
          throw new IllegalArgumentException(
              "an outline has as many least as greatest, and a width");
        }
      }

      /// Seconds from edge to edge.
      public double duration() {
        return step * least.size();
      }
    }
  }

  /// A line to the board was open, and something was said over it.
  ///
  /// @param line its address, as it was given
  /// @param script that was run, empty where somebody typed
  /// @param operation that the script is part of, empty for none
  /// @param seconds that it was open
  /// @param sent bytes to the board
  /// @param heard bytes from the board
  /// @param sha256 of the recording that is kept in the book, empty when it is not
  /// @param beside name of the recording that lies beside the workspace, empty when it does not
  /// @param firmware that the board says it runs, empty when it did not
  /// @param restarts beginnings after the first
  /// @param lost bytes that had to be sent again, or came to nothing
  /// @param steps of the script
  /// @param verdict of the script, if there was one
  /// @param told what else is to be known, a sentence each
  record Talk(
      String line,
      String script,
      String operation,
      double seconds,
      long sent,
      long heard,
      String sha256,
      String beside,
      String firmware,
      int restarts,
      long lost,
      List<Step> steps,
      Optional<Verdict> verdict,
      List<String> told)
      implements Entry {
    public Talk {
      steps = List.copyOf(steps);
      told = List.copyOf(told);
    }

    /// An operation that was done without a line.
    ///
    /// @param words about it, may be empty
    public static Talk byHand(String operation, String words) {
      return new Talk(
          "",
          "",
          operation,
          0,
          0,
          0,
          "",
          "",
          "",
          0,
          0,
          List.of(),
          Optional.of(Verdict.WITHIN),
          words.isBlank() ? List.of() : List.of(words.strip()));
    }

    /// A step of a script.
    ///
    /// @param number counted from 1
    /// @param sent what was sent, may be empty
    /// @param expected what should come, may be empty
    /// @param got what came, shortened
    /// @param seconds that it took
    public record Step(
        int number, String sent, String expected, String got, double seconds, Verdict verdict) {}
  }

  /// A board knows itself: its number was written into its memory and read back.
  ///
  /// @param memory the part
  /// @param serial that it holds
  /// @param revision that it holds
  record Knows(String memory, String serial, String revision) implements Entry {}

  /// What was seen of a chain of elements.
  ///
  /// @param chain its first element
  /// @param elements how many it has
  /// @param seen in words, such as `lit up to 7`
  record ChainLook(String chain, int elements, String seen) implements Entry {}

  /// From here on somebody else is at the bench with this board.
  ///
  /// @param who a name, as it was said
  /// @param helper whether they help only: what may do harm is the maker's
  record Operator(String who, boolean helper) implements Entry {
    /// A maker.
    public Operator(String who) {
      this(who, false);
    }
  }

  /// How something stands that can be put in and taken out, or what feeds a rail.
  ///
  /// @param place a part or a net
  /// @param stand `in`, `out`, or `alone`: nothing but the supply feeds the net; of a link `open`
  ///   or `closed`
  record Stands(String place, String stand, String text) implements Entry {}

  /// How a board behaves, where no number says it.
  ///
  /// @param place a part, empty for the board as a whole
  /// @param what `lamp`, `touch`, `pressed`, `warmed`, `cooled`, `shaken`, `swapped`, `talks`, or
  ///   `comes` for what is there at some tries only
  /// @param shows `lit`, `dark`, `cool`, `warm`, `hot`, `fine`, `same`, or what was heard; of
  ///   `comes` it is `bad`
  /// @param times at how many tries, 1 where nothing was counted
  /// @param of how many tries, 1 or more
  record Symptom(String place, String what, String shows, int times, int of) implements Entry {
    /// @throws IllegalArgumentException when it was not tried
    public Symptom {
      if (of < 1 || times < 0) {
        throw new IllegalArgumentException(
            "a symptom shows at 0 or more of 1 or more tries, found " + times + " of " + of);
      }
    }
  }

  /// Where the fault is: the end of a search.
  ///
  /// @param fault in the words of faults
  /// @param place where it is, empty for what is not on the board
  /// @param design whether it is on every board of the revision
  /// @param chance that it is so, 0...1
  /// @param evidence numbers of the entries that it rests on
  /// @param todo what to do, a sentence each
  /// @param again what must be made again because of it
  record Found(
      String fault,
      String place,
      boolean design,
      double chance,
      List<Long> evidence,
      List<String> todo,
      List<String> again)
      implements Entry {
    public Found {
      evidence = List.copyOf(evidence);
      todo = List.copyOf(todo);
      again = List.copyOf(again);
    }
  }

  /// Something happened to a jig, or a board was closed in it.
  ///
  /// @param jig its serial number
  /// @param what `built`, `closed`, `checked`, `probe` (another one was put in) or `retired`
  /// @param place net of a probe, or nets that a check found, may be empty
  /// @param count closings, 1 or more
  /// @param good whether a check held
  /// @param text in words, of a jig that was built the revision that it is for
  record Jig(String jig, String what, String place, int count, boolean good, String text)
      implements Entry {
    public Jig {
      if (count < 1) {
        throw new IllegalArgumentException("a jig is closed once or more often, got " + count);
      }
    }
  }

  /// A run of a test plan begins; what is found stands in entries of its own until it is ended.
  ///
  /// @param plan its name
  /// @param sha256 of its text, which is kept beside the book
  /// @param steps how many it has, each try of a loop counted
  /// @param minutes that it should take
  /// @param with the bench, and the jig if there is one, in words
  record ProofBegun(String plan, String sha256, int steps, double minutes, String with)
      implements Entry {}

  /// A step of a test plan was made, or left out.
  ///
  /// @param run number of the entry with which the run began
  /// @param number of the step in the plan, counted from 1
  /// @param round of a loop, counted from 1
  /// @param name of the test
  /// @param place where it was measured, empty when it was not
  /// @param value in `unit`, if there is one
  /// @param uncertainty expanded, in `unit`, if known
  /// @param verdict empty when it was left out, or there was nothing to hold it against
  /// @param words what was seen or heard, or why it was left out
  /// @param left whether it was left out
  /// @param seconds that it took
  record ProofStep(
      long run,
      int number,
      int round,
      String name,
      String place,
      Optional<Double> value,
      Unit unit,
      Optional<Limits> limits,
      Optional<Double> uncertainty,
      Optional<Verdict> verdict,
      String words,
      boolean left,
      double seconds)
      implements Entry {}

  /// A run of a test plan ended.
  ///
  /// @param run number of the entry with which it began
  /// @param verdict of the whole: within only when every step is
  /// @param why in words
  /// @param minutes that it took, pauses included
  record ProofEnded(long run, Verdict verdict, String why, double minutes) implements Entry {}

  /// A board leaves the bench to be used.
  ///
  /// @param text for what, or to whom
  record Released(String text) implements Entry {}

  /// A mistake of a revision, or something that the next one should do better, is written down.
  ///
  /// @param id such as `E1`, one in a workspace; empty while it is being logged
  /// @param title in a few words
  /// @param design that it is of
  /// @param revisions that have it, one or more
  /// @param fault in the words of faults, empty where none says it
  /// @param places joints, parts and nets where it is, may be empty
  /// @param severity `harm`, `fails`, `annoys` or `wish`
  /// @param bodge steps that mend a board, in order; empty while nobody knows how
  /// @param proof what shows that a board is mended, empty where nothing is said
  /// @param fix what the next revision should have, empty where it is what the bodge does
  /// @param taughtBy numbers of the entries that it rests on
  record Erratum(
      String id,
      String title,
      String design,
      List<String> revisions,
      String fault,
      List<String> places,
      String severity,
      List<String> bodge,
      String proof,
      String fix,
      List<Long> taughtBy)
      implements Entry {
    public Erratum {
      revisions = List.copyOf(revisions);
      places = List.copyOf(places);
      bodge = List.copyOf(bodge);
      taughtBy = List.copyOf(taughtBy);
    }
  }

  /// Something of an erratum is another than was said before.
  ///
  /// @param id of the erratum
  /// @param what `title`, `fault`, `at`, `severity`, `bodge`, `proof`, `fix`, `revisions`,
  ///   `taught`, `fixed`, `closed` or `open`
  /// @param text as it was said; of `fixed` the revision in which it is
  record ErratumSaid(String id, String what, String text) implements Entry {}

  /// How a board stands to the bodge of an erratum.
  ///
  /// @param id of the erratum
  /// @param what `done`, `proved`, `not-needed` or `undone`
  /// @param minutes that it took, 0 when it was not timed
  /// @param text in words
  record Bodge(String id, String what, double minutes, String text) implements Entry {}

  /// Somebody has decided what is done about the boards of a revision.
  ///
  /// @param about an erratum, or empty for the revision as a whole
  /// @param choice `rework`, `respin` or `wait`
  /// @param numbers that it was decided by, by their names
  /// @param why in words
  record Decision(String about, String choice, SequencedMap<String, Double> numbers, String why)
      implements Entry {
    public Decision {
      numbers = java.util.Collections.unmodifiableSequencedMap(new LinkedHashMap<>(numbers));
    }
  }

  /// Boards were tried together.
  ///
  /// @param name of the stack, such as `station`
  /// @param members serials of this workspace, or words for what is not of it, this board first
  /// @param verdict whether they worked together
  record Stack(String name, List<String> members, Verdict verdict, String text) implements Entry {
    public Stack {
      members = List.copyOf(members);
    }
  }

  /// An earlier entry is taken back.
  ///
  /// @param target number of the entry
  record Strike(long target, String why) implements Entry {}
}
