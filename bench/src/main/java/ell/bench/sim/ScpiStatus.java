package ell.bench.sim;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.IntSupplier;

/// The status that an instrument keeps for one client: its error queue, its event registers and
/// what of them it wants to hear. Source: IEEE 488.2, 11 (status byte, standard event register,
/// enables); SCPI-99 volume 1, 9 and volume 2, 21.8 (operation and questionable registers, error
/// queue); from memory.
final class ScpiStatus {
  private static final int QUEUE = 20;
  private static final int MOST = 0x7fff;

  /// An error that the instrument reports in its queue.
  static final class Refused extends RuntimeException {
    private final int code;

    Refused(int code, String words) {
      super(code + ",\"" + words + "\"", null, false, false);
      this.code = code;
    }

    /// Whether the command could not be understood, so that nothing behind it is either.
    boolean command() {
      return code <= -100 && code > -200;
    }

    /// The bit of the standard event register: command, execution, device or query error.
    private int event() {
      return code <= -400 && code > -500
          ? 4
          : code <= -200 && code > -300 ? 16 : command() ? 32 : 8;
    }
  }

  /// A register pair of SCPI: a condition that others know, and what it did since it was read.
  static final class Register {
    private final IntSupplier condition;
    private int before;
    private int event;
    private int enable;

    Register(IntSupplier condition) {
      this.condition = condition;
      this.before = condition.getAsInt();
    }

    int condition() {
      return condition.getAsInt() & MOST;
    }

    private void look() {
      int now = condition();
      event |= now & ~before;
      before = now;
    }

    int takeEvent() {
      look();
      int is = event;
      event = 0;
      return is;
    }

    int enable() {
      return enable;
    }

    void enable(int mask) {
      enable = mask & MOST;
    }

    private boolean summary() {
      look();
      return (event & enable) != 0;
    }
  }

  private final Deque<String> errors = new ArrayDeque<>();
  final Register operation;
  final Register questionable;
  private int event;
  private int eventEnable;
  private int serviceEnable;

  ScpiStatus(IntSupplier operation, IntSupplier questionable) {
    this.operation = new Register(operation);
    this.questionable = new Register(questionable);
  }

  void refuse(Refused r) {
    event |= r.event();
    if (errors.size() >= QUEUE) {
      errors.pollLast();
      errors.add("-350,\"Queue overflow\"");
      event |= 8;
    } else {
      errors.add(r.getMessage());
    }
  }

  /// Sees what the conditions do; after every command, for some are over before they are asked for.
  void look() {
    operation.look();
    questionable.look();
  }

  void completed() {
    event |= 1;
  }

  /// What `*CLS` clears: events and errors, not what is wanted of them.
  void clear() {
    errors.clear();
    event = 0;
    operation.takeEvent();
    questionable.takeEvent();
  }

  /// What `STATus:PRESet` sets.
  void preset() {
    operation.enable(0);
    questionable.enable(0);
  }

  String nextError() {
    return errors.isEmpty() ? "0,\"No error\"" : errors.poll();
  }

  String allErrors() {
    List<String> all = new ArrayList<>(errors);
    errors.clear();
    return all.isEmpty() ? "0,\"No error\"" : String.join(",", all);
  }

  int errorCount() {
    return errors.size();
  }

  int takeEvent() {
    int is = event;
    event = 0;
    return is;
  }

  int eventEnable() {
    return eventEnable;
  }

  void eventEnable(int mask) {
    eventEnable = mask;
  }

  int serviceEnable() {
    return serviceEnable;
  }

  /// Bit 6 asks for nothing.
  void serviceEnable(int mask) {
    serviceEnable = mask & ~64;
  }

  /// The status byte: 4 error queue, 8 questionable, 16 an answer waits, 32 standard event, 64
  /// whether one of them is wanted, 128 operation.
  int statusByte(boolean answerWaits) {
    int b = 0;
    b |= errors.isEmpty() ? 0 : 4;
    b |= questionable.summary() ? 8 : 0;
    b |= answerWaits ? 16 : 0;
    b |= (event & eventEnable) != 0 ? 32 : 0;
    b |= operation.summary() ? 128 : 0;
    return b | ((b & serviceEnable) != 0 ? 64 : 0);
  }
}
