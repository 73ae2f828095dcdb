package ell.core.revise;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.PartKind;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/// Boards that are made up, and edits of them that are known.
final class Drawings {
  private static final String[] OHMS = {"100", "1k", "4k7", "10k", "100k", "1M"};
  private static final String[] FARADS = {"100n", "1u", "10u", "18p"};

  private Drawings() {}

  static Part part(String ref, String value, String pack, double x, double y) {
    return new Part(
        ref,
        value,
        pack,
        value + "-" + pack,
        "",
        true,
        false,
        List.of(),
        "",
        Optional.of(new Part.Spot(x, y, 0, Side.FIRST)),
        Double.NaN,
        Double.NaN);
  }

  static Joint joint(String ref, String pin, String net, double x, double y) {
    return new Joint(
        ref, pin, net, x, y, Joint.Reach.FIRST, false, 0, false, 0.8, 0.8, 0, false, 0);
  }

  /// A board with chips, resistors and capacitors, its nets as such boards have them: a ground that
  /// everything hangs on, a few rails, many nets of two or three ends.
  static Revision board(long seed) {
    Random q = new Random(seed);
    int chips = 2 + q.nextInt(4);
    List<Part> parts = new ArrayList<>();
    List<Joint> joints = new ArrayList<>();
    List<String> signals = new ArrayList<>();
    for (int u = 1; u <= chips; u++) {
      int pins = 8 + 4 * q.nextInt(4);
      String ref = "U" + u;
      double x = 20 * u;
      parts.add(part(ref, "CHIP" + q.nextInt(3), "SOIC-" + pins, x, 30));
      for (int p = 1; p <= pins; p++) {
        String net =
            p == 1
                ? "GND"
                : p == 2
                    ? q.nextBoolean() ? "3V3" : "5V0"
                    : p % 3 == 0 && !signals.isEmpty()
                        ? signals.get(q.nextInt(signals.size()))
                        : "S" + signals.size();
        if (net.startsWith("S") && !signals.contains(net)) {
          signals.add(net);
        }
        joints.add(joint(ref, String.valueOf(p), net, x + p, 30));
      }
    }
    int small = 25 + q.nextInt(30);
    for (int i = 0; i < small; i++) {
      boolean c = q.nextInt(3) == 0;
      String ref = (c ? "C" : "R") + (i + 1);
      double x = 3 * (i % 20) + 0.1 * q.nextInt(9);
      double y = 50 + 4 * (i / 20);
      parts.add(
          part(
              ref,
              c ? FARADS[q.nextInt(FARADS.length)] : OHMS[q.nextInt(OHMS.length)],
              q.nextBoolean() ? "0603" : "0402",
              x,
              y));
      String a = signals.get(q.nextInt(signals.size()));
      String b = c ? "GND" : q.nextInt(3) == 0 ? "3V3" : signals.get(q.nextInt(signals.size()));
      joints.add(joint(ref, "1", c && q.nextBoolean() ? "3V3" : a, x, y));
      joints.add(joint(ref, "2", b.equals(a) ? "GND" : b, x + 1, y));
    }
    return new Revision("BOARD", "1", parts, joints, new Outline(List.of()));
  }

  /// A drawing that is being edited, and what the difference has to say of it.
  static final class Edited {
    private final Random q;
    private final Revision was;
    private List<Part> parts;
    private List<Joint> joints;
    private final Set<String> touched = new HashSet<>();
    Set<String> wanted = new TreeSet<>();

    Edited(Revision r, long seed) {
      was = r;
      q = new Random(seed);
      parts = new ArrayList<>(r.parts());
      joints = new ArrayList<>(r.joints());
    }

    Edited edits(int n) {
      for (int i = 0; i < n; i++) {
        Part p = parts.get(q.nextInt(parts.size()));
        if (touched.add(p.reference())) {
          edit(q.nextInt(5), p, i);
        }
      }
      return this;
    }

    private void edit(int kind, Part p, int i) {
      String ref = p.reference();
      switch (kind) {
        case 0 -> pin(ref);
        case 1 -> {
          String v = "9k" + q.nextInt(900);
          replace(p, ref, v, p.place());
          wanted.add("value " + ref);
        }
        case 2 -> {
          Part.Spot s = p.place().orElseThrow();
          replace(
              p,
              ref,
              p.value(),
              Optional.of(
                  new Part.Spot(s.xMm() + 1.7 + q.nextInt(9), s.yMm() - 1.3, 0, Side.FIRST)));
          wanted.add("moved " + ref);
        }
        case 3 -> {
          parts.remove(p);
          joints.removeIf(j -> j.part().equals(ref));
          wanted.add("removed " + ref);
        }
        default -> {
          String name = "R" + (900 + i);
          double x = 3 * i + 0.456;
          parts.add(part(name, "7k7", "0402", x, 90));
          List<String> nets = was.nets();
          for (int k = 1; k <= 2; k++) {
            joints.add(joint(name, String.valueOf(k), nets.get(q.nextInt(nets.size())), x + k, 90));
          }
          touched.add(name);
          wanted.add("added " + name);
        }
      }
    }

    private void pin(String ref) {
      List<Joint> own = joints.stream().filter(j -> j.part().equals(ref)).toList();
      Joint j = own.get(q.nextInt(own.size()));
      List<String> nets = was.nets();
      String to = nets.get(q.nextInt(nets.size()));
      long others = joints.stream().filter(o -> o.net().equals(j.net()) && o != j).count();
      if (!to.equals(j.net()) && others > 0) {
        joints.set(joints.indexOf(j), onNet(j, to));
        wanted.add("joint " + j.place());
      }
    }

    private void replace(Part p, String ref, String value, Optional<Part.Spot> at) {
      parts.set(parts.indexOf(p), with(p, ref, value, at));
    }

    private static Part with(Part p, String ref, String value, Optional<Part.Spot> at) {
      return new Part(
          ref,
          value,
          p.packageName(),
          p.code(),
          p.description(),
          p.fitted(),
          p.key(),
          p.alternates(),
          p.block(),
          at,
          p.massGrams(),
          p.unitCost());
    }

    private static Joint onNet(Joint j, String net) {
      return joint(j.part(), j.pin(), net, j.xMm(), j.yMm());
    }

    /// Every net is called otherwise: by names of its own, or by those of others.
    Edited renamed() {
      List<String> nets = new ArrayList<>(new TreeSet<>(joints.stream().map(Joint::net).toList()));
      List<String> to = new ArrayList<>(nets);
      Collections.shuffle(to, q);
      boolean own = q.nextBoolean();
      Map<String, String> by = new HashMap<>();
      for (int i = 0; i < nets.size(); i++) {
        by.put(nets.get(i), own ? "NET_" + i : to.get(i));
      }
      joints.replaceAll(j -> onNet(j, by.get(j.net())));
      return this;
    }

    /// Every part has the number of another of its kind.
    Edited renumbered() {
      Map<String, List<String>> byKind = new TreeMap<>();
      parts.forEach(p ->
          byKind
              .computeIfAbsent(PartKind.letters(p.reference()), _ -> new ArrayList<>())
              .add(p.reference()));
      Map<String, String> by = new HashMap<>();
      byKind
          .values()
          .forEach(own -> {
            List<String> to = new ArrayList<>(own);
            Collections.shuffle(to, q);
            for (int i = 0; i < own.size(); i++) {
              by.put(own.get(i), to.get(i));
            }
          });
      parts.replaceAll(p -> with(p, by.get(p.reference()), p.value(), p.place()));
      joints.replaceAll(j -> joint(by.get(j.part()), j.pin(), j.net(), j.xMm(), j.yMm()));
      Set<String> names = new TreeSet<>();
      for (String w : wanted) {
        names.add(w.startsWith("added ") ? "added " + by.get(w.substring(6)) : w);
      }
      wanted = names;
      return this;
    }

    /// Every part lies somewhere else.
    Edited relaid() {
      parts.replaceAll(p ->
          with(
              p,
              p.reference(),
              p.value(),
              Optional.of(
                  new Part.Spot(q.nextInt(1000) / 10.0, q.nextInt(800) / 10.0, 0, Side.FIRST))));
      joints.replaceAll(
          j -> joint(j.part(), j.pin(), j.net(), q.nextInt(1000) / 10.0, q.nextInt(800) / 10.0));
      return this;
    }

    /// Everything lies elsewhere by the same way.
    Edited shifted(double dx, double dy) {
      parts.replaceAll(p ->
          with(
              p,
              p.reference(),
              p.value(),
              p.place()
                  .map(s -> new Part.Spot(s.xMm() + dx, s.yMm() + dy, s.rotationDeg(), s.side()))));
      joints.replaceAll(j -> joint(j.part(), j.pin(), j.net(), j.xMm() + dx, j.yMm() + dy));
      return this;
    }

    Revision drawing() {
      return new Revision(was.design(), "2", parts, joints, was.outline());
    }
  }
}
