package ell.core.jig;

import ell.core.quantity.Unit;
import ell.core.sheet.Input;
import ell.core.sheet.Sheet;
import ell.core.sheet.Worked;
import java.util.List;
import java.util.Map;

/// The worked sheets of jigs, `jig.*`.
public final class JigSheets {
  private JigSheets() {}

  /// Every stand-alone sheet of this stage.
  public static List<Sheet> all() {
    return List.of(breakEven(), force(), plate(), landing(), patterns(), supply());
  }

  private static Sheet breakEven() {
    return new Sheet(
        "jig.break-even",
        "After how many boards a jig has paid",
        List.of(
            Input.number("jigCost", Unit.MONEY).in(0, 1e9),
            Input.number("hours", Unit.ONE).in(0, 1e6),
            Input.number("hourRate", Unit.MONEY).in(0, 1e6),
            Input.number("minutesSaved", Unit.ONE).in(-1e6, 1e6),
            Input.number("escapes", Unit.ONE).in(0, 1).or("0"),
            Input.number("escapePrice", Unit.MONEY).in(0, 1e9).or("0")),
        List.of(),
        Sheet.results("boards, fixed, saved"),
        List.of("fixed cost over what a board saves"),
        (a, s) -> {
          double fixed = a.number("jigCost") + a.number("hours") * a.number("hourRate");
          double saved =
              a.number("minutesSaved") / 60 * a.number("hourRate")
                  + a.number("escapes") * a.number("escapePrice");
          double boards = BreakEven.boards(fixed, saved);
          s.line("fixed", "jigCost + hours · hourRate", fixed, Unit.MONEY)
              .line(
                  "saved",
                  "minutesSaved / 60 · hourRate + escapes · escapePrice",
                  saved,
                  Unit.MONEY)
              .result("fixed", fixed)
              .result("saved", saved);
          if (Double.isInfinite(boards)) {
            s.line("boards", "fixed / saved", "never: a board costs no less with it")
                .result("boards", "never");
          } else {
            s.line("boards", "fixed / saved, rounded up", boards, Unit.ONE)
                .result("boards", boards);
          }
          return s.assume("hours and minutes are the maker's own, at one price").done();
        });
  }

  private static Sheet force() {
    return new Sheet(
        "jig.force",
        "What probes press with",
        List.of(
            Input.whole("probes").in(1, 1e6),
            Input.number("force", Unit.NEWTON).in(1e-3, 100).or("1.5N"),
            Input.number("hand", Unit.NEWTON).in(1, 1000).or("60N"),
            Input.number("lever", Unit.ONE).in(1, 50).or("5")),
        List.of(),
        Sheet.results("total N, closing N, closed"),
        List.of("sum of the springs; what a hand can press: common practice, no source"),
        (a, s) -> {
          double total = a.number("probes") * a.number("force");
          double lever = total / a.number("lever");
          String closed =
              total <= a.number("hand")
                  ? "by hand"
                  : lever <= a.number("hand") ? "by a lever" : "by a press";
          return s.line("total", "probes · force", total, Unit.NEWTON)
              .line("at the lever", "total / lever", lever, Unit.NEWTON)
              .line("closed", "against what a hand presses", closed)
              .result("total", total)
              .result("closing", lever)
              .result("closed", closed)
              .caution("springs and closing plates pinch: keep fingers out of them")
              .done();
        });
  }

  private static Sheet plate() {
    return new Sheet(
        "jig.plate",
        "How a plate bends that is held along its edge",
        List.of(
            Input.number("length", Unit.METRE).in(1e-3, 10),
            Input.number("width", Unit.METRE).in(1e-3, 10),
            Input.number("thickness", Unit.METRE).in(1e-5, 0.5),
            Input.number("modulus", Unit.PASCAL).in(1e6, 1e13).or("22GPa"),
            Input.number("load", Unit.PASCAL).in(0, 1e9).maybe(),
            Input.number("force", Unit.NEWTON).in(0, 1e9).maybe(),
            Input.number("poisson", Unit.ONE).in(0, 0.499).or("0.3")),
        List.of(List.of("load"), List.of("force")),
        Sheet.results("deflection m, strain, alpha, pressure Pa"),
        List.of(
            "Navier's series; Timoshenko, Theory of Plates and Shells, simply supported rectangle",
            "Roark's Formulas for Stress and Strain, rectangular plates: alpha of a/b"),
        (a, s) -> {
          double l = a.number("length");
          double w = a.number("width");
          double t = a.number("thickness");
          double e = a.number("modulus");
          double q = a.has("load") ? a.number("load") : a.number("force") / (l * w);
          PlateSeries p = PlateSeries.of(l, w, t, e, a.number("poisson"), q);
          double b = Math.min(l, w);
          double alpha =
              q > 0
                  ? p.deflection() * e * t * t * t / (q * Math.pow(b, 4))
                  : PlateSeries.of(l, w, t, e, a.number("poisson"), 1).deflection()
                      * e
                      * t
                      * t
                      * t
                      / Math.pow(b, 4);
          s.line("q", a.has("load") ? "load" : "force / (length · width)", q, Unit.PASCAL)
              .line("a / b", "longer side over shorter", Math.max(l, w) / b, Unit.ONE)
              .line("D", "E t³ / (12 (1 − ν²))", p.rigidity(), "N m")
              .line("alpha", "w E t³ / (q b⁴)", alpha, Unit.ONE)
              .line("w", "16 q / (π⁶ D) · sum of sines over odd m, n", p.deflection(), Unit.METRE)
              .line("strain", "t / 2 · curvature in the middle", p.strain(), Unit.ONE)
              .result("deflection", p.deflection())
              .result("strain", p.strain())
              .result("alpha", alpha)
              .result("pressure", q);
          if (p.deflection() > t / 2) {
            s.caution("it bends by more than half its thickness: it is stiffer than this says");
          }
          return s.assume("held along all four edges, free to turn there, evenly loaded").done();
        });
  }

  private static Sheet landing() {
    return new Sheet(
        "jig.landing",
        "Whether a probe lands on its pad",
        List.of(
            Input.number("pad", Unit.METRE).in(1e-5, 0.1),
            Input.number("drill", Unit.METRE).in(0, 0.01).or("0.05mm"),
            Input.number("hole", Unit.METRE).in(0, 0.01).or("0.08mm"),
            Input.number("artwork", Unit.METRE).in(0, 0.01).or("0.05mm"),
            Input.number("pin", Unit.METRE).in(0, 0.01).or("0.05mm"),
            Input.number("guide", Unit.METRE).in(0, 0.01).or("0.03mm"),
            Input.number("tilt", Unit.METRE).in(0, 0.01).or("0.08mm"),
            Input.whole("probes").in(1, 100_000).or("1")),
        List.of(),
        Sheet.results("rss m, worst m, miss, jigMiss"),
        List.of(
            "root sum square and worst case of independent errors",
            "JCGM 100:2008, 4.3.7: a limit equally likely up to it has a deviation of limit / √3",
            "Rayleigh: chance to fall outside a circle, exp(−r² / 2σ²)"),
        (a, s) -> {
          double[] all = {
            a.number("drill"),
            a.number("hole"),
            a.number("artwork"),
            a.number("pin"),
            a.number("guide"),
            a.number("tilt")
          };
          double squares = 0;
          double worst = 0;
          for (double x : all) {
            squares += x * x;
            worst += x;
          }
          double rss = Math.sqrt(squares);
          double sigma = rss / Math.sqrt(3);
          double r = a.number("pad") / 2;
          double miss = sigma == 0 ? 0 : Math.exp(-r * r / (2 * sigma * sigma));
          double jig = -Math.expm1(a.number("probes") * Math.log1p(-miss));
          return s.line(
                  "rss", "√(drill² + hole² + artwork² + pin² + guide² + tilt²)", rss, Unit.METRE)
              .line("worst", "sum of all", worst, Unit.METRE)
              .line("σ", "rss / √3", sigma, Unit.METRE)
              .line("r", "pad / 2", r, Unit.METRE)
              .line("miss", "exp(−r² / 2σ²)", miss, Unit.ONE)
              .line("jig misses", "1 − (1 − miss)^probes", jig, Unit.ONE)
              .result("rss", rss)
              .result("worst", worst)
              .result("miss", miss)
              .result("jigMiss", jig)
              .assume("a round pad near the round tooling pin; errors do not depend on each other")
              .assume("their sum is normal: of few errors the true chance is less")
              .done();
        });
  }

  private static Sheet patterns() {
    return new Sheet(
        "jig.patterns",
        "Which shorts and stuck lines a set of patterns finds",
        List.of(
            Input.whole("outputs").in(1, Patterns.MOST),
            Input.choice("kind", Map.of(), "walking", "counting", "complement", "all-together")
                .or("counting")),
        List.of(),
        Sheet.results(
            "vectors, shortsCaught, shortsTotal, stuckCaught, stuckTotal, countingVectors"),
        List.of(
            "Kautz, IEEE Transactions on Computers C-23, 1974: ceil(log2(n + 2)) vectors",
            "Wagner, International Test Conference, 1987: modified counting sequence"),
        (a, s) -> {
          Patterns p = Patterns.of(Patterns.Kind.of(a.text("kind")), (int) a.whole("outputs"));
          Patterns.Caught shorts = p.shorts();
          Patterns.Caught stuck = p.stuck();
          int least = Patterns.counted((int) a.whole("outputs"));
          return s.line("vectors", "of this kind", p.vectors().size(), Unit.ONE)
              .line("least", "ceil(log2(outputs + 2))", least, Unit.ONE)
              .line("shorts", "pairs that differ in a vector", shorts.caught(), Unit.ONE)
              .line("of", "outputs · (outputs − 1) / 2", shorts.total(), Unit.ONE)
              .line("stuck", "lines set both ways count twice", stuck.caught(), Unit.ONE)
              .result("vectors", (double) p.vectors().size())
              .result("shortsCaught", (double) shorts.caught())
              .result("shortsTotal", (double) shorts.total())
              .result("stuckCaught", (double) stuck.caught())
              .result("stuckTotal", (double) stuck.total())
              .result("countingVectors", (double) least)
              .assume("of two outputs that are joined, both read alike, whichever wins")
              .done();
        });
  }

  private static Sheet supply() {
    return new Sheet(
        "jig.supply",
        "What probes and wires lose of a supply",
        List.of(
            Input.number("current", Unit.AMPERE).in(0, 1000),
            Input.whole("probes").in(1, 1000).or("1"),
            Input.whole("grounds").in(1, 1000).or("1"),
            Input.number("probe", Unit.OHM).in(0, 10).or("0.03"),
            Input.number("length", Unit.METRE).in(0, 100).or("0.3m"),
            Input.number("wire", Unit.OHM).in(0, 100).or("0.085"),
            Input.number("each", Unit.AMPERE).in(0.01, 100).or("3A")),
        List.of(),
        Sheet.results("drop V, needed"),
        List.of("Ohm's law; 85 mΩ/m of copper of 0.2 mm², from memory"),
        (a, s) -> {
          double i = a.number("current");
          double contact = a.number("probe") * (1 / a.number("probes") + 1 / a.number("grounds"));
          double wire = 2 * a.number("length") * a.number("wire");
          double needed = Math.max(1, Math.ceil(i / a.number("each") - 1e-9));
          return s.line("contacts", "probe / probes + probe / grounds", contact, Unit.OHM)
              .line("wires", "2 · length · wire per metre", wire, Unit.OHM)
              .line("drop", "current · (contacts + wires)", i * (contact + wire), Unit.VOLT)
              .line("probes needed", "current / each, rounded up", needed, Unit.ONE)
              .result("drop", i * (contact + wire))
              .result("needed", needed)
              .assume("every probe bears its share")
              .done();
        });
  }

  /// Whether a jig pays.
  public static Worked worth(JigPlan p) {
    BreakEven.Costs c = p.costs();
    BreakEven b = p.worth();
    Worked.Builder s = Worked.of("jig.worth", "Whether the jig pays: " + p.revision().title());
    s.line("parts", p.probes().size() + " probes, four plates, a frame", c.parts(), Unit.MONEY)
        .line("fixed", "parts + hours · hourRate", b.fixed(), Unit.MONEY)
        .line(
            "saved",
            "minutesBefore · hourRate − minutesAfter · helperRate, and escapes",
            b.saved(),
            Unit.MONEY);
    if (Double.isInfinite(b.boards())) {
      s.line("boards", "fixed / saved", "never");
    } else {
      s.line("boards", "fixed / saved, rounded up", b.boards(), Unit.ONE);
    }
    s.line("pays", "share of draws that pay within " + count(b.coming()), b.pays(), Unit.ONE);
    BreakEven corner = p.corner();
    s.line("a corner", "four probes pressed on by hand, and its hours", corner.fixed(), Unit.MONEY);
    if (Double.isInfinite(corner.boards())) {
      s.line("it pays after", "its cost over what it saves", "never");
    } else {
      s.line("it pays after", "its cost over what it saves", corner.boards(), Unit.ONE);
    }
    s.result("boards", b.boards())
        .result("pays", b.pays())
        .source("expected cost; spread by 20,000 even draws around what was said")
        .assume("prices, hours and minutes are typical until they are said: jig --say hours=10")
        .assume("a corner of four probes reaches power, ground and two signals at a time");
    return s.done();
  }

  private static String count(double n) {
    return String.format(java.util.Locale.ROOT, "%.0f boards", n);
  }

  /// How a probe lands.
  public static Worked probe(JigPlan p, Probe x) {
    Landing.Errors e = p.setup().errors();
    Landing.Error at =
        Landing.at(x.target().xMm(), x.target().yMm(), p.tooling().pins(), e, x.of().tiltMm());
    return Worked.of("jig.probe", "How probe " + x.number() + " lands on " + x.target().place())
        .line("drill", "of the plates against each other", 1e-3 * e.drill(), Unit.METRE)
        .line("hole", "tooling hole against copper", 1e-3 * e.hole(), Unit.METRE)
        .line("artwork", "copper against drawing", 1e-3 * e.artwork(), Unit.METRE)
        .line("pin", "play of a tooling pin", 1e-3 * e.pin(), Unit.METRE)
        .line("guide", "play in the guide plate", 1e-3 * e.guide(), Unit.METRE)
        .line("tilt", "of series " + x.of().name(), 1e-3 * x.of().tiltMm(), Unit.METRE)
        .line("rss", "root sum square, turning with the pins", 1e-3 * at.rss(), Unit.METRE)
        .line("worst", "sum of all", 1e-3 * at.worst(), Unit.METRE)
        .line(
            "copper",
            "the lesser of its sides",
            1e-3 * Math.min(x.target().widthMm(), x.target().heightMm()),
            Unit.METRE)
        .line("scrub", "stroke · tilt over what is guided", 1e-3 * x.of().scrubMm(), Unit.METRE)
        .line(
            "miss", "the sum of all, each even up to its limit, falls outside", x.miss(), Unit.ONE)
        .result("miss", x.miss())
        .source(
            "JCGM 100:2008, 4.3.7: a limit equally likely up to it has a deviation of limit / √3")
        .assume("each error is typical until it is said: jig --say drillError=0.03mm")
        .done();
  }

  /// How the board bends.
  public static Worked bending(JigPlan p) {
    Bending b = p.bending();
    Worked.Builder s = Worked.of("jig.bending", "How the board bends between probes and fingers");
    s.line("force", "sum of the springs", p.force(), Unit.NEWTON);
    s.line(
        "plates",
        "thinnest sheet that bends by no more than is allowed",
        1e-3 * p.plateMm(),
        Unit.METRE);
    for (Bending.Step x : b.steps()) {
      s.line(
          x.fingers() + " fingers",
          Double.isNaN(x.deflection())
              ? "do not hold it"
              : "strain " + Math.round(1e6 * x.strain()) + " millionths",
          Double.isNaN(x.deflection()) ? 0 : x.deflection(),
          Unit.METRE);
    }
    if (b.held()) {
      s.line("w", "greatest deflection, by finite elements", b.deflection(), Unit.METRE)
          .line("strain", "greatest of the surface, t / 2 · curvature", b.strain(), Unit.ONE)
          .line("mesh", "moved by, with cells of half the size", b.even(), Unit.ONE)
          .result("deflection", b.deflection())
          .result("strain", b.strain());
    }
    return s.source("Kirchhoff plate; Adini, Clough and Melosh, rectangular elements")
        .source("500 millionths crack a ceramic capacitor: common practice, no source")
        .assume("bodies do not stiffen the board; thickness and modulus as said or typical")
        .caution("springs pinch; keep the other hand out of the press")
        .done();
  }
}
