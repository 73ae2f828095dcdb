package ell.bench;

import ell.bench.instrument.Supply;
import java.util.Map;

/// A program that switches a supply on under its watchdog, and goes on looking at it until it is
/// killed.
public final class GuardVictim {
  private GuardVictim() {}

  /// @param args where the supply is, and what to do then: `look`, `end`, or `freeze`
  public static void main(String[] args) throws Exception {
    Supply s = new Bench("bench", Map.of("supply", args[0]), 1000).guard(Supply.KIND);
    s.makeSafe();
    s.set(5, 0.5);
    s.output(true);
    System.out.println("on");
    switch (args[1]) {
      case "look" -> {
        while (true) {
          s.volts();
          s.amps();
          Thread.sleep(5);
        }
      }
      case "end" -> System.exit(3); // without a word to the supply
      default -> Thread.sleep(600_000);
    }
  }
}
