package ell.core.practice;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.power.Fault;
import ell.core.power.FaultWords;
import ell.core.power.PartValue;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/// Faults from a seed, of every kind that a build makes, at places where they can be; and healthy
/// boards whose parts lie anywhere in their tolerances.
public final class MadeFaults {
  private MadeFaults() {}

  /// A fault of a board.
  public static Fault of(Revision r, Random random) {
    while (true) {
      String words = words(r, random);
      Fault f = FaultWords.parse(words);
      if (FaultWords.unfit(f, r).isEmpty()) {
        return f;
      }
    }
  }

  private static String words(Revision r, Random random) {
    List<Joint> joints = r.joints().stream().filter(Joint::connected).toList();
    Joint j = joints.get(random.nextInt(joints.size()));
    List<Part> parts = r.parts().stream().filter(Part::fitted).toList();
    Part p = parts.get(random.nextInt(parts.size()));
    return switch (random.nextInt(8)) {
      case 0 -> "open " + j.place();
      case 1 -> "resistive " + j.place() + " " + (1 + random.nextInt(50)) + "ohm";
      case 2 -> bridge(r, random);
      case 3 -> "turned " + p.reference();
      case 4 -> "dead " + p.reference();
      case 5 -> "short " + p.reference();
      case 6 -> "missing " + p.reference();
      default -> value(parts, random);
    };
  }

  private static String bridge(Revision r, Random random) {
    List<Part> parts =
        r.parts().stream().filter(x -> r.jointsOf(x.reference()).size() > 1).toList();
    List<Joint> own = r.jointsOf(parts.get(random.nextInt(parts.size())).reference());
    int i = random.nextInt(own.size() - 1);
    double ohms =
        random.nextInt(3) == 0 ? 5 + random.nextInt(40) : 0.05 + 0.5 * random.nextDouble();
    return "bridge "
        + own.get(i).place()
        + " "
        + own.get(i + 1).place()
        + " "
        + String.format(java.util.Locale.ROOT, "%.2fohm", ohms);
  }

  private static String value(List<Part> parts, Random random) {
    List<Part> some = parts.stream().filter(x -> x.kind() == PartKind.RESISTOR).toList();
    Part p = some.get(random.nextInt(some.size()));
    double times = new double[] {0.001, 0.1, 10, 1000}[random.nextInt(4)];
    return "value "
        + p.reference()
        + " "
        + String.format(java.util.Locale.ROOT, "%.4g", PartValue.ohms(p).orElse(1000) * times);
  }

  /// A healthy board: resistors within one, capacitors within twenty per cent.
  public static List<Fault> healthy(Revision r, Random random) {
    List<Fault> all = new ArrayList<>();
    for (Part p : r.parts()) {
      if (p.fitted()) {
        double u = 2 * random.nextDouble() - 1;
        PartValue.ohms(p)
            .ifPresent(v -> all.add(new Fault.WrongValue(p.reference(), v * (1 + 0.01 * u))));
        PartValue.farads(p)
            .ifPresent(v -> all.add(new Fault.WrongValue(p.reference(), v * (1 + 0.2 * u))));
      }
    }
    return all;
  }
}
