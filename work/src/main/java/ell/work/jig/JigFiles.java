package ell.work.jig;

import ell.core.board.Joint;
import ell.core.board.Netlist;
import ell.core.jig.JigPlan;
import ell.core.jig.Plates;
import ell.core.jig.Probe;
import ell.files.Output;
import ell.files.csv.CsvFiles;
import ell.files.netlist.NetlistWriter;
import ell.files.pdf.PlatesPdf;
import ell.files.plate.PlateWriter;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// Everything that a jig is made from, as files of one folder.
public final class JigFiles {
  private JigFiles() {}

  /// Writes the files of a jig; what is not Ell's stays, and then nothing is written.
  ///
  /// @param folder made when it is not there
  /// @return names of the files
  /// @throws ActException when no probe was chosen
  public static List<String> write(JigPlan p, Path folder, Output.Over over)
      throws IOException, ActException {
    if (p.probes().isEmpty()) {
      throw new ActException(
          "no probe reaches anything: there is nothing to drill; see jig for why");
    }
    Map<String, byte[]> files = files(p);
    if (Files.exists(folder) && !Files.isDirectory(folder)) {
      throw new ActException(folder + " is a file; name a folder");
    }
    Files.createDirectories(folder);
    Path first = folder.resolve("probe-plate.xnc");
    // tables carry no mark of their own: beside a plate of Ell's they are Ell's
    Output.allow(first, over);
    Output.Over tables = Files.exists(first) ? new Output.Over(true, over.inputs()) : over;
    for (String name : files.keySet()) {
      Output.allow(folder.resolve(name), name.endsWith(".csv") ? tables : over);
    }
    for (Map.Entry<String, byte[]> f : files.entrySet()) {
      Output.write(
          folder.resolve(f.getKey()), f.getValue(), f.getKey().endsWith(".csv") ? tables : over);
    }
    return List.copyOf(files.keySet());
  }

  private static Map<String, byte[]> files(JigPlan p) throws IOException {
    Plates plates = Plates.of(p);
    String title = "Jig for " + p.revision().title();
    Map<String, byte[]> all = new LinkedHashMap<>();
    for (Plates.Plate x : plates.all()) {
      all.put(x.name() + ".xnc", bytes(PlateWriter.xnc(x)));
    }
    all.put("plates.dxf", bytes(PlateWriter.dxf(plates)));
    all.put("plates.svg", bytes(PlateWriter.svg(plates, title)));
    all.put("plates.pdf", PlatesPdf.bytes(plates, title));
    all.put("carrier-placement.csv", table(PLACES, places(p)));
    all.put("carrier.ipc", bytes(netlist(p)));
    all.put("wiring.csv", table(WIRING, wiring(p)));
    all.put("parts.csv", table(PARTS, parts(p)));
    all.put("drill-steps.csv", table(STEPS, steps(plates)));
    return all;
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }

  private static byte[] table(List<String> heading, List<List<String>> rows) throws IOException {
    StringWriter w = new StringWriter();
    CsvFiles.table(heading, rows, w);
    return bytes(w.toString());
  }

  private static final List<String> PLACES =
      List.of("Reference", "X (mm)", "Y (mm)", "Rotation", "Side");

  /// The tubes on their carrier, so that the jig can be taken in as a design of its own.
  private static List<List<String>> places(JigPlan p) {
    return p.probes().stream()
        .map(
            x -> List.of("TU" + x.number(), mm(x.target().xMm()), mm(x.target().yMm()), "0", "top"))
        .toList();
  }

  private static String netlist(JigPlan p) throws IOException {
    List<Joint> joints = new ArrayList<>();
    for (Probe x : p.probes()) {
      double hole = x.of().drillMm() + 0.1;
      joints.add(
          new Joint(
              "TU" + x.number(),
              "1",
              x.target().net(),
              x.target().xMm(),
              x.target().yMm(),
              Joint.Reach.BOTH,
              true,
              hole,
              true,
              hole + 0.6,
              hole + 0.6,
              0,
              false,
              0));
    }
    StringWriter w = new StringWriter();
    w.write("C  " + Output.MARK + ": the carrier of a jig\n");
    NetlistWriter.write(new Netlist(joints, List.of(), List.of()), w);
    return w.toString();
  }

  private static final List<String> WIRING =
      List.of(
          "Probe", "Net", "Channel", "Role", "Place", "Side", "X (mm)", "Y (mm)", "Series", "Head");
  private static final List<String> PARTS =
      List.of("Reference", "Value", "Package", "Code", "Quantity", "Description", "Cost");
  private static final List<String> STEPS =
      List.of("Plate", "Diameter (mm)", "Holes", "Drills (mm)", "How");

  /// Probe, net, channel of the instruments.
  static List<List<String>> wiring(JigPlan p) {
    List<List<String>> rows = new ArrayList<>();
    int supply = 0;
    int meter = 0;
    Map<String, Integer> outputs = new LinkedHashMap<>();
    for (Probe x : p.probes()) {
      String net = x.target().net();
      String channel =
          switch (x.role()) {
            case "ground" -> "common";
            case "force" -> {
              Integer n = outputs.get(net);
              if (n == null) {
                n = ++supply;
                outputs.put(net, n);
              }
              yield "supply " + n + " through its switch";
            }
            case "sense" -> "supply " + outputs.getOrDefault(net, 1) + " sense";
            default -> "meter " + ++meter;
          };
      rows.add(
          List.of(
              String.valueOf(x.number()),
              net,
              channel,
              x.role(),
              x.target().place(),
              x.target().side().key(),
              mm(x.target().xMm()),
              mm(x.target().yMm()),
              x.of().name(),
              x.target().kind().head()));
    }
    return rows;
  }

  private static String mm(double v) {
    return String.format(Locale.ROOT, "%.3f", v + 0.0);
  }

  private static List<List<String>> parts(JigPlan p) {
    Map<String, List<String>> probes = new LinkedHashMap<>();
    for (Probe x : p.probes()) {
      probes
          .computeIfAbsent(x.of().name() + " " + x.target().kind().head(), _ -> new ArrayList<>())
          .add("PR" + x.number());
    }
    List<List<String>> rows = new ArrayList<>();
    String price = String.valueOf(p.setup().number("probePrice"));
    probes.forEach((k, refs) -> {
      String[] s = k.split(" ");
      part(
          rows,
          String.join(" ", refs),
          s[1] + " probe",
          "spacing-" + s[0],
          refs.size(),
          "spring probe, spacing " + s[0] + " mm, head " + s[1],
          price);
      part(
          rows,
          tubes(refs),
          "tube",
          "spacing-" + s[0],
          refs.size(),
          "tube of it, soldered into the carrier",
          "");
    });
    Map<String, Integer> fingers = new LinkedHashMap<>();
    fingers.put("finger", p.bending().fingers().size());
    if (p.bending().rests()) {
      fingers.put("rest", p.bending().fingers().size());
    }
    fingers.forEach((what, n) -> {
      if (n > 0) {
        part(
            rows,
            run(what.equals("finger") ? "FI" : "RE", n),
            what,
            "M3",
            n,
            what + " of plastic on a screw M3",
            "");
      }
    });
    String round = mm(p.tooling().round().diameterMm() - ell.core.jig.Tooling.THINNER);
    String slot = mm(p.tooling().slot().diameterMm() - ell.core.jig.Tooling.THINNER);
    part(rows, "TO1", "round pin", round + " mm", 1, "tooling pin, turned round", "");
    part(
        rows,
        "TO2",
        "slotted pin",
        slot + " mm",
        1,
        "tooling pin, flattened on both sides across the line to the round one",
        "");
    int plates = (int) Plates.of(p).all().stream().filter(x -> !x.name().equals("carrier")).count();
    part(
        rows,
        run("PL", plates),
        "plate",
        mm(p.plateMm()) + " mm",
        plates,
        "brittle sheet such as acrylic, cut to the drawings",
        String.valueOf(p.setup().number("platePrice")));
    part(rows, "CB1", "carrier board", "", 1, "carrier of the tubes, see carrier.xnc", "");
    part(rows, run("PO", 4), "post", "M3", 4, "threaded rod and spacers", "");
    long switches = p.wires().supplies().size();
    if (switches > 0) {
      part(
          rows,
          run("SW", (int) switches),
          "switch",
          "",
          (int) switches,
          "in the wire of a supply",
          "");
    }
    return rows;
  }

  private static String tubes(List<String> refs) {
    return String.join(" ", refs.stream().map(r -> r.replace("PR", "TU")).toList());
  }

  private static String run(String letters, int n) {
    List<String> all = new ArrayList<>();
    for (int i = 1; i <= n; i++) {
      all.add(letters + i);
    }
    return String.join(" ", all);
  }

  private static void part(
      List<List<String>> rows,
      String refs,
      String value,
      String shape,
      int n,
      String words,
      String price) {
    String code =
        (shape.isEmpty() ? value : value + "-" + shape).replace(' ', '-').toUpperCase(Locale.ROOT);
    rows.add(List.of(refs, value, shape, code, String.valueOf(n), words, price));
  }

  private static List<List<String>> steps(Plates plates) {
    List<List<String>> rows = new ArrayList<>();
    for (Plates.Steps s : plates.steps()) {
      rows.add(
          List.of(
              s.plate(),
              mm(s.diameterMm()),
              String.valueOf(s.holes()),
              String.join(" ", s.steps().stream().map(JigFiles::mm).toList()),
              s.steps().size() > 1
                  ? "clamped, slow, a step after the other, eyes protected"
                  : "clamped, slow, eyes protected"));
    }
    return rows;
  }
}
