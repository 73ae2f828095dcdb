package ell.cli.practice;

import ell.cli.shell.Json;
import ell.core.power.FaultWords;
import ell.core.practice.Account;
import ell.core.practice.BestRun;
import ell.core.practice.Level;
import ell.core.trace.Choice;
import ell.work.practice.Practice;
import ell.work.practice.Runs;
import java.util.List;
import java.util.Optional;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The shapes of practice.
final class PracticeJson {
  private PracticeJson() {}

  static ObjectNode course(List<Runs.Run> runs) {
    ObjectNode root = Json.object();
    ArrayNode course = root.putArray("course");
    for (Level l : Level.course()) {
      ObjectNode n = course.addObject();
      n.put("level", l.number()).put("title", l.title()).put("lesson", l.lesson());
      List<Runs.Run> own = runs.stream().filter(r -> r.level() == l.number()).toList();
      n.put("runs", own.size()).put("right", own.stream().filter(Runs.Run::right).count());
    }
    ArrayNode all = root.putArray("runs");
    for (Runs.Run r : runs) {
      all.addObject()
          .put("at", r.at().toString())
          .put("board", r.board())
          .put("level", r.level())
          .put("right", r.right())
          .put("minutes", r.minutes())
          .put("best", r.best())
          .put("bits", r.bits())
          .put("parts", r.parts());
    }
    return root;
  }

  static ObjectNode of(Practice p, Account a, Optional<BestRun> best, List<Practice.Better> better)
      throws Exception {
    ObjectNode root = Json.object();
    root.put("board", p.board()).put("level", p.level()).put("title", p.title());
    root.put("lesson", p.lesson()).put("words", p.words());
    root.put("over", a.over()).put("givenUp", p.givenUp());
    root.put("found", a.found());
    root.put("minutes", a.minutes());
    ArrayNode parts = root.putArray("parts");
    a.parts().forEach(parts::add);
    if (!Double.isNaN(a.cost())) {
      root.put("cost", a.cost());
    }
    ArrayNode looks = root.putArray("measurements");
    for (Account.Look k : a.looks()) {
      ObjectNode n = looks.addObject();
      n.put("entry", k.entry()).put("words", k.words()).put("minutes", k.minutes());
      if (a.over()) {
        n.put("bits", k.bits()).put("left", k.left());
        better.stream()
            .filter(b -> b.entry() == k.entry())
            .findFirst()
            .flatMap(Practice.Better::choice)
            .ifPresent(c -> choice(n.putObject("best"), c));
      }
    }
    if (best.isEmpty()) {
      return root;
    }
    root.put("right", a.right());
    ArrayNode faults = root.putArray("faults");
    p.faults().forEach(f -> faults.add(FaultWords.words(f)));
    ArrayNode risks = root.putArray("risks");
    a.risks().forEach(risks::add);
    ArrayNode habits = root.putArray("habits");
    a.habits().forEach(habits::add);
    BestRun b = best.get();
    ObjectNode n = root.putObject("best");
    n.put("minutes", b.minutes())
        .put("found", b.found())
        .put("right", b.right())
        .put("sure", b.sure());
    n.put("entropy", b.begin()).put("bound", b.bound());
    ArrayNode steps = n.putArray("measurements");
    for (BestRun.Step s : b.steps()) {
      steps
          .addObject()
          .put("line", s.line())
          .put("showed", s.showed())
          .put("minutes", s.minutes())
          .put("bits", s.bits());
    }
    return root;
  }

  private static void choice(ObjectNode n, Choice c) {
    n.put("line", c.probe().line()).put("bits", c.information()).put("minutes", c.minutes());
  }
}
