package ell.bench.sim;

import ell.core.talk.Crc;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/// The program of a simulated controller, as the image that was loaded says it: lines of text
/// behind a first line `ELLSIM 1`:
///
/// ```
/// ELLSIM 1
/// firmware 1.4
/// banner Marram {design} {revision} firmware {firmware}
/// answer rails? = all there
/// ```
///
/// Any other image is a program too: its version is its check sum.
///
/// @param firmware version
/// @param banner what it says when it begins
/// @param answers by what is asked
record SimProgram(String firmware, String banner, Map<String, String> answers) {
  static SimProgram of(byte[] image) {
    String text = new String(image, StandardCharsets.ISO_8859_1);
    String version = String.format(Locale.ROOT, "%08x", Crc.crc32(image));
    String banner = "{design} {revision} firmware {firmware}";
    Map<String, String> answers = new LinkedHashMap<>();
    if (text.startsWith("ELLSIM 1")) {
      for (String line : text.lines().skip(1).toList()) {
        String l = line.strip();
        if (l.startsWith("firmware ")) {
          version = l.substring(9).strip();
        } else if (l.startsWith("banner ")) {
          banner = l.substring(7).strip();
        } else if (l.startsWith("answer ") && l.contains(" = ")) {
          int eq = l.indexOf(" = ");
          answers.put(l.substring(7, eq).strip(), l.substring(eq + 3).strip());
        }
      }
    }
    return new SimProgram(version, banner, answers);
  }

  /// One of which only the version is known.
  static SimProgram version(String firmware) {
    return new SimProgram(firmware, "{design} {revision} firmware {firmware}", Map.of());
  }
}
