package ell.files.netlist;

import ell.core.board.Joint;
import ell.core.board.Joint.Reach;
import ell.core.board.Netlist;
import ell.files.EightBytes;
import ell.files.Findings;
import ell.files.LineEnds;
import ell.files.Looks;
import ell.files.Read;
import ell.files.Source;
import ell.files.TwoBytes;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/// Reads an IPC-D-356A netlist (written from memory of the standard, tolerant where writers
/// differ).
///
/// Fixed columns, 1-based: 1-3 record (`317` hole, `327` surface pad; others counted and passed
/// over), 4-17 net, 21-26 part, 28-31 pin, 32 `M` middle, 33-38 `D` drill and plating, 39-41 `A`
/// access, 42-57 `X` and `Y` with sign and six digits, 58-71 pad width, height and rotation, 72-74
/// `S` mask. Units by `P UNITS CUST n`, long net names by `P NNAMEn`.
///
/// Lines are scanned as bytes; memory is the joints found plus one buffer.
public final class NetlistReader {
  private static final int BUFFER = 1 << 16;
  private static final int LONGEST_LINE = 4096;
  private static final int MOST_RECORDS = 5_000_000;

  /// A record that ends with its mask, `S` and a digit, as nearly all do, has so many columns.
  private static final int PAD_END = 73;

  private static final int BAD_NET = -2;
  private static final int FEWEST = 1 << 10;
  private static final int USUAL_LINE = 70;

  private final Findings f;
  private final NamePool nets = new NamePool();
  private final NamePool parts = new NamePool();
  private final NamePool pins = new NamePool();

  /// Numbers of names that stand for another or for none.
  private final BitSet standIns = new BitSet();

  private final Map<String, String> longNames = new HashMap<>();
  private final Joints joints;
  private final List<String> comments = new ArrayList<>();
  private final Map<String, int[]> passed = new TreeMap<>();
  private double scaleMm = 0.00254;
  private boolean radians;
  private boolean unitsStated;
  private boolean ended;
  private int afterEnd;
  private int line;
  private int firstRecord;
  private boolean afterJoint;
  private int morePads;

  private Pad lastPad;
  private long padLow;
  private long padHigh;

  private final Lacking noDiameter = new Lacking();
  private final Lacking noAccess = new Lacking();

  private NetlistReader(Findings f) {
    this.f = f;
    joints = new Joints(f);
  }

  /// Reads a file.
  ///
  /// @throws IOException when it cannot be read at all
  public static Read<Netlist> read(Source source) throws IOException {
    NetlistReader r = new NetlistReader(new Findings(source.name()));
    Optional<String> wrong = Looks.wrong(source, Looks.NETLIST, "an IPC-D-356 netlist");
    if (wrong.isPresent()) {
      r.f.error(0, 0, wrong.get());
      return r.f.flawed();
    }
    try (InputStream in = TwoBytes.plain(source).open()) {
      r.nets.room(in.available() / (3 * USUAL_LINE));
      r.joints.room(Math.clamp(in.available() / USUAL_LINE, FEWEST, MOST_RECORDS));
      r.lines(in);
    }
    return r.done();
  }

  /// Cuts lines at LF, CR or CRLF.
  private void lines(InputStream in) throws IOException {
    byte[] buffer = new byte[BUFFER + EightBytes.ROOM];
    int held = 0;
    boolean skipping = false;
    boolean afterReturn = false;
    while (true) {
      int n = in.read(buffer, held, BUFFER - held);
      int end = held + Math.max(n, 0);
      int start = 0;
      for (int i = held; i < end; i++) {
        byte c = buffer[i];
        if (c != '\n' && c != '\r') {
          i = LineEnds.next(buffer, i, end);
          afterReturn = false;
          if (i == end) {
            break;
          }
          c = buffer[i];
        }
        if (c == '\n' && afterReturn) {
          start = i + 1; // the second half of CRLF
          afterReturn = false;
        } else if (c == '\n' || c == '\r') {
          line++;
          if (!skipping) {
            line(buffer, start, i);
          }
          skipping = false;
          start = i + 1;
          afterReturn = c == '\r';
        } else {
          afterReturn = false;
        }
      }
      if (n < 0) {
        if (end > start && !skipping) {
          line++;
          line(buffer, start, end);
        }
        return;
      }
      held = end - start;
      if (held > LONGEST_LINE) {
        if (!skipping) {
          f.error(
              line + 1,
              1,
              "a line of more than " + LONGEST_LINE + " characters; expected lines of 80");
        }
        skipping = true;
        held = 0;
      } else {
        System.arraycopy(buffer, start, buffer, 0, held);
      }
    }
  }

  private void line(byte[] b, int begin, int end) {
    int from = begin;
    if (line == 1
        && end - begin >= 3
        && b[begin] == (byte) 0xEF
        && b[begin + 1] == (byte) 0xBB
        && b[begin + 2] == (byte) 0xBF) {
      from += 3; // the mark of UTF-8
    }
    int to = end;
    while (to > from && (b[to - 1] == ' ' || b[to - 1] == '\t' || b[to - 1] == 0x1a)) {
      to--;
    }
    if (to == from) {
      return;
    }
    if (ended) {
      afterEnd++;
      return;
    }
    switch (b[from]) {
      case 'C' -> comments.add(text(b, from, to));
      case 'P' -> parameter(text(b, from, to));
      default -> {
        if (to - from < 3 || !digit(b[from]) || !digit(b[from + 1]) || !digit(b[from + 2])) {
          f.warn(
              line, 1, "not a netlist record, passed over: '" + shorten(text(b, from, to)) + "'");
          return;
        }
        int code = (b[from] - '0') * 100 + (b[from + 1] - '0') * 10 + b[from + 2] - '0';
        if (code == 999) {
          ended = true;
        } else if (code == 317 || code == 327) {
          record(b, from, to, code == 317);
        } else if ((code == 17 || code == 27) && further(b, from, to)) {
          record(b, from, to, code == 17);
          morePads++;
        } else {
          passed.computeIfAbsent(String.format("%03d", code), _ -> new int[] {0, line})[0]++;
        }
      }
    }
  }

  /// Whether a record goes on with another pad of the joint before: its name is blank or the same.
  private boolean further(byte[] b, int from, int to) {
    return to - from >= 57
        && afterJoint // behind a via or a record that was no good there is no joint to go on with
        && b[from + 41] == 'X'
        && b[from + 49] == 'Y'
        && blankOr(b, from + 20, from + 26, joints.last().part())
        && sameNet(text(b, from + 3, from + 17).strip(), joints.last().net());
  }

  private static boolean blankOr(byte[] b, int from, int to, String same) {
    String is = text(b, from, to).strip();
    return is.isEmpty() || is.equals(same);
  }

  private boolean sameNet(String said, String net) {
    return said.isEmpty()
        || longNames.getOrDefault(said, said).equals(net)
        || said.equals("N/C") && net.isEmpty();
  }

  private void parameter(String p) {
    String[] words = p.split("\\s+");
    if (words.length >= 3 && words[1].equals("UNITS")) {
      String units = String.join(" ", List.of(words).subList(2, words.length));
      switch (units) {
        case "CUST 0" -> units(0.00254, false);
        case "CUST 1", "SI" -> units(0.001, false);
        case "CUST 2" -> units(0.00254, true);
        default ->
            f.error(
                line,
                10,
                "unknown units '" + shorten(units) + "', expected CUST 0, CUST 1 or CUST 2");
      }
      if (firstRecord > 0) {
        f.warn(line, 1, "units are stated after the first record on line " + firstRecord);
      }
    } else if (words.length >= 3 && words[1].startsWith("NNAME")) {
      // a name may hold blanks: cut at the first, two nets would become one
      String full = p.substring(p.indexOf(words[1]) + words[1].length()).strip();
      String before = longNames.putIfAbsent(words[1], full);
      if (before != null && !before.equals(full)) {
        f.error(
            line,
            4,
            "net name "
                + words[1]
                + " is '"
                + shorten(full)
                + "' here and '"
                + shorten(before)
                + "' before");
      }
    } else {
      comments.add(p);
    }
  }

  private void units(double scale, boolean inRadians) {
    scaleMm = scale;
    radians = inRadians;
    unitsStated = true;
    lastPad = null;
  }

  private void record(byte[] b, int from, int to, boolean hole) {
    if (firstRecord == 0) {
      firstRecord = line;
    }
    if (to - from < 57) {
      afterJoint = false;
      f.warn(
          line,
          to - from + 1,
          "a short record, passed over: expected at least 57 columns, found " + (to - from));
      return;
    }
    if (joints.size() >= MOST_RECORDS) {
      if (joints.size() == MOST_RECORDS) {
        f.error(line, 1, "more than " + MOST_RECORDS + " records");
      }
      return;
    }
    Joint last = last(b, from);
    afterJoint = false;
    int net = last == null ? net(b, from) : last.net().isEmpty() ? -1 : nets.number(last.net());
    if (net == BAD_NET) {
      return; // the problem is already noted
    }
    int dash = dash(b, from);
    int partNumber = last == null ? parts.number(b, from + 20, dash) : parts.number(last.part());
    String part = parts.name(partNumber);
    boolean via = part.equals("VIA") || part.isEmpty();
    int pinNumber =
        via ? 0 : last == null ? pins.number(b, dash + 1, from + 31) : pins.number(last.pin());
    String pin = via ? "" : pins.name(pinNumber);
    boolean middle = b[from + 31] == 'M';
    double drill = 0;
    boolean plated = true;
    if (b[from + 32] == 'D') {
      drill = size(b, from + 33, from + 37, to, 34) * scaleMm;
      plated = b[from + 37] != 'U';
    }
    if (hole && drill == 0) {
      noDiameter.add(line);
    }
    Reach reach = last != null && b[from + 38] != 'A' ? joints.lastReach() : reach(b, from);
    double x = coordinate(b, from + 41, 'X', 42);
    double y = coordinate(b, from + 49, 'Y', 50);
    Pad pad = pad(b, from, to);
    if (Double.isNaN(x + y + drill + pad.widthMm + pad.heightMm + pad.rotation)) {
      return; // the problem is already noted
    }
    Joint j =
        new Joint(
            via ? "" : part,
            pin,
            net < 0 ? "" : nets.name(net),
            x,
            y,
            masked(reach, pad.mask),
            hole,
            drill,
            plated,
            pad.widthMm,
            pad.heightMm,
            radians ? Math.toDegrees(pad.rotation / 100) : pad.rotation,
            middle,
            pad.mask);
    if (via) {
      joints.via(j);
    } else {
      joints.add(j, reach, net, partNumber, pinNumber, line);
      afterJoint = true;
    }
  }

  /// Columns 58 to 74: size, rotation and mask. Pads that follow each other are often alike.
  private Pad pad(byte[] b, int from, int to) {
    if (to - from != PAD_END) {
      return padOf(b, from, to);
    }
    long low = EightBytes.at(b, from + 57);
    long high = EightBytes.at(b, from + 65);
    if (lastPad == null || low != padLow || high != padHigh) {
      Pad pad = padOf(b, from, to);
      if (Double.isNaN(pad.widthMm + pad.heightMm + pad.rotation)) {
        return pad; // each such record is told
      }
      lastPad = pad;
      padLow = low;
      padHigh = high;
    }
    return lastPad;
  }

  private Pad padOf(byte[] b, int from, int to) {
    double width =
        to - from > 58 && b[from + 57] == 'X' ? size(b, from + 58, from + 62, to, 59) * scaleMm : 0;
    double height =
        to - from > 63 && b[from + 62] == 'Y' ? size(b, from + 63, from + 67, to, 64) * scaleMm : 0;
    double rotation =
        to - from > 68 && b[from + 67] == 'R' ? size(b, from + 68, from + 71, to, 69) : 0;
    int mask = 0;
    for (int i = from + 71; i < Math.min(to - 1, from + 74); i++) {
      if (b[i] == 'S' && b[i + 1] >= '0' && b[i + 1] <= '3') {
        mask = b[i + 1] - '0';
      }
    }
    return new Pad(width, height, rotation, mask);
  }

  /// The number of a record's net, -1 for none, [#BAD_NET] when its long name is not defined.
  private int net(byte[] b, int from) {
    int known = nets.size();
    int n = nets.number(b, from + 3, from + 17);
    if (n == known && (nets.name(n).equals("N/C") || nets.name(n).startsWith("NNAME"))) {
      standIns.set(n);
    }
    return standIns.get(n) ? standsFor(nets.name(n)) : n;
  }

  private int standsFor(String name) {
    if (name.equals("N/C")) {
      return -1;
    }
    String full = longNames.get(name);
    if (full == null) {
      f.error(line, 4, "net name " + name + " is not defined by a line P  " + name);
      return BAD_NET;
    }
    return nets.number(full);
  }

  /// The dash between part and pin: column 27, or the last one between 22 and 31 of writers that
  /// differ.
  private static int dash(byte[] b, int from) {
    if (b[from + 26] == '-') {
      return from + 26;
    }
    for (int i = from + 30; i > from + 20; i--) {
      if (b[i] == '-') {
        return i;
      }
    }
    return from + 26;
  }

  /// The joint of which a record is another pad, null where it begins one of its own.
  private Joint last(byte[] b, int from) {
    return b[from] == '0' ? joints.last() : null;
  }

  private record Pad(double widthMm, double heightMm, double rotation, int mask) {}

  /// Records that lack the same thing: told once.
  private static final class Lacking {
    int count;
    int first;

    void add(int line) {
      first = count++ == 0 ? line : first;
    }
  }

  private Reach reach(byte[] b, int from) {
    if (b[from + 38] != 'A' || !digit(b[from + 39]) || !digit(b[from + 40])) {
      noAccess.add(line);
      return Reach.BOTH;
    }
    int layer = (b[from + 39] - '0') * 10 + b[from + 40] - '0';
    return layer == 0 ? Reach.BOTH : layer == 1 ? Reach.FIRST : Reach.SECOND;
  }

  private static Reach masked(Reach reach, int mask) {
    return switch (reach) {
      case BOTH ->
          mask == 3 ? Reach.NONE : mask == 1 ? Reach.SECOND : mask == 2 ? Reach.FIRST : Reach.BOTH;
      case FIRST -> (mask & 1) != 0 ? Reach.NONE : Reach.FIRST;
      case SECOND -> (mask & 2) != 0 ? Reach.NONE : Reach.SECOND;
      case NONE -> Reach.NONE;
    };
  }

  private double coordinate(byte[] b, int at, char letter, int column) {
    if (b[at] != letter) {
      f.error(
          line,
          column,
          "expected " + letter + " and a coordinate, found '" + text(b, at, at + 8) + "'");
      return Double.NaN;
    }
    int sign = b[at + 1] == '-' ? -1 : 1;
    int usual = b[at + 1] == '+' || sign < 0 ? EightBytes.number(b, at + 2, 6) : -1;
    if (usual >= 0) {
      return sign * usual * scaleMm;
    }
    if (b[at + 1] != '-' && b[at + 1] != '+' && b[at + 1] != ' ' && !digit(b[at + 1])) {
      f.error(line, column + 1, "expected a sign, found '" + text(b, at + 1, at + 2) + "'");
      return Double.NaN;
    }
    int start = digit(b[at + 1]) ? at + 1 : at + 2;
    double n = number(b, start, at + 8, Integer.MAX_VALUE, column + 2);
    return sign * n * scaleMm;
  }

  /// A number of digits in fixed columns, blanks around it allowed; NaN after noting a problem.
  private double number(byte[] b, int from, int to, int end, int column) {
    int i = from;
    int stop = Math.min(to, end);
    while (i < stop && b[i] == ' ') {
      i++;
    }
    int n = 0;
    boolean any = false;
    while (i < stop && digit(b[i])) {
      n = n * 10 + b[i++] - '0';
      any = true;
    }
    while (i < stop && b[i] == ' ') {
      i++;
    }
    if (!any || i < stop) {
      f.error(
          line,
          column,
          "expected a number of up to "
              + (to - from)
              + " digits, found '"
              + text(b, from, stop)
              + "'");
      return Double.NaN;
    }
    return n;
  }

  /// A number of digits where blanks say that nobody stated it: 0 then.
  private double size(byte[] b, int from, int to, int end, int column) {
    int usual = to <= end ? EightBytes.number(b, from, to - from) : -1;
    if (usual >= 0) {
      return usual;
    }
    for (int i = from; i < Math.min(to, end); i++) {
      if (b[i] != ' ') {
        return number(b, from, to, end, column);
      }
    }
    return 0;
  }

  private static boolean digit(byte c) {
    return c >= '0' && c <= '9';
  }

  private static String text(byte[] b, int from, int to) {
    return new String(
        b, from, Math.max(0, Math.min(to, b.length) - from), StandardCharsets.ISO_8859_1);
  }

  private static String shorten(String s) {
    return s.length() > 40 ? s.substring(0, 40) + "..." : s;
  }

  private Read<Netlist> done() {
    if (f.failed()) {
      return f.flawed();
    }
    if (joints.none()) {
      f.error(0, 0, "no test records found; expected lines that begin with 317 or 327");
      return f.flawed();
    }
    if (!unitsStated) {
      f.warn(0, 0, "no units are stated; 0.0001 inch was taken (P  UNITS CUST 0)");
    }
    if (!ended) {
      f.warn(line, 0, "the end record 999 is missing; the file may be cut short");
    } else if (afterEnd > 0) {
      f.pass(line, afterEnd + " lines after the end record");
    }
    passed.forEach((code, n) ->
        f.pass(
            n[1],
            (code.equals("367") ? "tooling holes and other bare holes: " : "records: ")
                + n[0]
                + " of kind "
                + code
                + ", first on this line"));
    if (noDiameter.count > 0) {
      f.warn(noDiameter.first, 33, noDiameter.count + " holes without a diameter, first here");
    }
    if (noAccess.count > 0) {
      f.warn(
          noAccess.first,
          39,
          noAccess.count + " records state no access, first here; both sides were taken");
    }
    if (morePads > 0) {
      f.found(morePads + " further pads of joints");
    }
    return f.done(joints.done(nets, comments));
  }
}
