package ell.core.prove;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Statistical Reference Datasets of the National Institute of Standards and Technology, as they
/// were published, with their certified values: in the public domain.
final class Nist {
  final List<String> lines;
  final Map<Integer, List<Double>> groups = new LinkedHashMap<>();
  final List<Double> values = new ArrayList<>();

  Nist(String name) throws IOException {
    try (InputStream in = Nist.class.getResourceAsStream("nist/" + name + ".dat")) {
      lines = new String(in.readAllBytes(), StandardCharsets.US_ASCII).lines().toList();
    }
    int at = 0;
    while (!lines.get(at).startsWith("Data:") || at < 30) {
      at++;
    }
    for (String l : lines.subList(at + 1, lines.size())) {
      String[] w = l.strip().split("\\s+");
      if (w.length == 2 && w[0].matches("\\d+")) {
        groups
            .computeIfAbsent(Integer.parseInt(w[0]), _ -> new ArrayList<>())
            .add(Double.parseDouble(w[1]));
      } else if (w.length == 1 && w[0].matches("[-+]?[0-9.eE+-]*\\d[0-9.eE+-]*")) {
        values.add(Double.parseDouble(w[0]));
      }
    }
  }

  /// The last number of the line that begins so.
  double certified(String beginning, int fromTheEnd) {
    String l =
        lines.stream()
            .filter(x -> x.strip().startsWith(beginning))
            .findFirst()
            .orElseThrow(() -> new AssertionError("no line " + beginning));
    String[] w = l.replaceAll("\\(.*?\\)", "").strip().split("\\s+");
    return Double.parseDouble(w[w.length - 1 - fromTheEnd]);
  }
}
