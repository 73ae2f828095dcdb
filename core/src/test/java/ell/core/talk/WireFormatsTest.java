package ell.core.talk;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;
import static org.testng.Assert.expectThrows;

import ell.core.pulse.Baud;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.Test;

/// Check sums, frames, framing at wrong rates, text in pieces, numbers in memories.
public class WireFormatsTest {
  private static byte[] ascii(String s) {
    return s.getBytes(StandardCharsets.US_ASCII);
  }

  /// Check values over the digits 1 to 9. Source: Catalogue of parametrised CRC algorithms,
  /// CRC-16/IBM-3740 and CRC-32/ISO-HDLC; from memory.
  @Test
  public void checkValues() {
    byte[] digits = ascii("123456789");
    assertEquals(Crc.crc16(digits, 0, digits.length), 0x29B1);
    assertEquals(Crc.crc32(digits), 0xCBF43926L);
  }

  private static List<LoaderFrame> taken(byte[] bytes, LoaderFrame.Taker t) {
    List<LoaderFrame> all = new ArrayList<>();
    for (byte b : bytes) {
      t.take(b & 0xff).ifPresent(all::add);
    }
    return all;
  }

  @Test
  public void framesAreFoundAmongNoise() {
    Random r = new Random(5);
    LoaderFrame.Taker t = new LoaderFrame.Taker();
    byte[] image = new byte[3000];
    r.nextBytes(image);
    int found = 0;
    for (int i = 0; i < 200; i++) {
      byte[] noise = new byte[r.nextInt(40)];
      r.nextBytes(noise);
      LoaderFrame f = LoaderFrame.data(i & 0xff, image, (i * 13) % 2700);
      found += taken(noise, t).size();
      for (LoaderFrame x : taken(f.bytes(), t)) {
        found++;
        assertEquals(x.kind(), 'D');
      }
    }
    // a length that noise makes up may swallow a few frames behind it, never make one up
    assertTrue(found > 150 && found <= 200, found + " found");
  }

  @Test
  public void noSingleWrongBitPasses() {
    byte[] whole = LoaderFrame.data(7, ascii("a block of an image"), 0).bytes();
    for (int bit = 0; bit < whole.length * 8; bit++) {
      byte[] wrong = whole.clone();
      wrong[bit / 8] ^= (byte) (1 << bit % 8);
      assertTrue(taken(wrong, new LoaderFrame.Taker()).isEmpty(), "bit " + bit);
    }
    assertEquals(taken(whole, new LoaderFrame.Taker()).size(), 1);
  }

  @Test
  public void whatIsNoFrameIsGivenBack() {
    LoaderFrame.Taker t = new LoaderFrame.Taker();
    byte[] all =
        ("boots\r\n" + (char) LoaderFrame.START + "x").getBytes(StandardCharsets.ISO_8859_1);
    assertTrue(taken(all, t).isEmpty());
    assertEquals(t.stray(), all);
    assertEquals(t.stray().length, 0);
  }

  /// At the same rate nothing changes. Half of a bit over nine and a half of them is all that both
  /// ends together may be off: 5.3 %.
  @Test
  public void ratesThatDifferByLessThanTheBudgetAreHeard() {
    byte[] sent = new byte[256];
    for (int i = 0; i < 256; i++) {
      sent[i] = (byte) i;
    }
    assertEquals(Framing.of(sent, 1).bytes(), sent);
    for (double off : new double[] {-0.045, -0.02, 0.02, 0.045}) {
      Framing.Heard h = Framing.of(sent, 1 + off);
      assertEquals(h.bytes(), sent, "off by " + off);
      assertEquals(h.errors(), 0);
    }
    for (double off : new double[] {-0.08, 0.08}) {
      assertFalse(Arrays.equals(Framing.of(sent, 1 + off).bytes(), sent), "off by " + off);
    }
    assertEquals(Baud.budget(1_000_000), 0.5 / 9.5, 1e-3);
    expectThrows(IllegalArgumentException.class, () -> Framing.of(sent, 0));
  }

  /// A receiver twice as fast sees every bit twice: of `U` (55 hex; levels 0, 1 0 1 0 1 0 1 0, 1)
  /// it samples behind its start 0, 1 1, 0 0, 1 1, 0: least bit first that is 66 hex.
  @Test
  public void aReceiverTwiceAsFastSeesEveryBitTwice() {
    Framing.Heard h = Framing.of(new byte[] {0x55}, 0.5);
    assertEquals(h.bytes()[0] & 0xff, 0x66);
    assertEquals(h.bytes().length, 2, "what is left of it looks like one more");
  }

  @Test
  public void theRateIsToldByWhatWasHeard() {
    String says = "Marram MG-1 B firmware 1.4\r\nboard MG-1 B\r\nrails all there\r\n";
    byte[] at = Framing.of(ascii(says), 57_600 / 115_200.0).bytes();
    RateGuess g = RateGuess.of(at, says, 115_200).orElseThrow();
    assertEquals(g.ratio(), 0.5, 1e-9);
    assertTrue(g.words(115_200).contains("57600"), g.words(115_200));
    byte[] slow = Framing.of(ascii(says), 0.9216).bytes();
    RateGuess s = RateGuess.of(slow, says, 115_200).orElseThrow();
    assertEquals(s.ratio(), 0.9216, 0.02);
    assertTrue(RateGuess.of(new byte[] {1, 2, 3, 4, 5, 6, 7, 8}, says, 115_200).isEmpty());
  }

  @Test
  public void textInPieces() {
    byte[] all = "12 µV ± 3 Ω\r\n".getBytes(StandardCharsets.UTF_8);
    for (int cut = 0; cut <= all.length; cut++) {
      HeardText t = new HeardText();
      String got = t.take(all, 0, cut) + t.take(all, cut, all.length) + t.end();
      assertEquals(got, "12 µV ± 3 Ω\r\n", "cut at " + cut);
      assertEquals(t.odd(), 0);
    }
    HeardText odd = new HeardText();
    assertEquals(
        odd.take(new byte[] {'a', (byte) 0xff, 0, 'b', 7, (byte) 0xc3}, 0, 6) + odd.end(),
        "a\\xff\\0b\\x07\\xc3");
    assertEquals(odd.odd(), 4);
  }

  @Test
  public void aNumberIsReadBackOrNotAtAll() {
    Identity i = new Identity("07", "B");
    assertEquals(Identity.read(i.bytes()), Optional.of(i));
    byte[] b = i.bytes();
    for (int bit = 0; bit < b.length * 8; bit++) {
      byte[] wrong = b.clone();
      wrong[bit / 8] ^= (byte) (1 << bit % 8);
      assertTrue(Identity.read(wrong).isEmpty(), "bit " + bit);
    }
    assertTrue(Identity.read(new byte[0]).isEmpty());
    assertTrue(Identity.read(new byte[64]).isEmpty());
    for (String bad : List.of("", "a b", "x".repeat(41), "µ")) {
      expectThrows(IllegalArgumentException.class, () -> new Identity(bad, "B"));
    }
  }

  @Test
  public void theStripGathersFramesAndKeepsTextInOrder() {
    List<Strip.Piece> all = new ArrayList<>();
    byte[] image = new byte[1000];
    for (int i = 0; i < 4; i++) {
      all.add(new Strip.Piece('>', 0.1 + 0.01 * i, LoaderFrame.data(i, image, 256 * i).bytes()));
      all.add(
          new Strip.Piece('<', 0.105 + 0.01 * i, LoaderFrame.answer(i, 0, new byte[0]).bytes()));
    }
    all.add(new Strip.Piece('<', 0.2, ascii("boots\r\nready\r\n")));
    all.add(new Strip.Piece('>', 0.21, ascii("id?\r")));
    all.add(new Strip.Piece('<', 0.22, ascii("board\r\n")));
    all.add(new Strip.Piece('!', 0.5, ascii("lost: pulled")));
    List<String> text = Strip.rows(all).stream().map(r -> r.kind() + r.text()).toList();
    assertEquals(
        text,
        List.of(
            ">image, 4 frames, 1044 bytes",
            "<answers, 4 frames, 32 bytes",
            "<boots",
            "<ready",
            ">id?",
            "<board",
            "!lost: pulled"));
  }
}
