package ell.bench;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.bench.dialect.Dialect;
import ell.bench.instrument.Meter;
import ell.bench.instrument.Supply;
import ell.bench.link.Address;
import ell.bench.link.BenchException;
import ell.bench.link.SerialLine;
import ell.bench.link.TcpLink;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Dialect files, and clients that speak as they say to an instrument that knows nothing else.
public final class DialectTest {
  private static final String OWN =
      """
      {"kind": "supply", "name": "an old one", "lineEnd": "CR",
       "select": "CH{output}", "setVolts": "V{volts}", "setAmps": "I{amps}",
       "askVolts": "V?", "askAmps": "I?", "on": "O1", "off": "O0", "askOn": "O?",
       "volts": "MV?", "amps": "MI?"}
      """;

  @DataProvider
  Object[][] kinds() {
    return new Object[][] {{"supply"}, {"meter"}, {"plate"}};
  }

  @Test(dataProvider = "kinds")
  public void theGenericOneOfEachKindIsThere(String kind) {
    Dialect d = Dialect.generic(kind);
    assertEquals(d.kind(), kind);
    assertEquals(d.lineEnd(), "\n");
    assertEquals(d.line("identity"), "*IDN?", "IEEE 488.2, 10.14");
    assertEquals(d.line("error"), "SYST:ERR?", "SCPI-99 volume 2, 21.8");
    assertFalse(d.questions().isEmpty());
    d.questions().values().forEach(q -> assertTrue(q.contains("?"), q));
  }

  @Test
  public void whatItTakesStandsInBraces() {
    Dialect d = Dialect.read(OWN);
    assertEquals(d.line("setVolts", 3.3), "V3.30000");
    assertEquals(d.line("select", "2"), "CH2");
    assertEquals(d.lineEnd(), "\r");
    assertEquals(d.examples().get("setAmps"), "I0.100000");
    assertThrows(IllegalArgumentException.class, () -> d.line("error"));
  }

  @DataProvider
  Object[][] wrong() {
    return new Object[][] {
      {"{}", "kind is supply, meter, plate or scope"},
      {"[1]", "JSON object"},
      {"{\"kind\":\"supply\"", "not JSON"},
      {"{\"kind\":\"scale\"}", "found 'scale'"},
      {"{\"kind\":\"meter\",\"volts\":\"V?\"}", "'ohms' is missing"},
      {OWN.replace("V{volts}", "V"), "'setVolts' takes {volts} once, found 'V'"},
      {OWN.replace("V{volts}", "V{volt}"), "'setVolts' takes {volts} once"},
      {OWN.replace("\"O1\"", "\"O{on}\""), "'on' takes nothing in braces"},
      {OWN.replace("\"O1\"", "\"\""), "'on' is a line of 1 to 200"},
      {OWN.replace("\"O1\"", "\"O1\\nO0\""), "'on' is a line of"},
      {OWN.replace("\"CR\"", "\"NL\""), "lineEnd is LF, CRLF or CR, found 'NL'"},
      {OWN.replace("\"askOn\"", "\"isOn\""), "'isOn' is no line of a supply"},
      {OWN.replace("\"O?\"", "7"), "askOn"},
    };
  }

  @Test(dataProvider = "wrong")
  public void whatIsWrongIsNamed(String json, String words) {
    String said =
        expectThrows(IllegalArgumentException.class, () -> Dialect.read(json)).getMessage();
    assertTrue(said.contains(words), said);
  }

  @Test
  public void everythingThatIsWrongIsNamedAtOnce() {
    String said =
        expectThrows(
                IllegalArgumentException.class,
                () -> Dialect.read(OWN.replace("V{volts}", "V").replace("\"askOn\"", "\"isOn\"")))
            .getMessage();
    assertTrue(said.contains("setVolts") && said.contains("isOn") && said.contains("'askOn' is"));
  }

  /// A supply that ends its lines with CR, has no error queue, and knows one-letter words only.
  private static final class Old implements AutoCloseable {
    private final ServerSocket listener = new ServerSocket(0, 4, InetAddress.getLoopbackAddress());
    private final List<String> heard = new CopyOnWriteArrayList<>();
    private final String[] volts = {"0", "0", "0"};
    private final String[] amps = {"0", "0", "0"};
    private final boolean[] on = new boolean[3];
    private int at = 1;

    Old() throws IOException {
      Thread.ofVirtual().start(this::serve);
    }

    private void serve() {
      while (!listener.isClosed()) {
        try (Socket s = listener.accept();
            BufferedReader in =
                new BufferedReader(
                    new InputStreamReader(s.getInputStream(), StandardCharsets.US_ASCII))) {
          StringBuilder line = new StringBuilder();
          int c;
          while ((c = in.read()) >= 0) {
            if (c != '\r') {
              line.append((char) c);
              continue;
            }
            String answer = answer(line.toString());
            line.setLength(0);
            if (answer != null) {
              s.getOutputStream().write((answer + "\r").getBytes(StandardCharsets.US_ASCII));
            }
          }
        } catch (IOException e) {
          // the next one, or the end
        }
      }
    }

    private String answer(String line) {
      heard.add(line);
      switch (line) {
        case "O1" -> on[at] = true;
        case "O0" -> on[at] = false;
        case "O?" -> {
          return on[at] ? "ON" : "OFF";
        }
        case "V?" -> {
          return volts[at];
        }
        case "I?" -> {
          return amps[at];
        }
        case "MV?" -> {
          return on[at] ? volts[at] : "0";
        }
        case "MI?" -> {
          return "0.001";
        }
        default -> {
          switch (line.charAt(0)) {
            case 'C' -> at = Integer.parseInt(line.substring(2));
            case 'V' -> volts[at] = line.substring(1);
            case 'I' -> amps[at] = line.substring(1);
            default -> throw new IllegalStateException(line);
          }
        }
      }
      return null;
    }

    @Override
    public void close() throws IOException {
      listener.close();
    }
  }

  @Test
  public void aSupplyIsDrivenInItsOwnWords() throws Exception {
    try (Old old = new Old()) {
      Bench b =
          new Bench(
                  "bench",
                  java.util.Map.of("supply", "127.0.0.1:" + old.listener.getLocalPort()),
                  1000)
              .speaking(List.of(Dialect.read(OWN)));
      try (Supply s = b.guard(Supply.KIND)) {
        s.outputs(List.of(1, 2));
        s.makeSafe();
        s.select(2);
        s.set(3.3, 0.1);
        s.output(true);
        assertEquals(s.volts(), 3.3, 1e-6);
        assertEquals(s.amps(), 0.001, 1e-9);
        assertTrue(old.on[2] && !old.on[1]);
        assertEquals(s.off(), java.util.Optional.empty());
        assertFalse(old.on[2]);
        s.select(1);
        s.set(5, 0.1);
        s.output(true);
        s.select(2);
        s.output(true);
      }
      // the client is gone, and who watches over its link has switched both off
      for (int i = 0; i < 200 && (old.on[1] || old.on[2]); i++) {
        Thread.sleep(25);
      }
      assertFalse(old.on[1] || old.on[2], old.heard.toString());
    }
  }

  /// A supply of one output that takes every line without complaint: what is meant for its second
  /// output would go to the first.
  @Test
  public void aSupplyThatDoesNotSayWhatItSelectedIsNotDriven() throws Exception {
    try (ServerSocket listener = new ServerSocket(0, 4, InetAddress.getLoopbackAddress())) {
      List<String> heard = new CopyOnWriteArrayList<>();
      Thread.ofVirtual()
          .start(() -> {
            try (Socket s = listener.accept();
                BufferedReader in =
                    new BufferedReader(
                        new InputStreamReader(s.getInputStream(), StandardCharsets.US_ASCII))) {
              String line;
              while ((line = in.readLine()) != null) {
                heard.add(line);
                String answer =
                    switch (line) {
                      case "SYST:ERR?" -> "0,\"No error\"";
                      case "OUTP?", "MEAS:VOLT?", "MEAS:CURR?", "VOLT?" -> "0";
                      default -> null;
                    };
                if (answer != null) {
                  s.getOutputStream().write((answer + "\n").getBytes(StandardCharsets.US_ASCII));
                }
              }
            } catch (IOException e) {
              // the client is gone
            }
          });
      try (Supply s = new Supply(TcpLink.connect("127.0.0.1", listener.getLocalPort(), 300))) {
        s.outputs(List.of(1, 2));
        BenchException e = expectThrows(BenchException.class, s::makeSafe);
        assertTrue(e.refused(), e.getMessage());
        assertTrue(e.getMessage().contains("does not say which one is"), e.getMessage());
        s.outputs(List.of(1));
        s.makeSafe();
        assertFalse(heard.contains("OUTP ON"));
        s.outputs(List.of(1, 2));
        assertEquals(s.off(), java.util.Optional.empty(), "its one output is off");
      }
    }
  }

  @Test
  public void oneOutputIsNeverSelected() throws Exception {
    try (Old old = new Old();
        Supply s = new Supply(link(old.listener.getLocalPort()), Dialect.read(OWN))) {
      s.makeSafe();
      s.set(1, 0.1);
      s.output(true);
      s.off();
      assertTrue(old.heard.stream().noneMatch(l -> l.startsWith("C")), old.heard.toString());
      Dialect single = Dialect.read(OWN.replace("\"select\": \"CH{output}\",", ""));
      Supply one = new Supply(link(old.listener.getLocalPort()), single);
      assertTrue(expectThrows(BenchException.class, () -> one.outputs(List.of(1, 2))).refused());
    }
  }

  private static ell.bench.link.LineLink link(int port) throws IOException {
    ell.bench.link.LineLink l = TcpLink.connect("127.0.0.1", port, 1000);
    l.lineEnd("\r");
    return l;
  }

  @Test
  public void aMeterWithoutAnErrorQueue() throws Exception {
    Dialect d = Dialect.read("{\"kind\":\"meter\",\"volts\":\"MV?\",\"ohms\":\"MI?\"}");
    try (Old old = new Old();
        Meter m = new Meter(link(old.listener.getLocalPort()), d)) {
      m.clear();
      assertEquals(m.ohms(), 0.001, 1e-9);
      assertEquals(m.identity(), "");
    }
  }

  /// The comma of a serial line is its own; others part addresses.
  @Test
  public void aSerialLineAmongAddresses() {
    assertEquals(
        Bench.addresses(
            "serial:/dev/ttyUSB0@9600,8N1, plate=h:1 meter=serial:COM3@300,7E2",
            List.of("supply", "meter")),
        java.util.Map.of(
            "supply",
            "serial:/dev/ttyUSB0@9600,8N1",
            "plate",
            "h:1",
            "meter",
            "serial:COM3@300,7E2"));
    assertEquals(
        Bench.addresses("h:1,h:2", List.of("supply", "meter")),
        java.util.Map.of("supply", "h:1", "meter", "h:2"));
  }

  @DataProvider
  Object[][] lines() {
    return new Object[][] {
      {"9600", new SerialLine(9600, 8, 0, 1)},
      {"115200,8N1", new SerialLine(115200, 8, 0, 1)},
      {"19200,7e2", new SerialLine(19200, 7, 2, 2)},
      {"300,5O1", new SerialLine(300, 5, 1, 1)},
    };
  }

  @Test(dataProvider = "lines")
  public void aSerialLineIsSetInWords(String words, SerialLine line) {
    assertEquals(SerialLine.parse(words), line);
  }

  @DataProvider
  Object[][] addresses() {
    return new Object[][] {
      {"serial:/dev/no-such-port@9600"},
      {"serial:/dev/no-such-port@9600,9N1"},
      {"serial:/dev/null@fast"},
      {"tcp:127.0.0.1:0"},
      {":5025"},
      {"127.0.0.1:70000"},
    };
  }

  @Test(dataProvider = "addresses")
  public void whatIsNoAddressIsSaid(String address) {
    String said =
        expectThrows(BenchException.class, () -> new Address(address).connect(300)).getMessage();
    assertTrue(said.contains("serial") || said.contains("host:port"), said);
  }
}
