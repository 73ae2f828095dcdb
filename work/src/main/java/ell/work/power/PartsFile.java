package ell.work.power;

import ell.core.power.PartSaid;
import ell.work.space.ActException;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/// A file that says how parts act, a line for each: `Q1,n-channel,threshold=1.1V`; lines that begin
/// with `#` are comments, and a first line `part,...` is a heading.
public final class PartsFile {
  private static final int MOST = 10_000;

  private PartsFile() {}

  /// Reads it as answers, `Q1=n-channel,threshold=1.1V` each.
  ///
  /// @throws ActException naming the file, every line that is not understood, and what is wrong
  public static List<String> read(Path file) throws IOException, ActException {
    if (!Files.isRegularFile(file)) {
      throw new ActException(file + ": there is no such file");
    }
    List<String> answers = new ArrayList<>();
    List<String> problems = new ArrayList<>();
    List<String> lines;
    try {
      lines = Files.readAllLines(file);
    } catch (CharacterCodingException e) {
      throw new ActException(file + ": no text in UTF-8", e);
    }
    for (int i = 0; i < lines.size() && answers.size() < MOST; i++) {
      String line = lines.get(i).strip();
      int comma = line.indexOf(',');
      if (line.isEmpty() || line.startsWith("#") || i == 0 && line.startsWith("part,")) {
        continue;
      }
      try {
        if (comma < 1) {
          throw new IllegalArgumentException("expected such as Q1,n-channel,threshold=1.1V");
        }
        String words = line.substring(comma + 1).replaceAll(",+\\s*$", "");
        PartSaid.parse(words);
        answers.add(line.substring(0, comma).strip() + "=" + words.strip());
      } catch (IllegalArgumentException e) {
        problems.add(file + ": line " + (i + 1) + ": " + e.getMessage());
      }
    }
    if (!problems.isEmpty()) {
      throw new ActException(String.join("\n", problems));
    }
    return answers;
  }
}
