package ell.bench.guard;

import ell.bench.link.BenchException;
import ell.bench.link.TcpLink;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;

/// The watchdog process: it alone holds the link to a supply, carries lines for the program that
/// started it, and switches the output off when that program dies, hangs up, or says nothing for a
/// while with the output on. It needs nothing but the JDK and this module.
///
/// ```
/// in    = "send " command | "ask " query | "next " query | "resync" | "patience " millis | "close"
/// out   = "ready" | "ok" [ " " answer ] | "no " message
/// ```
public final class Guard {
  /// With the output on it wants to hear something within so many milliseconds.
  static final long SILENCE_MILLIS = 15_000;

  private static final long TRYING_MILLIS = 20_000;
  private static final int AGAIN_MILLIS = 100;

  private final String host;
  private final int port;
  private final int timeoutMillis;
  private volatile TcpLink link;
  private volatile boolean told;
  private volatile boolean over;
  private volatile long heard = System.nanoTime();

  private Guard(String host, int port, int timeoutMillis) throws BenchException {
    this.host = host;
    this.port = port;
    this.timeoutMillis = timeoutMillis;
    this.link = TcpLink.connect(host, port, timeoutMillis);
  }

  /// Runs until the standard input ends.
  ///
  /// @param args host, port, milliseconds for each answer
  public static void main(String[] args) throws IOException {
    PrintStream out = new PrintStream(System.out, true, StandardCharsets.US_ASCII);
    Guard g;
    try {
      g = new Guard(args[0], Integer.parseInt(args[1]), Integer.parseInt(args[2]));
    } catch (BenchException e) {
      out.println("no " + e.getMessage());
      return;
    }
    Thread.ofPlatform().daemon().start(g::listen);
    // a signal to the whole group ends this process too: not before the output is off
    Runtime.getRuntime().addShutdownHook(new Thread(g::off));
    out.println("ready");
    g.serve(new BufferedReader(new InputStreamReader(System.in, StandardCharsets.US_ASCII)), out);
    g.off();
    Runtime.getRuntime().halt(0);
  }

  private void serve(BufferedReader in, PrintStream out) {
    try {
      String line;
      while ((line = in.readLine()) != null && !line.equals("close")) {
        heard = System.nanoTime();
        out.println(answer(line));
        heard = System.nanoTime();
      }
    } catch (IOException e) {
      // the same as an end: nobody is there any more
    }
  }

  private String answer(String line) {
    int blank = line.indexOf(' ');
    String rest = blank < 0 ? "" : line.substring(blank + 1);
    try {
      switch (blank < 0 ? line : line.substring(0, blank)) {
        case "send" -> {
          told |= !rest.startsWith("OUTP OFF");
          link.send(rest);
          return "ok";
        }
        case "ask" -> {
          return "ok " + link.ask(rest);
        }
        case "next" -> {
          return "ok " + link.askNext(rest);
        }
        case "resync" -> link.resync();
        case "patience" -> link.patience(Integer.parseInt(rest));
        default -> {
          return "no the watchdog does not know '" + line + "'";
        }
      }
      return "ok";
    } catch (BenchException e) {
      return "no " + e.getMessage();
    }
  }

  private void listen() {
    while (!over) {
      sleep();
      if (told && System.nanoTime() - heard > SILENCE_MILLIS * 1_000_000) {
        try {
          link.send("OUTP OFF");
          told = false; // once; whoever speaks again finds it off
        } catch (BenchException e) {
          // the program will find the link gone, or die, and then it is tried again
        }
      }
    }
  }

  /// Off: on the link that stands, then on new ones, until the supply says that it is.
  private synchronized void off() {
    if (over) {
      return;
    }
    over = true;
    long end = System.nanoTime() + TRYING_MILLIS * 1_000_000;
    while (!confirmed() && System.nanoTime() < end) {
      sleep();
    }
    link.close();
  }

  private boolean confirmed() {
    try {
      link.send("OUTP OFF");
      link.patience(Math.min(timeoutMillis, 500));
      String said = link.ask("OUTP?");
      if (said.matches("\\s*[+-]?0+\\s*")) {
        return true;
      }
      link.resync();
      return false;
    } catch (BenchException e) {
      try {
        link.close();
        link = TcpLink.connect(host, port, timeoutMillis);
      } catch (BenchException gone) {
        // tried again until the time is over
      }
      return false;
    }
  }

  private static void sleep() {
    try {
      Thread.sleep(AGAIN_MILLIS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
