package ell.bench.sim;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// A SCPI instrument on a loopback port: lines in, lines out, an error queue, the IEEE 488.2 common
/// commands. What it measures and sets is registered by whoever makes it.
final class ScpiServer implements AutoCloseable {
  private static final int QUEUE = 20;
  private static final int NOW_AND_THEN = 5;
  private static final int SLOW_MILLIS = 700;
  private static final String EXTRA = "+1.165000E+01\n";

  private final String identity;
  private final ServerSocket listener;
  private final Map<Pattern, Function<String, String>> commands = new LinkedHashMap<>();
  private final Deque<String> errors = new ArrayDeque<>();
  private final Set<Socket> clients = ConcurrentHashMap.newKeySet();
  private final AtomicInteger open = new AtomicInteger();
  private Runnable reset = () -> {};
  private Runnable lastClientGone = () -> {};
  private Runnable heard = () -> {};
  private volatile int answered;
  private volatile Mischief mischief = Mischief.NONE;

  ScpiServer(String identity, int port) throws IOException {
    this.identity = identity;
    this.listener = new ServerSocket(port, 16, InetAddress.getLoopbackAddress());
  }

  /// An error that the instrument reports in its queue.
  static final class Refused extends RuntimeException {
    Refused(int code, String words) {
      super(code + ",\"" + words + "\"", null, false, false);
    }
  }

  /// Registers a header; the function gets the argument (or null) and returns an answer, or null.
  ScpiServer on(String header, Function<String, String> action) {
    commands.put(Pattern488.of(header), action);
    return this;
  }

  ScpiServer onReset(Runnable action) {
    reset = action;
    return this;
  }

  ScpiServer onLastClientGone(Runnable action) {
    lastClientGone = action;
    return this;
  }

  ScpiServer onHeard(Runnable action) {
    heard = action;
    return this;
  }

  void mischief(Mischief m) {
    mischief = m;
    if (m == Mischief.VANISH) {
      clients.forEach(ScpiServer::closeQuietly);
    }
  }

  int port() {
    return listener.getLocalPort();
  }

  void start() {
    Thread.ofVirtual()
        .start(() -> {
          while (!listener.isClosed()) {
            try {
              Socket s = listener.accept();
              clients.add(s);
              open.incrementAndGet();
              Thread.ofVirtual().start(() -> serve(s));
            } catch (IOException e) {
              return; // closed
            }
          }
        });
  }

  private void serve(Socket socket) {
    try (socket;
        BufferedReader in =
            new BufferedReader(
                new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII))) {
      socket.setTcpNoDelay(true);
      OutputStream out = socket.getOutputStream();
      String line;
      while ((line = in.readLine()) != null && mischief != Mischief.VANISH) {
        heard.run();
        StringBuilder answers = new StringBuilder();
        for (String one : line.split(";")) {
          String answer = one.isBlank() ? null : answer(one.strip());
          if (answer != null) {
            answers.append(answers.isEmpty() ? "" : ";").append(answer);
          }
        }
        if (!answers.isEmpty() && mischief != Mischief.HANG) {
          if (mischief == Mischief.SLOW) {
            Thread.sleep(SLOW_MILLIS);
          }
          String said = mischief == Mischief.GARBAGE ? "\u0007#?!" : answers.toString();
          boolean now = ++answered % NOW_AND_THEN == 0;
          String before = mischief == Mischief.LINE_BEFORE && now ? EXTRA : "";
          String behind = mischief == Mischief.LINE_BEHIND && now ? EXTRA : "";
          out.write((before + said + "\n" + behind).getBytes(StandardCharsets.US_ASCII));
          out.flush();
        }
      }
    } catch (IOException e) {
      // the client is gone; what follows from that is done below
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    } finally {
      clients.remove(socket);
      if (open.decrementAndGet() == 0) {
        lastClientGone.run();
      }
    }
  }

  private synchronized String answer(String command) {
    switch (command.toUpperCase(java.util.Locale.ROOT)) {
      case "*IDN?" -> {
        return identity;
      }
      case "*RST" -> {
        reset.run();
        return null;
      }
      case "*CLS" -> {
        errors.clear();
        return null;
      }
      case "*OPC?" -> {
        return "1";
      }
      case "*OPC", "*WAI" -> {
        return null;
      }
      case "*ESR?", "*STB?" -> {
        return errors.isEmpty() ? "0" : "4";
      }
      case "SYST:ERR?", "SYST:ERR:NEXT?", "SYSTEM:ERROR?", "SYSTEM:ERROR:NEXT?", ":SYST:ERR?" -> {
        return errors.isEmpty() ? "0,\"No error\"" : errors.poll();
      }
      case "SYST:VERS?" -> {
        return "1999.0";
      }
      default -> {}
    }
    try {
      for (Map.Entry<Pattern, Function<String, String>> e : commands.entrySet()) {
        Matcher m = e.getKey().matcher(command);
        if (m.matches()) {
          return e.getValue().apply(m.group(1) == null ? null : m.group(1).strip());
        }
      }
      throw new Refused(-113, "Undefined header");
    } catch (Refused e) {
      if (errors.size() >= QUEUE) {
        errors.pollLast();
        errors.add("-350,\"Queue overflow\"");
      } else {
        errors.add(e.getMessage());
      }
      return null;
    }
  }

  @Override
  public void close() {
    try {
      listener.close();
    } catch (IOException e) {
      // nothing is listening any more
    }
    clients.forEach(ScpiServer::closeQuietly);
  }

  private static void closeQuietly(Socket s) {
    try {
      s.close();
    } catch (IOException e) {
      // it is gone already
    }
  }
}
