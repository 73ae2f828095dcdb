package ell.cli.jig;

import ell.cli.shell.Json;
import ell.core.jig.Bending;
import ell.core.jig.BreakEven;
import ell.core.jig.JigBook;
import ell.core.jig.JigPlan;
import ell.core.jig.JigWires;
import ell.core.jig.Patterns;
import ell.core.jig.Probe;
import ell.core.jig.ProofBoard;
import ell.core.jig.SelfTest;
import ell.core.jig.Shared;
import ell.core.jig.Tooling;
import java.util.Collection;
import java.util.List;
import java.util.stream.Collectors;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/// The JSON shape of a jig: places in metre, in the revision's own axes.
final class JigJson {
  private JigJson() {}

  static ObjectNode of(JigPlan p) {
    ObjectNode o = Json.object().put("revision", p.revision().title()).put("reach", p.asked());
    ArrayNode probes = o.putArray("probes");
    for (Probe x : p.probes()) {
      ObjectNode one =
          at(
                  probes
                      .addObject()
                      .put("number", x.number())
                      .put("net", x.target().net())
                      .put("place", x.target().place()),
                  x.target().xMm(),
                  x.target().yMm())
              .put("side", x.target().side().key())
              .put("kind", x.target().kind().key())
              .put("head", x.target().kind().head())
              .put("series", x.of().name())
              .put("role", x.role());
      Json.number(one, "gap", 1e-3 * x.gapMm());
      one.put("miss", x.miss())
          .put("force", x.of().newtons())
          .put("drill", 1e-3 * x.of().drillMm());
    }
    ArrayNode missed = o.putArray("unreachable");
    for (JigPlan.Unreachable u : p.unreachable()) {
      missed.addObject().put("net", u.net()).put("why", u.why()).put("remedy", u.remedy());
    }
    o.put("topProbes", p.topProbes());
    Json.number(o, "minGap", 1e-3 * p.minGapMm());
    o.put("force", p.force());
    Json.number(o, "deflection", p.bending().deflection());
    Json.number(o, "strain", p.bending().strain());
    ArrayNode tooling = o.putArray("tooling");
    pin(tooling, p.tooling().round(), "round", p.tooling().made());
    pin(tooling, p.tooling().slot(), "slotted", p.tooling().made());
    ArrayNode fingers = o.putArray("fingers");
    for (Bending.Finger f : p.bending().fingers()) {
      at(fingers.addObject(), f.xMm(), f.yMm()).put("force", f.newtons());
    }
    o.put("fingerSide", p.bending().fingerSide() ? "first" : "second");
    o.put("optimal", p.choice().optimal());
    Json.strings(o, "advice", p.advice());
    more(o, p);
    return o;
  }

  private static void more(ObjectNode o, JigPlan p) {
    o.put("miss", p.miss())
        .put("press", p.press())
        .put("plate", 1e-3 * p.plateMm())
        .put("plateBend", p.plateBend(p.plateMm()))
        .put("targets", p.targets().size());
    double[] c = p.centreMm();
    at(o.putObject("centre"), c[0], c[1]);
    Json.number(o, "moment", p.moment());
    ArrayNode brittle = o.putArray("brittle");
    for (Bending.Brittle b : p.bending().brittle()) {
      ObjectNode one = brittle.addObject().put("part", b.part()).put("strain", b.strain());
      Json.number(one, "finger", 1e-3 * b.fingerMm());
    }
    ArrayNode steps = o.putArray("fingerSteps");
    for (Bending.Step s : p.bending().steps()) {
      ObjectNode one = steps.addObject().put("fingers", s.fingers());
      Json.number(one, "deflection", s.deflection());
      Json.number(one, "strain", s.strain());
    }
    ObjectNode wires = o.putObject("wires").put("grounds", p.wires().grounds());
    ArrayNode buses = wires.putArray("buses");
    for (JigWires.Bus b : p.wires().buses()) {
      buses
          .addObject()
          .put("net", b.net())
          .put("resistor", b.resistor())
          .put("capacitance", b.farads())
          .put("rise", b.rise())
          .put("clock", b.clock());
    }
    ArrayNode supplies = wires.putArray("supplies");
    for (JigWires.Supply s : p.wires().supplies()) {
      supplies
          .addObject()
          .put("net", s.net())
          .put("current", s.amps())
          .put("probes", s.probes())
          .put("drop", s.drop());
    }
    if (!p.probes().isEmpty()) {
      ObjectNode worth = worth(p.worth());
      worth.set("corner", worth(p.corner()));
      worth.put("verdict", p.verdict());
      o.set("worth", worth);
    }
  }

  private static ObjectNode worth(BreakEven b) {
    ObjectNode o = Json.object().put("fixed", b.fixed()).put("saved", b.saved());
    Json.number(o, "boards", b.boards());
    Json.number(o, "low", b.low());
    Json.number(o, "high", b.high());
    return o.put("pays", b.pays()).put("coming", b.coming()).put("words", b.words());
  }

  private static void pin(ArrayNode a, Tooling.Hole h, String shape, boolean made) {
    at(a.addObject(), h.xMm(), h.yMm())
        .put("diameter", 1e-3 * (h.diameterMm() - Tooling.THINNER))
        .put("hole", 1e-3 * h.diameterMm())
        .put("shape", shape)
        .put("assumed", made);
  }

  private static ObjectNode at(ObjectNode o, double xMm, double yMm) {
    return o.put("x", 1e-3 * xMm).put("y", 1e-3 * yMm);
  }

  /// The jig's own checks, and the board that proves it.
  static void proof(ObjectNode o, JigPlan p) {
    SelfTest t = SelfTest.of(p.probes());
    ObjectNode self = o.putObject("selfTest").put("mostOhms", SelfTest.MOST_OHMS);
    t.joined().forEach(self.putArray("joined")::add);
    ArrayNode apart = self.putArray("apart");
    t.apart().forEach(g -> g.forEach(apart.addArray()::add));
    ProofBoard b =
        ProofBoard.of(
            p.revision(),
            p.probes().stream().map(x -> x.target().net()).collect(Collectors.toSet()));
    ObjectNode proof = o.putObject("proof");
    Json.strings(proof, "parts", b.parts());
    Json.strings(proof, "alone", b.alone());
  }

  static void books(ObjectNode o, Collection<JigBook> jigs) {
    ArrayNode all = o.putArray("jigs");
    for (JigBook j : jigs) {
      ObjectNode one =
          all.addObject()
              .put("jig", j.serial())
              .put("revision", j.revision())
              .put("closings", j.closings())
              .put("sinceCheck", j.checked())
              .put("retired", j.retired());
      Json.strings(one, "open", j.open());
      Json.strings(one, "told", j.told());
      ObjectNode worn = one.putObject("changed");
      j.worn().forEach(worn::put);
    }
  }

  static void shared(ObjectNode o, Shared s) {
    ObjectNode x = o.putObject("shared").put("samePlaces", s.samePlaces());
    Json.strings(x, "common", s.common());
    ArrayNode own = x.putArray("personality");
    for (Shared.Own w : s.personality()) {
      ObjectNode one = own.addObject().put("product", w.product()).put("probes", w.probes());
      Json.strings(one, "nets", w.nets());
    }
  }

  static ObjectNode patterns(Patterns p, List<String> outputs) {
    ObjectNode o = Json.object().put("patterns", p.kind().key());
    Json.strings(o, "outputs", outputs);
    Json.strings(o, "vectors", p.vectors());
    caught(o.putObject("shorts"), p.shorts());
    caught(o.putObject("stuck"), p.stuck());
    return o;
  }

  static void caught(ObjectNode o, Patterns.Caught c) {
    o.put("caught", c.caught()).put("total", c.total());
  }
}
