package ell.work.prove;

import ell.book.BookException;
import ell.book.Build;
import ell.core.entry.BoardState;
import ell.core.prove.BuildProof;
import ell.core.prove.PlanKnown;
import ell.core.prove.PlanProposal;
import ell.core.prove.PlanReader;
import ell.core.prove.PlanText;
import ell.core.prove.TestAct;
import ell.core.prove.TestPlan;
import ell.core.prove.TestStep;
import ell.core.prove.UseGate;
import ell.core.prove.UseRules;
import ell.core.rack.Plan;
import ell.work.errata.KeptErrata;
import ell.work.space.ActException;
import ell.work.space.Workspace;
import ell.work.space.Workspace.Change;
import ell.work.talk.Scripts;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// Test plans of revisions: kept as they were written, or proposed.
public final class Proofs {
  /// What is kept with a revision.
  public static final String PLAN = "proof";

  /// What must be so before a board is used, kept likewise.
  public static final String RULES = "use";

  private static final long LONGEST = 1 << 20;

  private final Workspace space;
  private final Scripts scripts;
  private final KeptErrata errata;

  /// Those of a workspace.
  public Proofs(Workspace space, Scripts scripts, KeptErrata errata) {
    this.space = space;
    this.scripts = scripts;
    this.errata = errata;
  }

  /// What is known where a plan is proposed, checked and judged.
  public PlanKnown known(Plan plan) throws BookException {
    return new PlanKnown(
        plan.revision(),
        plan.ladder(),
        plan.beep(),
        plan.pulse(),
        plan.talk(),
        scripts.kept(plan.revision().design(), plan.revision().name()));
  }

  /// The text that is kept with a revision, remarks and all; empty when none is.
  public Optional<String> written(Plan plan) throws BookException {
    return space
        .book()
        .document(plan.revision().design(), plan.revision().name(), PLAN)
        .filter(t -> !t.isBlank());
  }

  /// The plan that is kept with a revision, empty when none is.
  ///
  /// @throws ActException when what is kept is none
  public Optional<TestPlan> kept(Plan plan) throws BookException, ActException {
    try {
      return written(plan).map(t -> PlanReader.read(t, plan.revision().title()));
    } catch (IllegalArgumentException e) {
      throw new ActException("the plan that is kept: " + e.getMessage(), e);
    }
  }

  /// Places that the plan which is kept with a revision measures at: what a jig has to reach.
  public List<String> places(Plan plan) throws BookException, ActException {
    List<String> all = new java.util.ArrayList<>();
    for (TestStep s : kept(plan).map(TestPlan::steps).orElse(List.of())) {
      switch (s.act()) {
        case TestAct.Ohms o -> all.addAll(List.of(o.a(), o.b()));
        case TestAct.Volts v -> all.add(v.place());
        case TestAct.Wave w -> all.add(w.place());
        case TestAct.Vectors v -> all.addAll(v.nets());
        default -> {} // touches nothing
      }
    }
    return all.stream().distinct().toList();
  }

  /// The plan of a revision: kept, else proposed.
  ///
  /// @param instruments kinds that the bench has, empty when it is not known
  public TestPlan of(Plan plan, Optional<Collection<String>> instruments)
      throws BookException, ActException {
    Optional<TestPlan> kept = kept(plan);
    return kept.isPresent() ? kept.get() : PlanProposal.of(known(plan), instruments);
  }

  /// Reads a plan from a file.
  ///
  /// @throws ActException when it is none, with every line that is wrong
  public static TestPlan read(Path file) throws IOException, ActException {
    return read(text(file), file);
  }

  private static TestPlan read(String text, Path file) throws ActException {
    String name = file.getFileName().toString().replaceAll("\\.[^.]*$", "");
    try {
      return PlanReader.read(text, name);
    } catch (IllegalArgumentException e) {
      throw new ActException(
          e.getMessage()
              .lines()
              .map(l -> file + ", " + l)
              .reduce((a, b) -> a + "\n" + b)
              .orElse(""),
          e);
    }
  }

  private static String text(Path file) throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException("there is no plan " + file);
    }
    if (Files.size(file) > LONGEST) {
      throw new ActException(file + ": a plan is a few pages, this is none");
    }
    try {
      return Files.readString(file);
    } catch (CharacterCodingException e) {
      throw new ActException(file + ": a plan is text in UTF-8, this is none", e);
    }
  }

  /// Keeps a plan with a revision as it was written; an empty file takes the one that is kept away.
  ///
  /// @return the plan that holds from now on
  /// @throws ActException when it is none; nothing is kept then
  public TestPlan keep(Plan plan, Path file) throws IOException, ActException {
    String text = text(file);
    if (!text.isBlank()) {
      read(text, file);
    }
    return keep(plan, text);
  }

  /// Keeps a plan as text.
  ///
  /// @throws ActException when it is none; nothing is kept then
  public TestPlan keep(Plan plan, String text) throws IOException, ActException {
    keep(plan.revision().design(), plan.revision().name(), text);
    return of(plan, Optional.empty());
  }

  /// Keeps a plan as text with a revision; an empty one takes what is kept away.
  ///
  /// @throws ActException when it is none; nothing is kept then
  public void keep(String design, String name, String text) throws IOException, ActException {
    if (!text.isBlank()) {
      try {
        PlanReader.read(text, design + " rev " + name);
      } catch (IllegalArgumentException e) {
        throw new ActException(e.getMessage(), e);
      }
    }
    space.book().putDocument(design, name, PLAN, text);
    space.tell(new Change.Revision(design, name));
  }

  /// What must be so before a board of a revision is used.
  ///
  /// @throws ActException when what is kept cannot be understood
  public UseRules rules(String design, String name) throws BookException, ActException {
    try {
      return UseRules.read(space.book().document(design, name, RULES).orElse(""));
    } catch (IllegalArgumentException e) {
      throw new ActException("what is kept of use: " + e.getMessage(), e);
    }
  }

  /// Keeps what is said of use, such as `use=charges`; nothing behind the `=` takes it back.
  ///
  /// @throws ActException when something cannot be understood; nothing is kept then
  public UseRules say(String design, String name, List<String> words)
      throws BookException, ActException {
    UseRules r = rules(design, name);
    try {
      for (String w : words) {
        r = r.say(w);
      }
    } catch (IllegalArgumentException e) {
      throw new ActException(e.getMessage(), e);
    }
    space.book().putDocument(design, name, RULES, r.text());
    space.tell(new Change.Revision(design, name));
    return r;
  }

  /// Whether a board may be used.
  public UseGate gate(Plan plan, BoardState state) throws BookException, ActException {
    return UseGate.of(
        new UseGate.Asked(
            plan.revision(),
            plan.order(),
            plan.beep(),
            plan.ladder(),
            state,
            errata.of(plan.revision().design(), plan.revision().name())),
        rules(plan.revision().design(), plan.revision().name()));
  }

  /// What the proofs of a build say.
  public BuildProof build(Plan plan, Build build) throws IOException, ActException {
    Map<String, BoardState> states = new LinkedHashMap<>();
    for (String b : build.boards()) {
      states.put(b, space.state(b));
    }
    return BuildProof.of(of(plan, Optional.empty()), known(plan), states);
  }

  /// What the proofs of every board of a revision say of a plan, whatever build it is of.
  public BuildProof everyBoard(Plan plan, TestPlan tests) throws IOException {
    Map<String, BoardState> states = new LinkedHashMap<>();
    for (Build b : space.book().builds()) {
      if (b.design().equals(plan.revision().design())
          && b.revision().equals(plan.revision().name())) {
        for (String board : b.boards()) {
          states.put(board, space.state(board));
        }
      }
    }
    return BuildProof.of(tests, known(plan), states);
  }

  /// The text of a plan by the fingerprint of a run, empty when it is not kept here.
  public Optional<String> text(String sha256) throws BookException {
    return space
        .book()
        .photograph(sha256)
        .map(b -> new String(b, java.nio.charset.StandardCharsets.UTF_8));
  }

  /// The plan of a run, as it was when it ran.
  public Optional<TestPlan> plan(String sha256) throws BookException {
    return text(sha256).map(t -> PlanReader.read(t, "plan"));
  }

  /// Keeps the text of a plan, before a run of it is logged.
  ///
  /// @return its fingerprint
  String keep(TestPlan plan) throws BookException {
    byte[] body = PlanText.of(plan).getBytes(java.nio.charset.StandardCharsets.UTF_8);
    String sha = fingerprint(plan);
    space.book().keepFile(sha, "plan.txt", body);
    return sha;
  }

  /// The fingerprint of a plan.
  static String fingerprint(TestPlan plan) {
    try {
      return java.util.HexFormat.of()
          .formatHex(
              java.security.MessageDigest.getInstance("SHA-256")
                  .digest(PlanText.of(plan).getBytes(java.nio.charset.StandardCharsets.UTF_8)));
    } catch (java.security.NoSuchAlgorithmException e) {
      throw new IllegalStateException(e); // every JDK has it
    }
  }
}
