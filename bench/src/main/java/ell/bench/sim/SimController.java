package ell.bench.sim;

import ell.core.board.Revision;
import ell.core.talk.ControllerOnBoard;
import ell.core.talk.Crc;
import ell.core.talk.Identity;
import ell.core.talk.LoaderFrame;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;

/// A simulated controller: its loader, the program that was loaded, its memory. It lives while the
/// board model gives it power, a clock and no reset; whatever takes these away and gives them back
/// begins it anew. Not for many threads.
final class SimController {
  /// Seconds that the loader listens before it lets the program run.
  private static final double LISTENS = 0.3;

  /// Seconds from power to the first instruction.
  private static final double WAKES = 0.02;

  /// Seconds from one beginning to the next where the program restarts by itself.
  private static final double WATCHDOG = 0.4;

  private static final int MOST_IMAGE = 4 << 20;
  private static final int LONGEST_LINE = 512;

  private final SimBoard board;
  private final BooleanSupplier memoryTakes;
  private final Consumer<Map<String, Boolean>> outputs;
  private final Random random;
  private final ByteArrayOutputStream out = new ByteArrayOutputStream();
  private final Map<String, String> settings = new LinkedHashMap<>();
  private final StringBuilder line = new StringBuilder();
  private byte[] identity;
  private Optional<SimProgram> program;
  private List<String> wrong = List.of();
  private Mode mode = Mode.OFF;
  private double since;
  private LoaderFrame.Taker frames = new LoaderFrame.Taker();
  private byte[] image = new byte[0];
  private long wantedCrc;
  private boolean begun;

  private enum Mode {
    OFF,
    WAKING,
    LISTENING,
    LOADER,
    PROGRAM
  }

  /// @param memoryTakes whether the memory takes a write at this very try
  /// @param outputs takes what its program puts on outputs, by net, true for high
  SimController(
      SimBoard board,
      BooleanSupplier memoryTakes,
      Consumer<Map<String, Boolean>> outputs,
      long seed) {
    this.board = board;
    this.memoryTakes = memoryTakes;
    this.outputs = outputs;
    this.random = new Random(seed * 31 + board.serial().hashCode());
    String firmware = board.talk().firmware();
    this.program =
        firmware.isEmpty() ? Optional.empty() : Optional.of(SimProgram.version(firmware));
    this.identity = board.talk().knows().map(Identity::bytes).orElse(new byte[0]);
  }

  /// Time goes by.
  ///
  /// @param now seconds of any clock
  /// @param firmwareFaults what its program does wrong, in words
  void at(double now, ControllerOnBoard is, List<String> firmwareFaults) {
    wrong = firmwareFaults;
    if (!is.runs()) {
      mode = Mode.OFF;
      return;
    }
    switch (mode) {
      case OFF -> restart(now);
      case WAKING -> {
        if (now - since > WAKES) {
          boolean toProgram = is.straps().orElseGet(random::nextBoolean);
          mode = toProgram ? Mode.LISTENING : Mode.LOADER;
          since = now;
          if (!toProgram) {
            say("loader 1: waiting, as the strap says\r\n");
          }
        }
      }
      case LISTENING -> {
        if (now - since > LISTENS) {
          if (program.isPresent()) {
            run(now);
          } else {
            mode = Mode.LOADER;
            say("loader 1: no program\r\n");
          }
        }
      }
      case PROGRAM -> {
        if (does("restart") && now - since > WATCHDOG) {
          mode = Mode.WAKING;
          since = now - WAKES;
        }
      }
      case LOADER -> {} // it waits for ever
    }
  }

  private void restart(double now) {
    mode = Mode.WAKING;
    since = now;
    frames = new LoaderFrame.Taker();
    line.setLength(0);
    begun = false;
  }

  private boolean does(String word) {
    return wrong.stream().anyMatch(w -> w.toLowerCase(Locale.ROOT).contains(word));
  }

  private void run(double now) {
    mode = Mode.PROGRAM;
    since = now;
    if (!does("banner") && !does("silent")) {
      say(filled(program.orElseThrow().banner()) + "\r\n");
    }
  }

  private String filled(String text) {
    Revision r = board.revision();
    return text.replace("{design}", r.design())
        .replace("{revision}", r.name())
        .replace("{board}", board.serial())
        .replace("{firmware}", program.map(SimProgram::firmware).orElse("none"));
  }

  /// Bytes arrive at its pin.
  void hears(byte[] bytes, double now) {
    for (byte b : bytes) {
      switch (mode) {
        case LISTENING, LOADER -> frames.take(b & 0xff).ifPresent(f -> asked(f, now));
        case PROGRAM -> typed((char) (b & 0xff), now);
        default -> {} // nobody listens
      }
    }
  }

  /// What it sent since it was asked last.
  byte[] says() {
    byte[] all = out.toByteArray();
    out.reset();
    return all;
  }

  /// The rate of its program over what it should be: 1 but where its code is wrong.
  double rate(int usual) {
    if (mode != Mode.PROGRAM) {
      return 1;
    }
    for (String w : wrong) {
      String[] words = w.toLowerCase(Locale.ROOT).split("\\s+");
      for (int i = 0; i + 1 < words.length; i++) {
        if (words[i].equals("baud") && words[i + 1].matches("\\d{2,7}")) {
          return Double.parseDouble(words[i + 1]) / usual;
        }
      }
    }
    return 1;
  }

  private void say(String text) {
    out.writeBytes(text.getBytes(StandardCharsets.UTF_8));
  }

  private void asked(LoaderFrame f, double now) {
    if (mode == Mode.LISTENING) {
      mode = Mode.LOADER;
    }
    int status =
        switch (f.kind()) {
          case 'H' -> LoaderFrame.OK;
          case 'B' -> begin(f.reads());
          case 'D' -> data(f.reads());
          case 'E' -> end();
          case 'R' -> program.isPresent() ? LoaderFrame.OK : LoaderFrame.BAD_IMAGE;
          default -> LoaderFrame.REFUSED;
        };
    byte[] more =
        switch (f.kind()) {
          case 'H' -> ("loader 1 " + board.revision().design()).getBytes(StandardCharsets.UTF_8);
          case 'E' ->
              ByteBuffer.allocate(4)
                  .order(ByteOrder.LITTLE_ENDIAN)
                  .putInt((int) Crc.crc32(image))
                  .array();
          default -> new byte[0];
        };
    out.writeBytes(LoaderFrame.answer(f.number(), status, more).bytes());
    if (f.kind() == 'R' && status == LoaderFrame.OK) {
      restart(now); // it runs as it will run from now on: straps and all
    }
  }

  private int begin(ByteBuffer b) {
    if (b.remaining() < 8) {
      return LoaderFrame.REFUSED;
    }
    int size = b.getInt();
    long crc = b.getInt() & 0xffffffffL;
    if (size < 1 || size > MOST_IMAGE) {
      return LoaderFrame.REFUSED;
    }
    // what was there is gone from here on: half an image is none
    program = Optional.empty();
    image = new byte[size];
    wantedCrc = crc;
    begun = true;
    return LoaderFrame.OK;
  }

  private int data(ByteBuffer b) {
    if (!begun || b.remaining() < 5) {
      return LoaderFrame.REFUSED;
    }
    int offset = b.getInt();
    if (offset < 0 || offset + b.remaining() > image.length) {
      return LoaderFrame.REFUSED;
    }
    b.get(image, offset, b.remaining());
    return LoaderFrame.OK;
  }

  private int end() {
    if (!begun) {
      return program.isPresent() ? LoaderFrame.OK : LoaderFrame.REFUSED;
    }
    if (Crc.crc32(image) != wantedCrc) {
      return LoaderFrame.BAD_IMAGE;
    }
    program = Optional.of(SimProgram.of(image));
    return LoaderFrame.OK;
  }

  private void typed(char c, double now) {
    if (c != '\r' && c != '\n') {
      if (line.length() < LONGEST_LINE) {
        line.append(c);
      }
      return;
    }
    String asked = line.toString().strip();
    line.setLength(0);
    if (asked.isEmpty() || does("hang")) {
      return;
    }
    String answer = answered(asked, now);
    if (!answer.isEmpty()) {
      say(answer + "\r\n");
    }
  }

  private String answered(String asked, double now) {
    String[] w = asked.split("\\s+");
    String own = program.orElseThrow().answers().get(asked);
    if (own != null) {
      return filled(own);
    }
    return switch (w[0]) {
      case "ver?" -> "firmware " + program.get().firmware();
      case "id?" -> "board " + board.revision().design() + " " + board.revision().name();
      case "set" -> w.length == 3 ? set(w[1], w[2]) : "what? " + asked;
      case "get" ->
          w.length == 2 ? w[1] + " " + settings.getOrDefault(w[1], "none") : "what? " + asked;
      case "identity" -> w.length == 3 ? identify(w[1], w[2]) : "what? " + asked;
      case "identity?" ->
          Identity.read(identity)
              .map(i -> "identity " + i.serial() + " " + i.revision())
              .orElse("identity none");
      case "out" ->
          w.length == 3 && w[1].matches("[01]{1,64}") ? drive(w[1], w[2]) : "what? " + asked;
      case "restart" -> {
        restart(now);
        yield "";
      }
      case "load" -> {
        mode = Mode.LOADER;
        frames = new LoaderFrame.Taker();
        begun = false;
        yield "loader 1: waiting";
      }
      default -> "what? " + asked;
    };
  }

  /// Puts a pattern on outputs, a figure for each net.
  private String drive(String vector, String nets) {
    String[] all = nets.split(",");
    if (all.length != vector.length()) {
      return "what? " + vector.length() + " figures for " + all.length + " outputs";
    }
    Map<String, Boolean> levels = new LinkedHashMap<>();
    for (int i = 0; i < all.length; i++) {
      levels.put(all[i], vector.charAt(i) == '1');
    }
    try {
      outputs.accept(levels);
      return "ok";
    } catch (IllegalArgumentException e) {
      return "what? " + e.getMessage();
    }
  }

  /// A program that does not read back says ok whatever the memory does.
  private String set(String name, String value) {
    if (memoryTakes.getAsBoolean() && !(does("half") && random.nextBoolean())) {
      settings.put(name, value);
    }
    return "ok";
  }

  private String identify(String serial, String revision) {
    try {
      byte[] bytes = new Identity(serial, revision).bytes();
      if (memoryTakes.getAsBoolean()) {
        identity = Arrays.copyOf(bytes, bytes.length);
      }
      return "ok";
    } catch (IllegalArgumentException e) {
      return "what? " + e.getMessage();
    }
  }
}
