package ell.bench.sim;

import ell.bench.sim.ScpiStatus.Refused;
import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.IntSupplier;

/// A SCPI instrument on a loopback port: lines in, lines out. Every client has a status and an
/// error queue of its own; what the instrument measures and sets is registered by whoever makes it.
/// A line that has not ended when its client hangs up is thrown away.
final class ScpiServer implements AutoCloseable {
  private static final int LONGEST_LINE = 1 << 16;

  /// Bit of the operation register: another client has hung up. An instrument's own choice.
  private static final int CLIENT_GONE = 1 << 9;

  private final ServerSocket listener;
  private final List<Known> commands = new ArrayList<>();
  private final Set<Socket> clients = ConcurrentHashMap.newKeySet();
  private final AtomicInteger open = new AtomicInteger();
  private final AtomicInteger gone = new AtomicInteger();
  private final Misbehaviour misbehaviour = new Misbehaviour();
  private final AtomicReference<Waiting> waiting = new AtomicReference<>();
  private final String identity;
  private int outputs = 1;
  private volatile int selected = 1;
  private Runnable reset = () -> {};
  private Runnable lastClientGone = () -> {};
  private Runnable heard = () -> {};
  private IntSupplier operation = () -> 0;
  private IntSupplier questionable = () -> 0;

  /// What a command does with its parameters.
  interface Act {
    /// Does it.
    ///
    /// @return the answer of a query, null of a command
    String on(List<String> data);
  }

  /// What any command does, with the channels of its list.
  private interface ListedAct {
    String on(List<Integer> channels, List<String> data);
  }

  private record Known(ScpiHeader header, int least, int most, ListedAct act) {}

  ScpiServer(String identity, int port) throws IOException {
    this.identity = identity;
    this.listener = new ServerSocket(port, 16, InetAddress.getLoopbackAddress());
  }

  /// Registers a command or a query.
  ///
  /// @param least parameters that it needs
  /// @param most parameters that it takes, a channel list not counted
  ScpiServer on(String header, int least, int most, Act act) {
    commands.add(
        new Known(
            new ScpiHeader(header),
            least,
            most,
            (channels, data) -> {
              if (channels.stream().anyMatch(c -> c != 1)) {
                throw new Refused(-241, "Hardware missing");
              }
              return act.on(data);
            }));
    return this;
  }

  /// What a command does on one of several outputs.
  @FunctionalInterface
  interface OutputAct {
    /// @param output counted from 1
    /// @return the answer, null for a command
    String on(int output, List<String> data);
  }

  /// Teaches it a command that goes to the outputs of a channel list, or without one to the output
  /// that is selected: `INSTrument:NSELect`.
  ScpiServer onOutputs(String header, int least, int most, OutputAct act) {
    commands.add(
        new Known(
            new ScpiHeader(header),
            least,
            most,
            (channels, data) -> {
              List<String> answers = new ArrayList<>();
              for (int output : channels.isEmpty() ? List.of(selected) : channels) {
                String answer = act.on(output, data);
                if (answer != null) {
                  answers.add(answer);
                }
              }
              return answers.isEmpty() ? null : String.join(",", answers);
            }));
    return this;
  }

  /// Gives it several outputs, of which one is selected.
  ScpiServer outputs(int count) {
    outputs = count;
    return on("INSTrument:NSELect?", 0, 0, _ -> String.valueOf(selected))
        .on("INSTrument:NSELect", 1, 1, a -> select(ScpiData.number(a.getFirst(), "")))
        .on("INSTrument[:SELect]?", 0, 0, _ -> "OUT" + selected)
        .on("INSTrument[:SELect]", 1, 1, a -> select(named(ScpiData.string(a.getFirst()))))
        .on("INSTrument:CATalog?", 0, 0, _ -> catalog());
  }

  private static double named(String output) {
    return output.toUpperCase(Locale.ROOT).matches("OUT\\d{1,3}")
        ? Integer.parseInt(output.substring(3))
        : 0;
  }

  private String select(double output) {
    if (output != Math.rint(output) || output < 1 || output > outputs) {
      throw new Refused(-224, "Illegal parameter value");
    }
    selected = (int) output;
    return null;
  }

  private String catalog() {
    List<String> all = new ArrayList<>();
    for (int i = 1; i <= outputs; i++) {
      all.add("\"OUT" + i + '"');
    }
    return String.join(",", all);
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

  /// The conditions of the operation and the questionable register.
  ScpiServer conditions(IntSupplier operating, IntSupplier questioned) {
    operation = operating;
    questionable = questioned;
    return this;
  }

  /// What begins with the next line of some word.
  private record Waiting(String word, Mischief mischief, Runnable begun) {}

  /// Lets it misbehave from the next line on whose first word is that one.
  ///
  /// @param begun is run when it does
  void mischiefFrom(String word, Mischief m, Runnable begun) {
    waiting.set(new Waiting(word, m, begun));
  }

  /// How it misbehaves now.
  Mischief mischief() {
    return misbehaviour.is();
  }

  private void waited(String line) {
    Waiting w = waiting.get();
    if (w != null && line.split("\\s", 2)[0].equals(w.word()) && waiting.compareAndSet(w, null)) {
      w.begun().run();
      mischief(w.mischief());
    }
  }

  void mischief(Mischief m) {
    waiting.set(null);
    misbehaviour.is(m);
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
    int before = gone.get();
    ScpiStatus status =
        new ScpiStatus(
            () -> operation.getAsInt() | (gone.get() > before ? CLIENT_GONE : 0), questionable);
    try (socket;
        InputStream in = new BufferedInputStream(socket.getInputStream())) {
      socket.setTcpNoDelay(true);
      OutputStream out = socket.getOutputStream();
      Optional<String> line;
      while ((line = line(in, status)).isPresent() && misbehaviour.is() != Mischief.VANISH) {
        heard.run();
        waited(line.get());
        String answers = answers(line.get(), status);
        if (!answers.isEmpty()) {
          misbehaviour.answer(out, answers);
        }
      }
    } catch (IOException e) {
      // the client is gone; what follows from that is done below
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    } finally {
      clients.remove(socket);
      gone.incrementAndGet();
      if (open.decrementAndGet() == 0) {
        lastClientGone.run();
      }
    }
  }

  /// The next whole line, empty when there is none any more: what has not ended is no command.
  private static Optional<String> line(InputStream in, ScpiStatus status) throws IOException {
    ByteArrayOutputStream line = new ByteArrayOutputStream();
    boolean overrun = false;
    for (int c = in.read(); c >= 0; c = in.read()) {
      if (c == '\n') {
        if (!overrun) {
          return Optional.of(line.toString(StandardCharsets.ISO_8859_1).strip());
        }
        status.refuse(new Refused(-363, "Input buffer overrun"));
        return Optional.of("");
      }
      overrun |= line.size() >= LONGEST_LINE;
      if (!overrun) {
        line.write(c);
      }
    }
    return Optional.empty();
  }

  /// The answers of a line, joined as one.
  private synchronized String answers(String line, ScpiStatus status) {
    StringBuilder answers = new StringBuilder();
    try {
      String path = "";
      for (String unit : ScpiMessage.units(line)) {
        ScpiMessage m = ScpiMessage.of(unit, path);
        path = m.common() ? path : m.path();
        try {
          String answer = m.common() ? common(m, status, answers) : answer(m, status);
          status.look();
          if (answer != null) {
            answers.append(answers.isEmpty() ? "" : ";").append(answer);
          }
        } catch (Refused r) {
          if (r.command()) {
            throw r;
          }
          status.refuse(r); // what follows was understood, and is done
        }
      }
    } catch (Refused r) {
      status.refuse(r);
    }
    return answers.toString();
  }

  private String common(ScpiMessage m, ScpiStatus status, StringBuilder answers) {
    String name = m.header().toUpperCase(java.util.Locale.ROOT);
    boolean takes = name.equals("*ESE") || name.equals("*SRE");
    counted(m.data(), takes ? 1 : 0, takes ? 1 : 0);
    switch (name) {
      case "*IDN?" -> {
        return identity;
      }
      case "*RST" -> {
        selected = 1;
        reset.run();
      }
      case "*CLS" -> status.clear();
      case "*OPC" -> status.completed();
      case "*OPC?" -> {
        return "1";
      }
      case "*WAI" -> {} // nothing here goes on in the background
      case "*TST?" -> {
        return "0";
      }
      case "*ESR?" -> {
        return String.valueOf(status.takeEvent());
      }
      case "*ESE" -> status.eventEnable(ScpiData.register(m.data().getFirst(), 255));
      case "*ESE?" -> {
        return String.valueOf(status.eventEnable());
      }
      case "*SRE" -> status.serviceEnable(ScpiData.register(m.data().getFirst(), 255));
      case "*SRE?" -> {
        return String.valueOf(status.serviceEnable());
      }
      case "*STB?" -> {
        return String.valueOf(status.statusByte(!answers.isEmpty()));
      }
      default -> throw new Refused(-113, "Undefined header");
    }
    return null;
  }

  private String answer(ScpiMessage m, ScpiStatus status) {
    Optional<String> own = SystemCommands.answer(m, status, clients.size());
    if (own.isPresent()) {
      return own.get().isEmpty() ? null : own.get();
    }
    for (Known k : commands) {
      if (k.header().is(m.header())) {
        ScpiData.Listed listed = ScpiData.listed(m.data(), outputs);
        counted(listed.data(), k.least(), k.most());
        return k.act().on(listed.channels(), listed.data());
      }
    }
    throw new Refused(-113, "Undefined header");
  }

  static void counted(List<String> data, int least, int most) {
    if (data.size() > most) {
      throw new Refused(-108, "Parameter not allowed");
    }
    if (data.size() < least) {
      throw new Refused(-109, "Missing parameter");
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
