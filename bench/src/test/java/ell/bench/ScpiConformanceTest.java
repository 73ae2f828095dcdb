package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.sim.SimBench;
import ell.core.power.Fault;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The simulated instruments, held against what the standards say of every instrument. Sources, all
/// from memory: IEEE 488.2 (common commands, chapter 10; status byte and standard event register,
/// chapter 11; program messages, chapter 7), SCPI-99 volume 1 (forms of headers, 6.2; parameters,
/// 7; status registers, 9) and volume 2 (error codes, 21.8; MEASure, CONFigure, READ, FETCh, 3).
public class ScpiConformanceTest {
  private SimBench bench;

  /// A client that is nobody's: bytes out, lines in.
  private final class Client implements AutoCloseable {
    private final Socket socket;
    private final BufferedReader in;

    Client(String kind) throws IOException {
      socket = new Socket(InetAddress.getLoopbackAddress(), bench.instrument(kind).port());
      socket.setSoTimeout(5000);
      in =
          new BufferedReader(
              new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII));
    }

    void raw(String bytes) throws IOException {
      socket.getOutputStream().write(bytes.getBytes(StandardCharsets.ISO_8859_1));
      socket.getOutputStream().flush();
    }

    void say(String line) throws IOException {
      raw(line + "\n");
    }

    String ask(String line) throws IOException {
      say(line);
      return in.readLine();
    }

    double number(String line) throws IOException {
      return Double.parseDouble(ask(line));
    }

    /// The code of the next error after a line that has no answer.
    int code(String line) throws IOException {
      String said = ask(line + "\nSYST:ERR?");
      return Integer.parseInt(said.substring(0, said.indexOf(',')));
    }

    @Override
    public void close() throws IOException {
      socket.close();
    }
  }

  @BeforeMethod
  public void start() throws IOException {
    bench = SimBench.start(List.of(BenchTest.board("01")), 7);
    bench.layDown("01");
  }

  @AfterMethod(alwaysRun = true)
  public void stop() {
    bench.close();
  }

  @DataProvider
  Object[][] kinds() {
    return new Object[][] {{"supply"}, {"meter"}, {"hands"}, {"plate"}};
  }

  /// The thirteen common commands that every instrument has (IEEE 488.2, 4.9 and 10).
  @Test(dataProvider = "kinds")
  public void commonCommands(String kind) throws IOException {
    try (Client c = new Client(kind)) {
      assertEquals(c.ask("*IDN?").split(",").length, 4, "maker, model, serial, firmware");
      c.say("*CLS");
      assertEquals(c.ask("*ESR?"), "0");
      assertEquals(c.ask("*OPC?"), "1");
      c.say("*OPC");
      assertEquals(c.ask("*ESR?"), "1", "operation complete");
      assertEquals(c.ask("*ESR?"), "0", "reading clears");
      c.say("*ESE 60");
      assertEquals(c.ask("*ESE?"), "60");
      c.say("*SRE 255");
      assertEquals(c.ask("*SRE?"), "191", "bit 6 asks for nothing");
      assertEquals(c.ask("*TST?"), "0");
      c.say("*WAI");
      c.say("*RST");
      assertEquals(c.ask("*ESE?"), "60", "a reset leaves what is wanted to be heard");
      assertEquals(c.ask("SYST:ERR?"), "0,\"No error\"");
      assertEquals(c.ask("SYST:VERS?"), "1999.0");
      assertEquals(c.ask("*idn?;*opc?").split(";").length, 2);
      assertEquals(c.code("*ESE 256"), -222);
      assertEquals(c.code("*ESE"), -109);
      assertEquals(c.code("*CLS 1"), -108);
      assertEquals(c.code("*FOO"), -113);
    }
  }

  /// Bits of the standard event register by class of error: 32 command, 16 execution, 8 device, 4
  /// query (IEEE 488.2, 11.5.1).
  @Test
  public void eventsAreByClassAndClear() throws IOException {
    try (Client c = new Client("supply")) {
      c.say("*CLS");
      c.say("NONSENSE");
      assertEquals(c.ask("*ESR?"), "32");
      c.say("VOLT 400");
      assertEquals(c.ask("*ESR?"), "16");
      c.say("NONSENSE;VOLT 400");
      assertEquals(c.ask("*ESR?"), "32", "behind what was not understood nothing is done");
      c.say("VOLT 400;NONSENSE");
      assertEquals(c.ask("*ESR?"), "48");
      assertEquals(c.ask("*ESR?"), "0");
      for (int i = 0; i < 30; i++) {
        c.say("NONSENSE");
      }
      assertEquals(c.ask("*ESR?"), "40", "the queue ran over: the device's own error");
    }
  }

  /// The status byte: 4 error queue, 16 answer waits, 32 event, 64 wanted (IEEE 488.2, 11.2).
  @Test
  public void theStatusByteSums() throws IOException {
    try (Client c = new Client("meter")) {
      c.say("*CLS;*ESE 32;*SRE 32");
      assertEquals(c.ask("*STB?"), "0");
      c.say("NONSENSE");
      assertEquals(c.ask("*STB?"), String.valueOf(4 + 32 + 64));
      assertEquals(c.ask("*STB?"), "100", "reading it changes nothing");
      assertEquals(c.ask("*ESR?"), "32");
      assertEquals(c.ask("*STB?"), "4", "the event is gone, the queue is not");
      assertTrue(c.ask("SYST:ERR?").startsWith("-113"));
      assertEquals(c.ask("*STB?"), "0");
      assertEquals(c.ask("*IDN?;*STB?").split(";")[1], "16", "an answer waits");
      c.say("NONSENSE");
      c.say("*CLS");
      assertEquals(c.ask("*STB?"), "0");
    }
  }

  @Test
  public void theErrorQueueIsInOrderAndBounded() throws IOException {
    try (Client c = new Client("supply")) {
      c.say("NONSENSE");
      c.say("VOLT 400");
      c.say("VOLT");
      assertEquals(c.ask("SYST:ERR:COUN?"), "3");
      assertTrue(c.ask("SYST:ERR?").startsWith("-113,"));
      assertTrue(c.ask("SYSTem:ERRor:NEXT?").startsWith("-222,"));
      assertTrue(c.ask("syst:err:next?").startsWith("-109,"));
      assertEquals(c.ask("SYST:ERR?"), "0,\"No error\"");
      for (int i = 0; i < 100; i++) {
        c.say("NONSENSE");
      }
      assertEquals(c.ask("SYST:ERR:COUN?"), "20");
      String all = c.ask("SYST:ERR:ALL?");
      assertTrue(all.endsWith("-350,\"Queue overflow\""), all);
      assertEquals(c.ask("SYST:ERR:COUN?"), "0");
    }
  }

  @DataProvider
  Object[][] refused() {
    return new Object[][] {
      {"supply", "VOLT", -109},
      {"supply", "VOLT 1,2", -108},
      {"supply", "VOLT abc", -104},
      {"supply", "VOLT 1.2.3", -121},
      {"supply", "VOLT 5A", -131},
      {"supply", "VOLT 5OHM", -131},
      {"supply", "OUTP ON,OFF", -108},
      {"supply", "OUTP", -109},
      {"supply", "OUTP maybe", -104},
      {"supply", "VOLT 31", -222},
      {"supply", "VOLT -1", -222},
      {"supply", "VOLT 1e99999", -123},
      {"supply", "VOLTA 5", -113},
      {"supply", "VOL 5", -113},
      {"supply", "VOLTAG 5", -113},
      {"supply", "OUTP2 ON", -114},
      {"supply", "VOLT 5,(@5)", -241},
      {"supply", "VOLT 5,(@x)", -171},
      {"supply", "VOLT 5,,6", -102},
      {"supply", "VO LT 5", -113},
      {"supply", "1VOLT 5", -110},
      {"supply", "*CLS?", -113},
      {"supply", "*RST 1", -108},
      {"supply", "VOLTAGELEVELTOOLONG 5", -112},
      {"supply", "VÖLT 5", -101},
      {"supply", "STAT:OPER:ENAB 1V", -138},
      {"meter", "CONF:VOLT:DC 2000", -222},
      {"meter", "FUNC \"TEMP\"", -224},
      {"meter", "FUNC \"VOLT", -151},
      {"hands", "TIP:PLUS", -109},
      {"hands", "TIP:PLUS \"NOPE\"", -224},
      {"plate", "TEMP 2K", -131},
      {"plate", "TEMP 900", -222},
    };
  }

  /// Codes of SCPI-99 volume 2, 21.8.9 and 21.8.10.
  @Test(dataProvider = "refused")
  public void whatIsWrongHasItsCode(String kind, String line, int code) throws IOException {
    try (Client c = new Client(kind)) {
      assertEquals(c.code(line), code, line);
      assertEquals(c.ask("SYST:ERR:COUN?"), "0", "one cause, one error");
    }
  }

  @DataProvider
  Object[][] volts() {
    return new Object[][] {
      {"VOLT 0.5", 0.5},
      {"VOLT 500mV", 0.5},
      {"VOLT 500 MV", 0.5},
      {"volt 5E-1V", 0.5},
      {"VOLTAGE .5", 0.5},
      {"SOUR:VOLT:LEV:IMM:AMPL 0.5 V", 0.5},
      {"SOURce1:VOLTage 0.5", 0.5},
      {":VOLT:AMPL 0.5", 0.5},
      {"VOLT MAX", 30},
      {"VOLT MINimum", 0},
      {"VOLT DEF", 0},
      {"VOLT 0.005KV", 5},
      {"VOLT 500000UV", 0.5},
      {"VOLT +5", 5},
      {"VOLT 5,(@1)", 5},
      {"VOLT #H5", 5},
      {"VOLT 5 ", 5},
      {"  VOLT\t5", 5},
      {"VOLT 5;", 5},
      {"VOLT 5\r", 5},
    };
  }

  @Test(dataProvider = "volts")
  public void numbersAndHeadersInAllTheirForms(String line, double volts) throws IOException {
    try (Client c = new Client("supply")) {
      c.say("VOLT 1");
      assertEquals(c.code(line), 0, line);
      assertEquals(c.number("VOLT?"), volts, 1e-9, line);
    }
  }

  @Test
  public void endsOfARangeCanBeAsked() throws IOException {
    try (Client c = new Client("supply")) {
      c.say("VOLT 4.5");
      assertEquals(c.number("VOLT? MAX"), 30.0);
      assertEquals(c.number("VOLT? MIN"), 0.0);
      assertEquals(c.number("CURR? DEFault"), 0.1);
      assertEquals(c.number("VOLT?"), 4.5, "asking sets nothing");
      assertEquals(c.code("VOLT? LOTS"), -141);
    }
  }

  /// A header after a semicolon begins where the one before it stood (SCPI-99 volume 1, 6.2.4).
  @Test
  public void headersGoOnWhereTheyStood() throws IOException {
    try (Client c = new Client("supply")) {
      assertEquals(c.code("SOUR:VOLT 3;CURR 0.2"), 0);
      assertEquals(c.ask("SOUR:VOLT?;CURR?"), "3.000000E+00;2.000000E-01");
      assertEquals(c.code("SOUR:VOLT 3;SOUR:CURR 0.2"), -113, "SOUR:SOUR:CURR is nothing");
      assertEquals(c.code("SOUR:VOLT 3;:SOUR:CURR 0.2"), 0, "a colon begins at the root");
      assertEquals(c.code("SOUR:VOLT:PROT 20;PROT:CLE"), 0);
      assertEquals(c.ask("SOUR:VOLT?;*OPC?;CURR?"), "3.000000E+00;1;2.000000E-01");
    }
  }

  /// A boolean is a number that is rounded: all but 0 is on (SCPI-99 volume 1, 7.3).
  @Test
  public void switches() throws IOException {
    try (Client c = new Client("supply")) {
      for (String on : List.of("ON", "1", "2", "on", "0.7", "-3")) {
        assertEquals(c.code("OUTP " + on), 0, on);
        assertEquals(c.ask("OUTP?"), "1", on);
        assertEquals(c.code("OUTP 0"), 0);
        assertEquals(c.ask("OUTP?"), "0");
      }
      c.say("OUTP 0.3");
      assertEquals(c.ask("OUTP?"), "0");
    }
  }

  @Test
  public void clientsHaveTheirOwnErrors() throws Exception {
    try (Client a = new Client("supply")) {
      try (Client b = new Client("supply")) {
        b.say("NONSENSE");
        assertTrue(b.ask("*STB?;:SYST:CLI?").equals("4;2"));
        assertEquals(a.ask("SYST:ERR?"), "0,\"No error\"", "it was not this one's");
        assertEquals(a.ask("*ESR?"), "0");
        assertEquals(a.ask("VOLT 5;:OUTP ON;:STAT:OPER:ENAB 512;*OPC?"), "1");
        assertEquals(b.number("VOLT?"), 5.0, "what is set is set for all");
      }
      long until = System.nanoTime() + 2_000_000_000L;
      while ((Integer.parseInt(a.ask("STAT:OPER:COND?")) & 512) == 0 && System.nanoTime() < until) {
        Thread.sleep(5);
      }
      assertEquals(Integer.parseInt(a.ask("*STB?")) & 128, 128, "that another hung up is told");
      assertEquals(a.ask("OUTP?"), "1", "one is still there");
      assertEquals(a.ask("SYST:CLI?"), "1");
    }
    long until = System.nanoTime() + 2_000_000_000L;
    while (bench.outputOn() && System.nanoTime() < until) {
      Thread.sleep(5);
    }
    assertFalse(bench.outputOn(), "the last one is gone");
  }

  /// A line that its client did not finish is no command, however much of one it is.
  @Test
  public void halfALineIsNotDone() throws Exception {
    try (Client watching = new Client("supply")) {
      watching.say("VOLT 1");
      try (Client c = new Client("supply")) {
        c.raw("VOLT 9");
      }
      Thread.sleep(60);
      assertEquals(watching.number("VOLT?"), 1.0);
      try (Client c = new Client("supply")) {
        c.raw("VO");
        Thread.sleep(20);
        c.raw("LT 2");
        Thread.sleep(20);
        c.raw("\n");
        assertEquals(c.number("VOLT?"), 2.0, "pieces of a line are a line");
        assertEquals(c.code("x".repeat(100_000)), -363, "and one without end is none");
      }
    }
  }

  /// Lines as long as they may be, made to be slow or deep to take apart.
  @Test(timeOut = 20_000)
  public void longLinesAreRefusedAtOnce() throws IOException {
    try (Client c = new Client("supply")) {
      assertEquals(c.code("A:".repeat(30_000) + "A"), -112);
      assertEquals(c.code("VOLT " + "1".repeat(60_000) + "x"), -124);
      assertEquals(c.code("VOLT 5,(@1" + ",1".repeat(30_000) + ")"), -124);
      c.say(";".repeat(60_000));
      assertEquals(c.ask("*OPC?"), "1");
    }
  }

  /// 1 kΩ and 2.2 kΩ on 3.3 V draw 1.03 mA: a limit of 0.5 mA is held, and shown.
  @Test
  public void constantVoltsAndConstantCurrent() throws IOException {
    try (Client c = new Client("supply")) {
      c.say("VOLT 5;CURR 0.1;:OUTP ON");
      assertEquals(c.ask("STAT:OPER:COND?"), "256", "it holds its volts");
      c.say("CURR 0.5MA");
      assertEquals(c.number("CURR?"), 0.5e-3, 1e-9, "MA behind amperes is milli");
      assertEquals(c.ask("STAT:OPER:COND?"), "1024", "it holds its current");
      assertTrue(c.number("MEAS:VOLT?") < 4.9);
      assertEquals(c.ask("STAT:OPER?"), "1280", "both happened since it was read");
      assertEquals(c.ask("STAT:OPER?"), "0");
    }
  }

  @Test
  public void protectionsTripAndStay() throws IOException {
    try (Client c = new Client("supply")) {
      c.say("VOLT 5;CURR 0.1;VOLT:PROT 6");
      c.say("OUTP ON");
      assertEquals(c.ask("VOLT:PROT:TRIP?"), "0");
      c.say("VOLT 7");
      assertEquals(c.ask("OUTP?"), "0");
      assertEquals(c.ask("VOLT:PROT:TRIP?"), "1");
      assertEquals(c.ask("STAT:QUES:COND?"), "1");
      c.say("VOLT 5");
      assertEquals(c.code("OUTP ON"), -221, "it stays off until it is cleared");
      c.say("VOLT:PROT:CLE;:OUTP ON");
      assertEquals(c.ask("OUTP?"), "1");
      c.say("CURR:PROT:STAT ON;:CURR 0.5MA");
      assertEquals(c.ask("CURR:PROT:TRIP?"), "1");
      assertEquals(c.ask("OUTP?;:STAT:QUES?"), "0;3");
      c.say("*RST;OUTP ON");
      assertEquals(c.ask("OUTP?"), "1", "a reset clears");
    }
  }

  /// A regulator's lead that touches at some tries: 300 tries at 0.3 find it open 90 times, 8 of
  /// standard deviation (binomial).
  @Test
  public void someFaultsAreThereAtSomeTriesOnly() throws IOException {
    bench.close();
    bench =
        SimBench.start(
            List.of(BenchTest.board("01", new Fault.Sometimes(0.3, new Fault.Open("U1", "2")))), 3);
    bench.layDown("01");
    try (Client s = new Client("supply");
        Client h = new Client("hands");
        Client m = new Client("meter")) {
      h.say("TIP:PLUS \"MID\";MIN \"GND\"");
      assertEquals(h.ask("SYST:ERR?"), "0,\"No error\"");
      s.say("VOLT 5;CURR 0.1");
      int open = 0;
      for (int i = 0; i < 300; i++) {
        assertEquals(s.ask("OUTP ON;*OPC?"), "1");
        open += m.number("MEAS:VOLT?") < 1 ? 1 : 0;
        assertEquals(s.ask("OUTP OFF;*OPC?"), "1");
      }
      assertEquals(open, 90, 32);
    }
  }

  /// Configured, triggered, read; and all at once (SCPI-99 volume 2, 3).
  @Test
  public void theMeterIsToldTriggeredAndRead() throws IOException {
    try (Client s = new Client("supply");
        Client h = new Client("hands");
        Client m = new Client("meter")) {
      h.say("TIP:PLUS \"3V3\";MIN \"GND\"");
      assertEquals(h.ask("SYST:ERR?"), "0,\"No error\"");
      assertEquals(m.code("FETC?"), -230, "nothing was measured yet");
      assertEquals(m.number("MEAS:RES?"), 3200, 20);
      assertEquals(m.number("MEAS:CONT?"), 9.9e37, "far above what continuity shows");
      // 1 mA through 2k2: above what the diode range shows; back through the regulator a junction
      assertEquals(m.number("MEAS:FRES?"), 3200, 20);
      assertEquals(h.ask("TIP:PLUS \"3V3\";MIN \"5V0\";*OPC?"), "1");
      assertEquals(m.number("MEAS:DIOD?"), 0.55, 0.1);
      assertEquals(h.ask("TIP:PLUS \"5V0\";MIN \"3V3\";*OPC?"), "1");
      assertEquals(m.number("MEAS:DIOD?"), 0.3, 0.02, "its dropout, the right way round");
      assertEquals(h.ask("TIP:PLUS \"3V3\";MIN \"GND\";*OPC?"), "1");
      s.say("VOLT 5;CURR 0.1;:OUTP ON");
      assertEquals(s.ask("*OPC?"), "1");
      assertEquals(m.number("MEAS:VOLT?"), 3.3, 0.05);
      m.say("CONF:VOLT:DC 10");
      assertTrue(m.ask("CONF?").startsWith("\"VOLT 1.0"));
      assertEquals(m.code("FETC?"), -230, "another range: what was held is stale");
      m.say("INIT");
      double first = m.number("FETC?");
      assertEquals(m.number("FETC?"), first, "the same measurement");
      assertEquals(m.number("READ?"), 3.3, 0.05);
      assertEquals(m.number("MEAS:VOLT:DC? 1"), 9.9e37, "over its range");
      assertEquals(m.code("MEAS:RES?"), -221, "no ohms on a powered board");
      assertEquals(h.ask("TIP:PLUS \"5V0\";*OPC?"), "1");
      // from 5 V through the shunt to ground: everything that the limit lets through
      assertEquals(m.number("MEAS:CURR?"), 0.1, 0.01);
      assertEquals(m.ask("FUNC?"), "\"CURR\"");
      assertEquals(m.code("FUNC 'VOLTage:DC'"), 0);
      assertEquals(m.ask("FUNC?"), "\"VOLT\"");
    }
  }
}
