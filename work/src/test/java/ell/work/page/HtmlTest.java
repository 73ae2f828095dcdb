package ell.work.page;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.quantity.Limits;
import ell.core.quantity.Unit;
import ell.core.quantity.Verdict;
import ell.core.record.Section;
import ell.work.word.Language;
import ell.work.word.Words;
import java.io.StringReader;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.parsers.DocumentBuilderFactory;
import org.testng.annotations.Test;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.xml.sax.InputSource;

/// Pages as they are put together: words stay words, drawings are where they should be.
public class HtmlTest {
  private static final Words ENGLISH = Words.in(Language.ENGLISH);

  private static Document parsed(String xml) throws Exception {
    return DocumentBuilderFactory.newInstance()
        .newDocumentBuilder()
        .parse(new InputSource(new StringReader(xml)));
  }

  @Test
  public void whateverIsSaidStaysWords() throws Exception {
    String odd = "a<b>&\"c'</td><script>x</script>\u0000\u0007 π 😀";
    String page =
        new Html(ENGLISH)
            .open("div", "")
            .say("p", "x", odd)
            .row("r", false, List.of(odd))
            .link("/board/a\"b", "l", odd)
            .close("div")
            .toString();
    Document d = parsed(page);
    String said = odd.replace('\u0000', ' ').replace('\u0007', ' ');
    assertEquals(d.getElementsByTagName("p").item(0).getTextContent(), said);
    assertEquals(d.getElementsByTagName("td").item(0).getTextContent(), said);
    Element a = (Element) d.getElementsByTagName("a").item(0);
    assertEquals(a.getTextContent(), said);
    assertEquals(a.getAttribute("href"), "/board/a\"b");
    assertEquals(d.getElementsByTagName("script").getLength(), 0);
    assertEquals(new Html(ENGLISH).say("p", "", "").toString(), "", "nothing is said");
  }

  @Test
  public void aVerdictIsAMarkAndAWord() {
    for (Verdict v : Verdict.values()) {
      assertTrue(Html.verdict(v).endsWith(v.words()), Html.verdict(v));
      assertFalse(Html.verdict(v).startsWith(v.words()), "a mark before it");
    }
  }

  @Test
  public void waysToABoardHoldWhateverItsSerial() {
    assertEquals(BoardPages.way("07", ""), "/board/07");
    assertEquals(BoardPages.way("a b/ü?", "beep"), "/board/a%20b%2F%C3%BC%3F/beep");
  }

  private static double[] numbers(String svg, String what) {
    Matcher m = Pattern.compile(what + "=\"(-?[\\d.]+)\"").matcher(svg);
    return m.results().mapToDouble(r -> Double.parseDouble(r.group(1))).toArray();
  }

  /// 3.0 to 3.6 V with a quarter of that on each side is 0.9 V over 100: a limit at 100/6, the
  /// other at 500/6, 3.3 V in the middle, ±0.09 V ten to each side.
  @Test
  public void aReadingStandsOnItsStripWhereItShould() throws Exception {
    Section.Strip s =
        new Section.Strip(
            "3V3",
            Optional.of(3.3),
            Unit.VOLT,
            Optional.of(new Limits(3.0, 3.6)),
            Optional.of(0.09),
            Optional.of(Verdict.WITHIN));
    String svg = Svg.of(s);
    Element bar = null;
    Document d = parsed(svg);
    for (int i = 0; i < d.getElementsByTagName("rect").getLength(); i++) {
      Element e = (Element) d.getElementsByTagName("rect").item(i);
      bar = e.getAttribute("class").equals("bar") ? e : bar;
    }
    assertEquals(Double.parseDouble(bar.getAttribute("x")), 40, 0.01);
    assertEquals(Double.parseDouble(bar.getAttribute("width")), 20, 0.01);
    double[] ends = numbers(svg, "x2");
    assertTrue(contains(ends, 100 / 6.0) && contains(ends, 500 / 6.0), svg);
    // out of the picture it stands at its edge, and is not lost
    Section.Strip far =
        new Section.Strip(
            "3V3", Optional.of(99.0), Unit.VOLT, s.limits(), s.uncertainty(), Optional.empty());
    double at = numbers(Svg.of(far).substring(Svg.of(far).indexOf("class=\"bar\"")), " x")[0];
    assertTrue(at > 80 && at < 100, "at " + at);
    // a limit that is open has no strip
    assertEquals(
        Svg.of(
            new Section.Strip(
                "x",
                Optional.of(1.0),
                Unit.OHM,
                Optional.of(Limits.atLeast(100)),
                Optional.empty(),
                Optional.empty())),
        "");
  }

  private static boolean contains(double[] all, double x) {
    for (double d : all) {
      if (Math.abs(d - x) < 0.01) {
        return true;
      }
    }
    return false;
  }

  /// Upwards in a board is downwards in a picture.
  @Test
  public void aDrawingIsTurnedTheRightWayUp() throws Exception {
    Section.Drawing drawing =
        new Section.Drawing(
            "a cut <here>",
            new double[] {10, 20, 30, 60},
            List.of(new double[] {10, 20, 30, 20, 30, 60}),
            List.of(new double[] {12, 22, 1, 2}),
            List.of(new Section.Drawing.Label(15, 50, "U1")),
            List.of(new double[] {12, 22, 20, 40}),
            List.of(new double[] {25, 30}),
            List.of(new Section.Drawing.Label(16, 51, "1 & 2")));
    Document d = parsed(Svg.of(drawing));
    Element svg = d.getDocumentElement();
    assertEquals(svg.getAttribute("viewBox"), "10.000 -60.000 20.000 40.000");
    assertEquals(svg.getAttribute("aria-label"), "a cut <here>");
    Element pad = (Element) d.getElementsByTagName("rect").item(0);
    assertEquals(Double.parseDouble(pad.getAttribute("y")), -24, 1e-9, "its upper edge");
    Element wire = (Element) d.getElementsByTagName("line").item(0);
    assertEquals(Double.parseDouble(wire.getAttribute("y2")), -40, 1e-9);
    assertEquals(d.getElementsByTagName("text").item(2).getTextContent(), "1 & 2");
  }
}
