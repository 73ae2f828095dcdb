package ell.bench.sim;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/// How an instrument that misbehaves sends its answers.
final class Misbehaviour {
  private static final int NOW_AND_THEN = 5;
  private static final int SLOW_MILLIS = 700;
  private static final int DRIP_MILLIS = 1000;
  private static final String EXTRA = "+1.165000E+01\n";

  /// An endless line ends somewhere all the same: nobody reads so far.
  private static final int ENDLESS = 1 << 22;

  private volatile Mischief mischief = Mischief.NONE;
  private volatile int answered;

  void is(Mischief m) {
    mischief = m;
  }

  Mischief is() {
    return mischief;
  }

  /// Sends an answer in its way.
  void answer(OutputStream out, String answers) throws IOException, InterruptedException {
    Mischief now = mischief;
    boolean then = ++answered % NOW_AND_THEN == 0;
    switch (now) {
      case HANG -> {
        return;
      }
      case SLOW -> Thread.sleep(SLOW_MILLIS);
      case DRIP -> {
        for (byte b : (answers + "\n").getBytes(StandardCharsets.US_ASCII)) {
          Thread.sleep(DRIP_MILLIS);
          out.write(b);
          out.flush();
        }
        return;
      }
      case ENDLESS -> {
        byte[] some = "7".repeat(1 << 10).getBytes(StandardCharsets.US_ASCII);
        for (int sent = 0; sent < ENDLESS && mischief == now; sent += some.length) {
          out.write(some);
        }
        return;
      }
      default -> {} // as it should, or nearly
    }
    String said = now == Mischief.GARBAGE ? "\u0007#?!" : answers;
    String before = now == Mischief.LINE_BEFORE && then ? EXTRA : "";
    String behind = now == Mischief.LINE_BEHIND && then ? EXTRA : "";
    // blocks have bytes of any value
    out.write((before + said + "\n" + behind).getBytes(StandardCharsets.ISO_8859_1));
    out.flush();
  }
}
