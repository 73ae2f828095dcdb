package ell.core.circuit;

/// A circuit with a bench supply on one of its nodes.
final class Fed {
  static final String SUPPLY = "S";

  private Fed() {}

  static Operating fed(Circuit c, String node, double volts, double limit) {
    if (c.named(SUPPLY) == null) {
      c.supply(SUPPLY, node, Circuit.GROUND, volts, limit, 0.01);
    }
    c.set(SUPPLY, volts, limit, true);
    return c.rest();
  }
}
