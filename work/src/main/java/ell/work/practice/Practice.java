package ell.work.practice;

import ell.book.Build;
import ell.core.board.Revision;
import ell.core.entry.BoardState;
import ell.core.entry.Entry;
import ell.core.entry.EntryWords;
import ell.core.entry.Logged;
import ell.core.heat.Alloy;
import ell.core.heat.HeatFacts;
import ell.core.json.JsonObject;
import ell.core.order.Method;
import ell.core.order.Step;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.practice.Account;
import ell.core.practice.BestRun;
import ell.core.practice.Hiding;
import ell.core.practice.Level;
import ell.core.rack.Plan;
import ell.core.trace.Choice;
import ell.core.trace.Clues;
import ell.core.trace.Traced;
import ell.core.trace.Tracer;
import ell.work.Workshop;
import ell.work.demo.DemoWorkspace;
import ell.work.send.RevisionFiles;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.trace.Traces;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.stream.Stream;
import tools.jackson.databind.ObjectMapper;
import tools.jackson.databind.node.ObjectNode;

/// A practice: a workspace of its own, with a copy of a revision, a build that was just assembled,
/// and a fault that is hidden in it. Everything in it is done with the same instruments, keys and
/// book as on real boards; nothing of it is ever taken into a real book.
public final class Practice {
  private static final String KEPT = Workspace.PRACTICE;

  private static final String PREFIX = "P";
  private static final int TRIES = 12;

  /// What is kept with a revision and not carried into a practice: it would tell, or speaks of
  /// other boards.
  private static final List<String> LEFT = List.of("faults", "trace-priors");

  private final Workshop w;
  private final JsonObject said;
  private Tracer tracer; // what it has worked out serves every question

  private Practice(Workshop w, JsonObject said) {
    this.w = w;
    this.said = said;
  }

  /// What to practise on.
  ///
  /// @param on a workspace, empty for the demo
  /// @param revision of it, by design and name; empty for its latest
  /// @param level of the course, unless there is a case
  /// @param chosen a case of a trainer
  /// @param seed of what is hidden
  public record Wish(
      Optional<Workshop> on,
      Optional<ell.book.RevisionStore.Id> revision,
      Level level,
      Optional<CaseFile> chosen,
      long seed) {}

  /// The practice that a workspace is, empty for a real one.
  public static Optional<Practice> in(Workshop w) throws IOException {
    return w.book().keepsake(KEPT).map(t -> new Practice(w, JsonObject.parse(t, KEPT)));
  }

  private record Source(Revision revision, Map<String, String> documents) {}

  /// Makes a practice in a new file.
  ///
  /// @throws ActException when the revision has no fault of that level that would show, or a case
  ///   does not fit its revision; no file is left then
  public static void make(Path file, Wish wish) throws IOException, ActException {
    Source source = source(wish);
    if (Files.exists(file)) {
      throw new ActException(file + " is already there; choose another name");
    }
    // under another name until it is whole: killed in the middle, it is no practice that tells
    // nothing
    Path part = file.resolveSibling("." + file.getFileName() + "-" + UUID.randomUUID() + ".part");
    try {
      try (Workshop w = Workshop.create(part, Clock.systemDefaultZone())) {
        w.book().importAll(source.revision(), Optional.empty(), source.documents());
        new Making(w, source.revision(), wish).run();
      }
      Files.move(part, file);
    } finally {
      for (String end : List.of("", "-wal", "-shm", "-lock")) {
        Files.deleteIfExists(part.resolveSibling(part.getFileName() + end));
      }
    }
  }

  private static Source source(Wish wish) throws IOException, ActException {
    if (wish.chosen().isPresent() && !wish.chosen().get().files().isEmpty()) {
      return fromCase(wish.chosen().get());
    }
    if (wish.on().isPresent()) {
      return from(wish.on().get(), wish);
    }
    Path folder = Files.createTempDirectory("ell-practice");
    Path file = folder.resolve("demo.ell");
    try (Workshop demo = DemoWorkspace.make(file, DemoWorkspace.folder(), false)) {
      return from(demo, wish);
    } finally {
      removed(folder);
    }
  }

  private static void removed(Path folder) throws IOException {
    try (Stream<Path> all = Files.walk(folder)) {
      for (Path p : all.sorted(java.util.Comparator.reverseOrder()).toList()) {
        Files.deleteIfExists(p);
      }
    }
  }

  private static Source from(Workshop w, Wish wish) throws IOException, ActException {
    List<ell.book.RevisionStore.Id> all = w.book().revisions();
    if (all.isEmpty()) {
      throw new ActException("there is no revision to practise on");
    }
    ell.book.RevisionStore.Id id =
        wish.chosen()
            .map(c -> new ell.book.RevisionStore.Id(c.design(), c.revision()))
            .or(wish::revision)
            .orElse(all.getLast());
    Revision r = w.revision(id.design(), id.name());
    Map<String, String> documents = new LinkedHashMap<>(w.book().documents(id.design(), id.name()));
    LEFT.forEach(documents::remove);
    return new Source(r, documents);
  }

  private static Source fromCase(CaseFile c) throws IOException, ActException {
    Path folder = Files.createTempDirectory("ell-case");
    try {
      Map<String, String> documents = new LinkedHashMap<>();
      for (Map.Entry<String, String> f : c.files().entrySet()) {
        if (f.getKey().startsWith("document.")) {
          documents.put(f.getKey().substring("document.".length()), f.getValue());
        } else {
          Files.writeString(folder.resolve(f.getKey()), f.getValue());
        }
      }
      return new Source(RevisionFiles.read(folder, c.design(), c.revision()), documents);
    } finally {
      removed(folder);
    }
  }

  /// A case of a revision, to be handed on as one file.
  ///
  /// @throws ActException when a fault does not fit the revision
  public static CaseFile caseOf(
      Workshop w,
      ell.book.RevisionStore.Id id,
      List<Fault> faults,
      String title,
      String words,
      String lesson)
      throws IOException, ActException {
    Revision r = w.revision(id.design(), id.name());
    fit(faults, r);
    Map<String, String> files = new LinkedHashMap<>();
    Path folder = Files.createTempDirectory("ell-case");
    try {
      RevisionFiles.write(w.book().revision(id.design(), id.name()).orElseThrow(), folder);
      try (Stream<Path> all = Files.list(folder)) {
        for (Path p : all.sorted().toList()) {
          files.put(p.getFileName().toString(), Files.readString(p));
        }
      }
    } finally {
      removed(folder);
    }
    w.book()
        .documents(id.design(), id.name())
        .forEach((k, v) -> {
          if (!LEFT.contains(k) && k.matches("[a-z0-9-]{1,60}")) {
            files.put("document." + k, v);
          }
        });
    return new CaseFile(title, words, lesson, id.design(), id.name(), faults, files);
  }

  private static void fit(List<Fault> faults, Revision r) throws ActException {
    for (Fault f : faults) {
      Optional<String> unfit = FaultWords.unfit(f, r);
      if (unfit.isPresent()) {
        throw new ActException(FaultWords.words(f) + ": " + unfit.get());
      }
    }
  }

  /// Makes one, step by step.
  private record Making(Workshop w, Revision revision, Wish wish) {
    void run() throws IOException, ActException {
      Optional<CaseFile> c = wish.chosen();
      boolean design =
          c.map(x ->
                  x.faults().stream()
                      .anyMatch(f -> f instanceof Fault.Tied || f instanceof Fault.Loose))
              .orElse(wish.level() == Level.DESIGN);
      int boards = design ? Level.DESIGN.boards() : 1;
      Build build =
          w.makeBuild(
              revision.design(), revision.name(), boards, Method.IRON, Alloy.SAC305, PREFIX, "", 1);
      for (String b : build.boards()) {
        assembled(build, b);
      }
      String board = build.boards().getFirst();
      Hiding.Hidden hidden = hidden(board);
      List<Fault> faults = c.map(CaseFile::faults).orElse(List.of(hidden.fault()));
      StringBuilder json = new StringBuilder("{");
      for (String b : build.boards()) {
        json.append(json.length() > 1 ? "," : "").append('"').append(b).append("\":[");
        for (int i = 0; i < faults.size(); i++) {
          json.append(i > 0 ? "," : "")
              .append('"')
              .append(FaultWords.words(faults.get(i)))
              .append('"');
        }
        json.append(']');
      }
      w.ladders().keepFaults(revision.design(), revision.name(), json.append('}').toString());
      if (hidden.symptom().isPresent()) {
        w.log(board, List.of(hidden.symptom().get())).orThrow();
      }
      ObjectNode n = new ObjectMapper().createObjectNode().put("practice", 1);
      n.put("id", UUID.randomUUID().toString());
      n.put("level", c.isPresent() ? 0 : wish.level().number());
      n.put("title", c.map(CaseFile::title).orElse(wish.level().title()));
      n.put("lesson", c.map(CaseFile::lesson).orElse(wish.level().lesson()));
      String known =
          hidden
              .symptom()
              .map(e -> "Somebody has seen: " + EntryWords.of(e) + ".")
              .orElse("It was just assembled, and nothing was measured yet.");
      n.put("words", c.map(x -> sentence(x.words()) + known).orElse(known));
      n.put("board", board).put("seed", wish.seed());
      n.put(
          "begun",
          OffsetDateTime.now(w.space().clock()).truncatedTo(ChronoUnit.SECONDS).toString());
      n.put("from", w.book().last());
      w.book().putKeepsake(KEPT, n.toString());
    }

    /// What a trainer wrote, ended as a sentence is, so that another can follow it; nothing of
    /// nothing.
    private static String sentence(String words) {
      String w = words.strip();
      return w.isEmpty() ? "" : w.matches("(?s).*[.!?:]") ? w + " " : w + ". ";
    }

    /// Every step of the order is done, but for the gates.
    private void assembled(Build build, String board) throws IOException, ActException {
      Plan plan = w.plan(build);
      int last =
          plan.order().steps().stream()
              .filter(s -> s.action() != Step.Action.GATE)
              .mapToInt(Step::number)
              .max()
              .orElse(0);
      if (last > 0) {
        w.type(board, "steps 1-" + last, OffsetDateTime.now(w.space().clock())).orThrow();
      }
    }

    private Hiding.Hidden hidden(String board) throws IOException, ActException {
      Traces.Question q = w.traces().question(board);
      Hiding hiding =
          new Hiding(revision, w.plan(w.buildOf(board)).ladder(), q.listed().suspects());
      if (wish.chosen().isPresent()) {
        List<Fault> all = wish.chosen().get().faults();
        fit(all, revision);
        return hiding
            .shown(all.getFirst(), wish.seed())
            .orElse(new Hiding.Hidden(all.getFirst(), Optional.empty()));
      }
      // one that can be found: the best run does
      Tracer tracer = new Tracer(q.board(), q.listed());
      for (int i = 0; i < TRIES; i++) {
        Optional<Hiding.Hidden> h = hiding.of(wish.level(), wish.seed() + 7919L * i);
        if (h.isEmpty()) {
          break; // it was looked through whole
        }
        if (BestRun.of(tracer, h.get().fault(), h.get().symptom(), wish.seed()).right()) {
          return h.get();
        }
      }
      throw new ActException(
          revision.title()
              + " has no fault for level "
              + wish.level().number()
              + " ("
              + wish.level().title()
              + ") that would show at a rail, a lamp or in the current and could be told from"
              + " others; take another level or another seed");
    }
  }

  private String text(String key) {
    return said.has(key) ? said.text(key) : "";
  }

  /// Level of the course, 0 for a case of a trainer.
  public int level() {
    return (int) said.number("level");
  }

  /// What it is about, in a few words.
  public String title() {
    return text("title");
  }

  /// What is to be learned.
  public String lesson() {
    return text("lesson");
  }

  /// What is known when the board is handed over.
  public String words() {
    return text("words");
  }

  /// The board that is looked at; of a mistake of the design there are others.
  public String board() {
    return text("board");
  }

  /// What is hidden, for when it is over.
  public List<Fault> faults() throws IOException, ActException {
    Build b = w.buildOf(board());
    return w.ladders().faults(b.design(), b.revision()).getOrDefault(board(), List.of());
  }

  /// Whether it was given up.
  public boolean givenUp() {
    return said.has("givenUp");
  }

  /// Gives it up: from now on it is told.
  public Practice giveUp() throws IOException {
    ObjectNode n = new ObjectMapper().createObjectNode();
    for (String k : said.keys()) {
      switch (k) {
        case "practice", "level", "seed", "from" -> n.put(k, (long) said.number(k));
        default -> n.put(k, said.text(k));
      }
    }
    n.put(
        "givenUp",
        OffsetDateTime.now(w.space().clock()).truncatedTo(ChronoUnit.SECONDS).toString());
    w.book().putKeepsake(KEPT, n.toString());
    return in(w).orElseThrow();
  }

  private List<Logged> since() throws IOException {
    long from = (long) said.number("from");
    return w.entries(board()).stream().filter(l -> l.number() > from).toList();
  }

  /// How it goes, or went.
  public Account account() throws IOException, ActException {
    Revision r = w.plan(w.buildOf(board())).revision();
    Traced t = w.traces().of(board(), 1);
    return Account.of(r, since(), t, faults(), givenUp());
  }

  /// What would have told most, before each measurement that was made.
  ///
  /// @param choice empty where nothing was left to ask
  public record Better(long entry, Optional<Choice> choice) {}

  /// The best next measurement before each that was made, over its whole length.
  public List<Better> better(Account account) throws IOException, ActException {
    Tracer own = tracer();
    List<Logged> all = w.entries(board());
    List<Better> found = new ArrayList<>();
    for (Account.Look k : account.looks()) {
      List<Logged> before = all.stream().filter(l -> l.number() < k.entry()).toList();
      BoardState state = BoardState.of(board(), before);
      Traced t =
          own.trace(Clues.of(own.board(), state), Map.of(), HeatFacts.of(state).heatCycles(), 1);
      found.add(new Better(k.entry(), t.next().stream().findFirst()));
    }
    return found;
  }

  /// The same search by the measurements that tell most a minute.
  public BestRun best() throws IOException, ActException {
    long from = (long) said.number("from");
    Optional<Entry> symptom =
        w.entries(board()).stream()
            .filter(l -> l.number() <= from)
            .map(Logged::entry)
            .filter(e ->
                e instanceof Entry.Reading
                    || e instanceof Entry.Check
                    || e instanceof Entry.Symptom)
            .reduce((_, b) -> b);
    return BestRun.of(tracer(), faults().getFirst(), symptom, (long) said.number("seed"));
  }

  private synchronized Tracer tracer() throws IOException, ActException {
    if (tracer == null) {
      Traces.Question q = w.traces().question(board());
      tracer = new Tracer(q.board(), q.listed());
    }
    return tracer;
  }

  /// The run, for the list of runs; once it is over.
  public Runs.Run run(Account a, BestRun best) throws IOException, ActException {
    Plan plan = w.plan(w.buildOf(board()));
    return new Runs.Run(
        text("id"),
        OffsetDateTime.parse(text("begun")),
        plan.revision().title(),
        level(),
        a.right(),
        a.minutes(),
        best.minutes(),
        a.looks().stream().mapToDouble(Account.Look::bits).average().orElse(0),
        a.parts().size());
  }

  /// Looks that a workspace is no practice, before something of it goes into a real book.
  ///
  /// @throws ActException when it is
  public static void mustBeReal(Workshop w, String what) throws IOException, ActException {
    if (in(w).isPresent()) {
      throw new ActException("this is a practice book: " + what + " is for real ones");
    }
  }
}
