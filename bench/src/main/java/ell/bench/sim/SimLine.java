package ell.bench.sim;

import ell.core.talk.ControllerOnBoard;
import ell.core.talk.Framing;
import ell.core.talk.SerialPort;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CopyOnWriteArrayList;

/// The line to the controller of the board on the bench: raw bytes on a socket. What the board
/// model does not let through does not arrive, and what is sent at another rate arrives as what a
/// receiver makes of it.
final class SimLine extends SimDevice {
  /// The fastest rate that it can be told.
  static final int MOST_BAUD = 12_000_000;

  private static final int TICK_MILLIS = 5;
  private static final double LEAST_RATIO = 0.1;

  private final SimTable table;
  private final long seed;
  private final ServerSocket server;
  private final List<Socket> clients = new CopyOnWriteArrayList<>();
  private final Map<String, SimController> controllers = new HashMap<>();
  private final long began = System.nanoTime();
  private volatile boolean closed;
  private volatile int baud;

  SimLine(SimTable table, long seed, int port) throws IOException {
    super("line");
    this.table = table;
    this.seed = seed;
    this.server = new ServerSocket(port, 4, InetAddress.getLoopbackAddress());
  }

  @Override
  public int port() {
    return server.getLocalPort();
  }

  @Override
  void start() {
    Thread.ofPlatform().daemon().name("sim line").start(this::accept);
    Thread.ofPlatform().daemon().name("sim controller").start(this::live);
  }

  /// The rate that the cable's end is set to, 0 where it is that of the board.
  int baud() {
    return baud;
  }

  void baud(int rate) {
    baud = rate;
  }

  /// The cable is pulled.
  void pull() {
    clients.forEach(SimLine::quietly);
  }

  private void accept() {
    while (!closed) {
      try {
        Socket s = server.accept();
        s.setTcpNoDelay(true);
        clients.add(s);
        Thread.ofVirtual().start(() -> listen(s));
      } catch (IOException e) {
        if (closed) {
          return;
        }
      }
    }
  }

  private void listen(Socket s) {
    byte[] buffer = new byte[1 << 14];
    try (s) {
      InputStream in = s.getInputStream();
      int n;
      while ((n = in.read(buffer)) >= 0) {
        synchronized (this) {
          Optional<ControllerOnBoard> is = table.controller();
          if (is.isPresent()) {
            SimController c = tick(is.get());
            if (is.get().hears()) {
              c.hears(through(java.util.Arrays.copyOf(buffer, n), 1 / ratio(c, is.get())), now());
            }
            send(c, is.get());
          }
        }
      }
    } catch (IOException e) {
      // the cable was pulled
    } finally {
      clients.remove(s);
    }
  }

  private void live() {
    while (!closed) {
      try {
        Thread.sleep(TICK_MILLIS);
        // while nobody listens it does not matter what it says
        if (!clients.isEmpty()) {
          synchronized (this) {
            table.controller().ifPresent(is -> send(tick(is), is));
          }
        }
      } catch (InterruptedException e) {
        return;
      } catch (RuntimeException e) {
        // the board did not settle: the controller stands still until something is turned
      }
    }
  }

  private SimController tick(ControllerOnBoard is) {
    SimBoard b = table.board().orElseThrow();
    SimController c =
        controllers.computeIfAbsent(
            b.serial(), _ -> new SimController(b, table::memoryTakes, table::outputs, seed));
    c.at(now(), is, table.firmwareFaults());
    return c;
  }

  private double now() {
    return (System.nanoTime() - began) * 1e-9;
  }

  /// The board's rate over the cable's.
  private double ratio(SimController c, ControllerOnBoard is) {
    int usual =
        table
            .board()
            .flatMap(b -> b.talk().plan().port())
            .map(SerialPort::baud)
            .filter(x -> x > 0)
            .orElse(SerialPort.USUAL_BAUD);
    double own = c.rate(usual) * is.clock();
    double ratio = baud > 0 ? own * usual / baud : own;
    return Math.clamp(ratio, LEAST_RATIO, 1 / LEAST_RATIO);
  }

  private static byte[] through(byte[] bytes, double ratio) {
    return Math.abs(ratio - 1) < 1e-9 ? bytes : Framing.of(bytes, ratio).bytes();
  }

  private void send(SimController c, ControllerOnBoard is) {
    byte[] all = c.says();
    if (all.length == 0 || !is.heard()) {
      return;
    }
    byte[] arrives = through(all, ratio(c, is));
    for (Socket s : clients) {
      try {
        s.getOutputStream().write(arrives);
        s.getOutputStream().flush();
      } catch (IOException e) {
        quietly(s);
      }
    }
  }

  private static void quietly(Socket s) {
    try {
      s.close();
    } catch (IOException e) {
      // there is nothing left to be done with it
    }
  }

  @Override
  public void close() {
    closed = true;
    pull();
    try {
      server.close();
    } catch (IOException e) {
      // it is gone already
    }
  }
}
