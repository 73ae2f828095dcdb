package ell.bench.guard;

import com.fazecast.jSerialComm.SerialPort;
import ell.bench.link.Address;
import ell.bench.link.BenchException;
import ell.bench.link.ScpiLink;
import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.OutputStream;
import java.net.URISyntaxException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;

/// A link whose far end is held by a [Guard] in a process of its own: however this program ends,
/// that one switches the output off.
public final class GuardedLink implements ScpiLink {
  private static final int START_MILLIS = 10_000;

  /// What a guard may take beyond what its link may.
  private static final int MORE_MILLIS = 2000;

  private static final String GONE = "\0";

  private final Process guard;
  private final OutputStream out;
  private final LinkedBlockingQueue<String> said = new LinkedBlockingQueue<>();
  private final String where;
  private int timeoutMillis;

  private GuardedLink(Process guard, String where, int timeoutMillis) {
    this.guard = guard;
    this.out = guard.getOutputStream();
    this.where = where;
    this.timeoutMillis = timeoutMillis;
    Thread.ofVirtual().start(this::listen);
  }

  /// Starts a watchdog and lets it connect.
  ///
  /// @throws BenchException when it cannot be started, or no instrument answers it
  public static GuardedLink connect(Address address, int timeoutMillis) throws BenchException {
    String where = address.text();
    Process p;
    try {
      p =
          new ProcessBuilder(command(address, timeoutMillis))
              .redirectError(ProcessBuilder.Redirect.DISCARD)
              .start();
    } catch (IOException e) {
      throw new BenchException(
          "the watchdog of the supply cannot be started: " + e.getMessage() + "; no power without",
          e);
    }
    GuardedLink link = new GuardedLink(p, where, timeoutMillis);
    String first = link.next(START_MILLIS + timeoutMillis, "the start");
    if (!first.equals("ready")) {
      p.destroy();
      throw new BenchException(
          first.startsWith("no ") ? first.substring(3) : "the watchdog says '" + first + "'");
    }
    return link;
  }

  private static String path(Class<?> of) throws URISyntaxException {
    return Path.of(of.getProtectionDomain().getCodeSource().getLocation().toURI()).toString();
  }

  private static List<String> command(Address address, int timeoutMillis) throws BenchException {
    try {
      String classes = path(Guard.class) + File.pathSeparator + path(SerialPort.class);
      return List.of(
          Path.of(System.getProperty("java.home"), "bin", "java").toString(),
          "-XX:TieredStopAtLevel=1",
          "-XX:+UseSerialGC",
          "-Xmx32m",
          "--enable-native-access=ALL-UNNAMED",
          "-cp",
          classes,
          Guard.class.getName(),
          address.text(),
          Integer.toString(timeoutMillis));
    } catch (URISyntaxException e) {
      throw new BenchException("the watchdog of the supply is nowhere", e);
    }
  }

  private void listen() {
    try (BufferedReader in = guard.inputReader(StandardCharsets.US_ASCII)) {
      String line;
      while ((line = in.readLine()) != null) {
        said.add(line);
      }
    } catch (IOException e) {
      // it is gone
    }
    said.add(GONE);
  }

  private String next(long millis, String what) throws BenchException {
    try {
      String s = said.poll(millis, TimeUnit.MILLISECONDS);
      if (s == null) {
        throw new BenchException("the watchdog of the supply does not answer: " + what);
      }
      if (s.equals(GONE)) {
        said.add(GONE);
        throw new BenchException("the watchdog of the supply is gone");
      }
      return s;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new BenchException("interrupted", e);
    }
  }

  private synchronized String tell(String line) throws BenchException {
    try {
      out.write((line + "\n").getBytes(StandardCharsets.US_ASCII));
      out.flush();
    } catch (IOException e) {
      throw new BenchException("the watchdog of the supply is gone", e);
    }
    String s = next(timeoutMillis + MORE_MILLIS, line);
    if (s.startsWith("no ")) {
      throw new BenchException(s.substring(3));
    }
    return s.length() > 3 ? s.substring(3) : "";
  }

  @Override
  public void send(String command) throws BenchException {
    tell("send " + command);
  }

  @Override
  public String ask(String query) throws BenchException {
    return tell("ask " + query);
  }

  @Override
  public String askNext(String query) throws BenchException {
    return tell("next " + query);
  }

  @Override
  public void resync() throws BenchException {
    tell("resync");
  }

  @Override
  public void patience(int millis) throws BenchException {
    tell("patience " + millis);
    timeoutMillis = millis;
  }

  @Override
  public void lineEnd(String end) throws BenchException {
    tell("end " + (end.equals("\r\n") ? "CRLF" : end.equals("\r") ? "CR" : "LF"));
  }

  @Override
  public void safe(List<String> lines) throws BenchException {
    tell("safe " + String.join("\t", lines));
  }

  @Override
  public String where() {
    return where;
  }

  /// Lets the watchdog go: it switches off once more, and ends.
  @Override
  public void close() {
    try {
      out.close();
      guard.waitFor(timeoutMillis + MORE_MILLIS, TimeUnit.MILLISECONDS);
    } catch (IOException e) {
      // it is gone, or ends by itself
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
