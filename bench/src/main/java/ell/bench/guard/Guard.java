package ell.bench.guard;

import ell.bench.link.Address;
import ell.bench.link.BenchException;
import ell.bench.link.LineLink;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.List;

/// The watchdog process: it alone holds the link to a supply, carries lines for the program that
/// started it, and switches the output off when that program dies, hangs up, or says nothing for a
/// while with the output on. It needs nothing but the JDK, this module and, for a serial line, the
/// library that opens one.
///
/// ```
/// in    = "send " command | "ask " query | "next " query | "resync" | "patience " millis | "close"
///       | "safe " line { TAB line } | "end " ( "LF" | "CRLF" | "CR" )
/// out   = "ready" | "ok" [ " " answer ] | "no " message
/// ```
public final class Guard {
  /// With the output on it wants to hear something within so many milliseconds.
  static final long SILENCE_MILLIS = 15_000;

  private static final long TRYING_MILLIS = 20_000;
  private static final int AGAIN_MILLIS = 100;

  private final Address address;
  private final int timeoutMillis;
  private volatile LineLink link;
  private volatile String lineEnd = "\n";

  /// Commands, and queries that answer 0 when the output is off.
  private volatile List<String> safe = List.of("OUTP OFF", "OUTP?");

  private volatile boolean told;
  private volatile boolean over;
  private volatile long heard = System.nanoTime();

  private Guard(Address address, int timeoutMillis) throws BenchException {
    this.address = address;
    this.timeoutMillis = timeoutMillis;
    this.link = address.connect(timeoutMillis);
  }

  /// Runs until the standard input ends.
  ///
  /// @param args address, milliseconds for each answer
  public static void main(String[] args) throws IOException {
    PrintStream out = new PrintStream(System.out, true, StandardCharsets.US_ASCII);
    Guard g;
    try {
      g = new Guard(new Address(args[0]), Integer.parseInt(args[1]));
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
          told |= !safe.contains(rest);
          link.send(rest);
          return "ok";
        }
        case "ask" -> {
          return "ok " + link.ask(rest);
        }
        case "next" -> {
          return "ok " + link.askNext(rest);
        }
        case "safe" -> safe = List.of(rest.split("\t"));
        case "end" -> {
          lineEnd = ends(rest);
          link.lineEnd(lineEnd);
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
          for (String line : safe) {
            if (!asks(line)) {
              link.send(line);
            }
          }
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

  private static boolean asks(String line) {
    return line.split(" ", 2)[0].endsWith("?");
  }

  static String ends(String word) {
    return switch (word) {
      case "CRLF" -> "\r\n";
      case "CR" -> "\r";
      default -> "\n";
    };
  }

  private boolean confirmed() {
    try {
      link.patience(Math.min(timeoutMillis, 500));
      boolean off = true;
      for (String line : safe) {
        if (!asks(line)) {
          link.send(line);
        } else if (!link.ask(line).matches("(?i)\\s*([+-]?0+|OFF)\\s*")) {
          off = false;
          link.resync();
        }
      }
      return off;
    } catch (BenchException e) {
      try {
        link.close();
        link = address.connect(timeoutMillis);
        link.lineEnd(lineEnd);
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
