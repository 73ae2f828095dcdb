package ell.cli.pulse;

import ell.book.RevisionStore;
import ell.cli.shell.Exit;
import ell.cli.shell.Json;
import ell.cli.shell.OfRevision;
import ell.cli.shell.SheetJson;
import ell.cli.shell.SheetText;
import ell.cli.shell.WorkspaceCommand;
import ell.core.entry.Entry;
import ell.core.entry.Logged;
import ell.core.power.Ladder;
import ell.core.pulse.FilledSheets;
import ell.core.pulse.LogicFamily;
import ell.core.pulse.PulseFacts;
import ell.core.pulse.PulsePlan;
import ell.core.pulse.Signature;
import ell.core.pulse.Wanted;
import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.work.Workshop;
import ell.work.space.ActException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// What should be seen on the lines of a revision, and what was.
@Command(
    name = "pulse",
    description =
        "what should be seen on the lines of a revision, and what was captured; --say puts it right")
public final class PulseCommand extends WorkspaceCommand {
  @Mixin OfRevision of;

  @Option(
      names = "--say",
      paramLabel = "LINE",
      description =
          "such as \"CLK clock=2MHz within=100ppm family=cmos3.3\", \"CLK rise=..5ns\", \"CLK"
              + " from=U1.3 driver=25ohm length=0.48m z0=120ohm velocity=0.61\", \"CLK none\"; may"
              + " be given several times")
  List<String> say = new ArrayList<>();

  @Option(names = "--forget", description = "forget all that was said of the revision")
  boolean forget;

  @Option(
      names = "--families",
      paramLabel = "FILE",
      description =
          "keep logic families of your own: name,supply,vil,vih,vol,voh,slowest,most,source")
  Optional<Path> families = Optional.empty();

  @Option(
      names = "--signature",
      paramLabel = "NAME",
      description =
          "save the latest capture of --place of --board as a signature of this name; with --bad,"
              + " one that a board must not show")
  Optional<String> signature = Optional.empty();

  @Option(names = "--bad", description = "with --signature, a board must not show it")
  boolean bad;

  @Option(names = "--board", description = "serial: its captures only")
  Optional<String> board = Optional.empty();

  @Option(names = "--place", description = "this place only, over all boards of the build")
  Optional<String> place = Optional.empty();

  @Override
  public Integer call() throws Exception {
    boolean writes = !say.isEmpty() || forget || families.isPresent() || signature.isPresent();
    try (Workshop w = writes ? open() : look()) {
      RevisionStore.Id id = of.id(w, board);
      String d = id.design();
      String r = id.name();
      if (families.isPresent()) {
        if (!Files.isRegularFile(families.get())) {
          throw new ActException("there is no file " + families.get());
        }
        w.pulses().keepFamilies(Files.readString(families.get()));
      }
      if (forget) {
        w.pulses().unsay(d, r);
      }
      List<String> lines = new ArrayList<>(say);
      if (signature.isPresent()) {
        lines.add(saved(w));
      }
      if (!lines.isEmpty()) {
        w.pulses().say(d, r, lines);
      }
      int code = print(w, w.pulses().of(d, r), d, r);
      return writes ? Exit.DONE : code; // what was said is kept, whatever boards show
    }
  }

  private String saved(Workshop w) throws Exception {
    if (board.isEmpty() || place.isEmpty()) {
      throw new ActException("--signature saves a capture: say --board and --place");
    }
    Entry.Capture c =
        PulseFacts.of(w.state(board.get()))
            .at(place.get())
            .orElseThrow(() ->
                new ActException("board " + board.get() + " has no capture of " + place.get()));
    return Signature.from(place.get(), signature.orElseThrow(), !bad, c.measures()).words();
  }

  private int print(Workshop w, PulsePlan plan, String d, String r) throws Exception {
    Map<String, List<Logged>> captures = new LinkedHashMap<>();
    for (var b : w.book().builds()) {
      if (!b.design().equals(d) || !b.revision().equals(r)) {
        continue;
      }
      for (String serial : b.boards()) {
        if (board.isEmpty() || board.get().equals(serial)) {
          captures.put(serial, List.copyOf(PulseFacts.of(w.state(serial)).latest().values()));
        }
      }
    }
    boolean out = false;
    if (json) {
      ObjectNode o = Json.object().put("design", d).put("revision", r);
      ArrayNode places = o.putArray("places");
      for (Wanted p : plan.places()) {
        if (wanted(p)) {
          ObjectNode one = places.addObject();
          places(one, p);
          ArrayNode sheets = one.putArray("sheets");
          FilledSheets.of(plan.revision(), w.ladder(d, r), p.net())
              .forEach(s -> sheets.add(SheetJson.worked(s)));
        }
      }
      ArrayNode signatures = o.putArray("signatures");
      for (Signature s : plan.signatures()) {
        signatures
            .addObject()
            .put("place", s.place())
            .put("name", s.name())
            .put("good", s.good())
            .put("line", s.words());
      }
      ArrayNode names = o.putArray("families");
      plan.families().stream().map(LogicFamily::name).distinct().forEach(names::add);
      ArrayNode all = o.putArray("captures");
      for (Map.Entry<String, List<Logged>> b : captures.entrySet()) {
        for (Logged l : b.getValue()) {
          Entry.Capture c = (Entry.Capture) l.entry();
          if (wanted(c.place())) {
            all.add(CaptureText.object(c).put("board", b.getKey()).put("entry", l.number()));
            out |= c.verdict().filter(v -> v == Verdict.OUT).isPresent();
          }
        }
      }
      print(o);
    } else {
      out = text(plan, captures, w.ladder(d, r));
    }
    return out ? Exit.NOT_HELD : Exit.DONE;
  }

  private boolean wanted(Wanted w) {
    return place.isEmpty() || place.get().equals(w.place());
  }

  private boolean wanted(String p) {
    return place.isEmpty() || place.get().equals(p);
  }

  private static void places(ObjectNode o, Wanted w) {
    o.put("place", w.place()).put("net", w.net());
    w.family().ifPresent(f -> o.put("family", f.name()).put("familyGuessed", w.guessed()));
    w.thresholds()
        .ifPresent(t -> {
          Json.number(o, "vil", t.vil());
          Json.number(o, "vih", t.vih());
          Json.number(o, "slowest", t.slowest());
          Json.number(o, "vmax", t.most());
        });
    if (w.clock() > 0) {
      o.put("clock", w.clock()).put("clockGuessed", w.clockGuessed());
    }
    if (w.within() > 0) {
      o.put("within", w.within());
    }
    Json.strings(o, "guesses", w.guesses());
  }

  private boolean text(PulsePlan plan, Map<String, List<Logged>> captures, Ladder ladder) {
    boolean bad = false;
    if (plan.places().stream().noneMatch(this::wanted)
        && captures.values().stream().allMatch(List::isEmpty)) {
      out()
          .println(
              "nothing is known of these lines; say what should be seen, such as: --say \"CLK"
                  + " clock=2MHz within=100ppm family=cmos3.3\"");
    }
    for (Wanted w : plan.places()) {
      if (wanted(w)) {
        out()
            .println(
                w.place()
                    + (w.clock() > 0
                        ? " · clock " + EngineeringNumber.print(w.clock(), Unit.HERTZ, 6)
                        : "")
                    + w.family().map(f -> " · " + f.name()).orElse(""));
        w.guesses().forEach(g -> out().println("  guess: " + g));
        FilledSheets.of(plan.revision(), ladder, w.net()).forEach(s -> SheetText.print(s, out()));
      }
    }
    plan.signatures().forEach(s -> out().println(s.words()));
    for (Map.Entry<String, List<Logged>> b : captures.entrySet()) {
      for (Logged l : b.getValue()) {
        Entry.Capture c = (Entry.Capture) l.entry();
        if (wanted(c.place())) {
          bad |= c.verdict().filter(v -> v == Verdict.OUT).isPresent();
          out()
              .println(
                  b.getKey()
                      + " · "
                      + c.place()
                      + " · "
                      + c.says()
                      + c.verdict().map(v -> " · " + v.words()).orElse(" · nothing to judge by"));
        }
      }
    }
    return bad;
  }
}
