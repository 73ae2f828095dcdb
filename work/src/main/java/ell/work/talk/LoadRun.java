package ell.work.talk;

import ell.bench.link.BenchException;
import ell.core.talk.Crc;
import ell.core.talk.LoaderFrame;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.DoubleConsumer;

/// Sends an image with the loader's frames. Loaded is only what the board has checked whole and
/// said so.
final class LoadRun {
  private static final int TRIES = 5;
  private static final double ANSWERS = 0.6;
  private static final double ERASES = 3;

  /// Seconds in which a loader that listens says so; how often it is asked.
  private static final double HELLO = 0.15;

  private static final int HELLOS = 14;
  private static final double LOOKS = 0.05;

  private final OpenLine line;
  private final double until;
  private final DoubleConsumer progress;
  private final BooleanSupplier stopped;
  private final Consumer<byte[]> stray;
  private final LoaderFrame.Taker taker = new LoaderFrame.Taker();
  private int number;
  private long again;
  private byte[] rest = new byte[0];

  /// How it ended.
  ///
  /// @param done whether the board said that the whole image checks
  /// @param says in a sentence
  /// @param again bytes that were sent more than once
  /// @param rest what came behind the last answer
  record Result(boolean done, String says, long again, byte[] rest) {}

  /// @param seconds in which it must be done
  /// @param stray takes what came and was no frame
  LoadRun(
      OpenLine line,
      double seconds,
      DoubleConsumer progress,
      BooleanSupplier stopped,
      Consumer<byte[]> stray) {
    this.line = line;
    this.until = System.nanoTime() * 1e-9 + seconds;
    this.progress = progress;
    this.stopped = stopped;
    this.stray = stray;
  }

  Result load(byte[] image) throws InterruptedException {
    if (image.length == 0) {
      return new Result(false, "the image is empty", 0, rest);
    }
    try {
      Optional<LoaderFrame> hello = hello();
      if (hello.isEmpty()) {
        return no("the loader does not answer");
      }
      String who =
          new String(hello.get().body(), 1, hello.get().body().length - 1, StandardCharsets.UTF_8);
      Optional<LoaderFrame> a = ask(LoaderFrame.begin(next(), image), ERASES);
      if (!ok(a)) {
        return no("the loader does not take an image of " + image.length + " bytes" + status(a));
      }
      for (int at = 0; at < image.length; at += LoaderFrame.BLOCK) {
        a = ask(LoaderFrame.data(next(), image, at), ANSWERS);
        if (!ok(a)) {
          return no("it stopped at byte " + at + " of " + image.length + status(a));
        }
        progress.accept(Math.min(1, (at + LoaderFrame.BLOCK) / (double) image.length));
      }
      a = ask(LoaderFrame.end(next()), ERASES);
      if (!ok(a)) {
        return no("the board did not say that the image checks" + status(a));
      }
      int crc = a.get().body().length >= 5 ? a.get().reads().position(1).getInt() : 0;
      if (crc != (int) Crc.crc32(image)) {
        return no("the board holds another image than was sent");
      }
      Optional<LoaderFrame> run = ask(LoaderFrame.run(next()), ANSWERS);
      return new Result(
          true,
          image.length
              + " bytes, check sum "
              + String.format("%08x", Crc.crc32(image))
              + ", by "
              + who
              + (ok(run) ? "" : "; it did not say that it runs"),
          again,
          rest);
    } catch (BenchException e) {
      return no(e.getMessage());
    }
  }

  private Result no(String why) {
    return new Result(
        false,
        stopped.getAsBoolean() ? "stopped; " + why : why + ": it is not loaded",
        again,
        rest);
  }

  private static boolean ok(Optional<LoaderFrame> a) {
    return a.isPresent() && a.get().body().length > 0 && a.get().body()[0] == LoaderFrame.OK;
  }

  private static String status(Optional<LoaderFrame> a) {
    return a.isEmpty() || a.get().body().length == 0
        ? ", no answer"
        : a.get().body()[0] == LoaderFrame.BAD_IMAGE ? ", it does not check" : ", refused";
  }

  private int next() {
    number = number + 1 & 0xff;
    return number;
  }

  /// A program that runs is asked to give way to its loader.
  private Optional<LoaderFrame> hello() throws BenchException, InterruptedException {
    for (int i = 0; i < HELLOS && !over(); i++) {
      Optional<LoaderFrame> a = once(LoaderFrame.hello(next()), HELLO);
      if (a.isPresent()) {
        return a;
      }
      if (i % 4 == 3) {
        line.send("\rload\r".getBytes(StandardCharsets.US_ASCII));
      }
    }
    return Optional.empty();
  }

  private boolean over() {
    return stopped.getAsBoolean() || System.nanoTime() * 1e-9 > until;
  }

  private Optional<LoaderFrame> ask(LoaderFrame f, double seconds)
      throws BenchException, InterruptedException {
    for (int i = 0; i < TRIES && !over(); i++) {
      if (i > 0) {
        again += f.bytes().length;
      }
      Optional<LoaderFrame> a = once(f, seconds);
      if (a.isPresent()) {
        return a;
      }
    }
    return Optional.empty();
  }

  private Optional<LoaderFrame> once(LoaderFrame f, double seconds)
      throws BenchException, InterruptedException {
    try {
      return asked(f, seconds);
    } finally {
      stray.accept(taker.stray());
    }
  }

  private Optional<LoaderFrame> asked(LoaderFrame f, double seconds)
      throws BenchException, InterruptedException {
    line.send(f.bytes());
    double end = System.nanoTime() * 1e-9 + seconds;
    while (true) {
      double left = end - System.nanoTime() * 1e-9;
      if (left <= 0 || stopped.getAsBoolean()) {
        return Optional.empty();
      }
      Optional<OpenLine.Heard> h = line.next(Math.min(left, LOOKS));
      if (h.isEmpty()) {
        if (!line.there()) {
          throw new BenchException("the line was lost");
        }
        continue;
      }
      byte[] all = h.get().bytes();
      for (int i = 0; i < all.length; i++) {
        Optional<LoaderFrame> a = taker.take(all[i] & 0xff);
        if (a.isPresent() && a.get().kind() == 'A' && a.get().number() == f.number()) {
          rest = Arrays.copyOfRange(all, i + 1, all.length);
          return a;
        }
      }
    }
  }
}
