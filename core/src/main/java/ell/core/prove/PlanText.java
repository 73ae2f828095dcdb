package ell.core.prove;

import ell.core.quantity.EngineeringNumber;
import ell.core.quantity.Limits;
import ell.core.quantity.Unit;

/// Writes a test plan as [PlanReader] reads it.
public final class PlanText {
  private PlanText() {}

  /// A plan, a step a line.
  public static String of(TestPlan plan) {
    StringBuilder s = new StringBuilder("plan " + quoted(plan.name()) + "\n");
    plan.told().forEach(t -> s.append("# ").append(t.replaceAll("\\s+", " ")).append('\n'));
    for (int i = 0; i < plan.steps().size(); i++) {
      int at = i;
      plan.loops().stream()
          .filter(l -> l.from() == at)
          .forEach(l ->
              s.append("loop ")
                  .append(l.times())
                  .append(l.stress().isEmpty() ? "" : " " + whole(l.stress()))
                  .append('\n'));
      s.append(line(plan.steps().get(i), stress(plan, i))).append('\n');
      plan.loops().stream().filter(l -> l.to() == at + 1).forEach(_ -> s.append("end\n"));
    }
    return s.toString();
  }

  private static String stress(TestPlan plan, int i) {
    return plan.loops().stream()
        .filter(l -> i >= l.from() && i < l.to())
        .map(TestPlan.Loop::stress)
        .findFirst()
        .orElse("");
  }

  /// A step.
  public static String line(TestStep t) {
    return line(t, "");
  }

  private static String line(TestStep t, String stress) {
    StringBuilder s = new StringBuilder(act(t.act()));
    t.limits().ifPresent(l -> s.append(' ').append(limits(l, t.act().reads().orElse(Unit.ONE))));
    String tail = stress.isEmpty() ? "" : ", " + stress;
    String name =
        !tail.isEmpty() && t.act().tests() && t.name().endsWith(tail)
            ? t.name().substring(0, t.name().length() - tail.length())
            : t.name();
    if (!name.equals(t.act().usualName())) {
      s.append(" name=").append(quoted(name));
    }
    if (t.act() instanceof TestAct.Say y) {
      s.append(" within=").append(number(y.within(), Unit.SECOND));
    }
    if (t.act() instanceof TestAct.Vectors v && !v.send().isEmpty()) {
      s.append(" send=").append(quoted(v.send()));
    }
    if (t.guard() > 0) {
      s.append(" guard=").append(number(t.guard(), t.act().reads().orElse(Unit.ONE)));
    }
    if (t.retries() > 0) {
      s.append(" retries=").append(t.retries());
    }
    if (!t.needs().isEmpty()) {
      s.append(" needs=").append(quoted(String.join(",", t.needs())));
    }
    boolean usual = t.act() instanceof TestAct.Power;
    if (t.stops() != usual) {
      s.append(t.stops() ? " fails=stop" : " fails=go");
    }
    if (t.minutes() > 0) {
      s.append(" minutes=").append(number(t.minutes(), Unit.ONE));
    }
    return s.toString();
  }

  private static String act(TestAct act) {
    return switch (act) {
      case TestAct.Ohms o -> "ohms " + quoted(o.a()) + " " + quoted(o.b());
      case TestAct.Power _ -> "power";
      case TestAct.Off _ -> "off";
      case TestAct.Level l -> "set " + quoted(l.rail()) + " " + number(l.volts(), Unit.VOLT);
      case TestAct.Volts v -> "volts " + quoted(v.place());
      case TestAct.Amps a -> "amps " + quoted(a.rail()) + " " + a.state();
      case TestAct.Wave w ->
          "wave " + quoted(w.place()) + (w.measure().isEmpty() ? "" : " " + w.measure());
      case TestAct.Feel f -> "feel " + quoted(f.part());
      case TestAct.Talk t -> "talk " + quoted(t.script());
      case TestAct.Say s -> "say " + whole(s.text()) + " expect " + whole(s.expect());
      case TestAct.Ask a ->
          "ask " + whole(a.question()) + (a.wants().isEmpty() ? "" : " " + a.wants());
      case TestAct.Pause p -> "wait " + number(p.seconds(), Unit.SECOND);
      case TestAct.Stand s ->
          (s.stand().equals("in") || s.stand().equals("out") ? "plug " : "link ")
              + quoted(s.place())
              + " "
              + s.stand();
      case TestAct.Vectors v ->
          "pattern " + v.kind().key() + " " + quoted(String.join(",", v.nets()));
    };
  }

  private static String limits(Limits l, Unit unit) {
    return (Double.isInfinite(l.low()) ? "" : number(l.low(), unit))
        + ".."
        + (Double.isInfinite(l.high()) ? "" : number(l.high(), unit));
  }

  /// A number that is read back as it was.
  private static String number(double v, Unit unit) {
    return EngineeringNumber.print(v, unit, 15)
        .replace(" ", "")
        .replaceFirst("(\\.\\d*?)0+(?=\\D|$)", "$1")
        .replaceFirst("\\.(?=\\D|$)", "");
  }

  private static String quoted(String s) {
    return s.matches("[^\\s\"#=\\\\]+") ? s : whole(s);
  }

  private static String whole(String s) {
    return "\""
        + s.replace("\\", "\\\\").replace("\"", "\\\"").replace("\r", "\\r").replace("\n", "\\n")
        + "\"";
  }
}
