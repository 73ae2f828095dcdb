package ell.work.jig;

import ell.book.BookException;
import ell.core.board.Revision;
import ell.core.jig.Needs;
import ell.core.pulse.Wanted;
import ell.core.rack.Plan;
import ell.work.space.ActException;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/// Nets that a jig is to reach, as somebody asked for them.
///
/// @param nets each known to the revision
/// @param words what was asked for
record ReachedNets(Collection<String> nets, String words) {
  /// Words that stand for nets.
  static final List<String> KNOWN = List.of("power", "tests", "all");

  /// A list of nets has no more bytes.
  private static final int MOST_BYTES = 4_000_000;

  ReachedNets {
    nets = List.copyOf(nets);
  }

  /// The nets of a word, of a file with a net a line, or of a list apart by commas.
  ///
  /// @param proved places that the test plan of the revision measures at
  /// @throws ActException when a net is not there, with file and line
  static ReachedNets of(Plan plan, String asked, List<String> proved)
      throws BookException, ActException {
    Revision r = plan.revision();
    return switch (asked.strip().toLowerCase(Locale.ROOT)) {
      case "power" -> new ReachedNets(Needs.power(r, plan.ladder()), "grounds and rails");
      case "all" -> new ReachedNets(r.nets(), "every net");
      case "tests" ->
          new ReachedNets(
              Needs.tests(
                  r,
                  plan.ladder(),
                  Stream.concat(
                          plan.pulse().places().stream().map(Wanted::place),
                          // a test point is a place of its own; its net is what is reached
                          proved.stream().map(p -> net(r, p)))
                      .toList()),
              "what tests need");
      default -> {
        Set<String> nets = named(r, asked.strip());
        yield new ReachedNets(
            nets, nets.size() + (nets.size() == 1 ? " net" : " nets") + " as named");
      }
    };
  }

  private static String net(Revision r, String place) {
    return r.net(place).isEmpty() && r.jointsOf(place).size() == 1
        ? r.jointsOf(place).getFirst().net()
        : place;
  }

  /// The nets that a file or a list names.
  ///
  /// @throws ActException when one is not there, or there is none
  static Set<String> named(Revision r, String asked) throws BookException, ActException {
    Optional<Path> file = file(asked);
    List<String> lines = file.isPresent() ? lines(file.get()) : Arrays.asList(asked.split(","));
    Set<String> nets = new LinkedHashSet<>();
    for (int i = 0; i < lines.size(); i++) {
      String line = lines.get(i).replace("\uFEFF", "").strip();
      // a name may have commas and blanks of its own
      String net =
          file.isEmpty() || !r.net(line).isEmpty()
              ? line
              : line.split("[,;\t]", 2)[0].strip().replaceAll("^\"|\"$", "");
      boolean heading = i == 0 && net.toLowerCase(Locale.ROOT).matches("nets?|net name|signal");
      boolean known = !r.net(net).isEmpty();
      if (net.isEmpty() || !known && (net.startsWith("#") || file.isPresent() && heading)) {
        continue;
      }
      if (!known) {
        throw new ActException(
            file.map(f -> f + ", line ").orElse("")
                + (file.isPresent() ? (i + 1) + ": " : "")
                + "no net '"
                + shown(net)
                + "' in "
                + r.title()
                + (file.isPresent()
                    ? "; expected a net a line"
                    : "; expected power, all, tests, a file of nets, or nets apart by commas"));
      }
      nets.add(net);
    }
    if (nets.isEmpty()) {
      throw new ActException(asked + " names no net; expected a net a line");
    }
    return nets;
  }

  private static String shown(String net) {
    return net.length() <= 60 ? net : net.substring(0, 60) + "...";
  }

  private static Optional<Path> file(String asked) {
    try {
      return Optional.of(Path.of(asked)).filter(Files::isRegularFile);
    } catch (InvalidPathException e) {
      return Optional.empty(); // then it is a net
    }
  }

  private static List<String> lines(Path file) throws ActException {
    try (InputStream in = Files.newInputStream(file)) {
      byte[] bytes = in.readNBytes(MOST_BYTES + 1);
      if (bytes.length > MOST_BYTES) {
        throw new ActException(file + " is too large for a list of nets");
      }
      return StandardCharsets.UTF_8
          .newDecoder()
          .decode(ByteBuffer.wrap(bytes))
          .toString()
          .lines()
          .toList();
    } catch (CharacterCodingException e) {
      throw new ActException(file + " is no text; expected a net a line", e);
    } catch (IOException e) {
      throw new ActException(file + " cannot be read: " + e.getMessage(), e);
    }
  }
}
