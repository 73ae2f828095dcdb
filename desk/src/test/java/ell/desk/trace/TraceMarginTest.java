package ell.desk.trace;

import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.core.trace.Probe;
import ell.work.word.Language;
import ell.work.word.Words;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// What is to be heeded before each kind of measurement, in each language.
public class TraceMarginTest {
  @DataProvider
  Object[][] languages() {
    return new Object[][] {{Language.GERMAN}, {Language.FRENCH}, {Language.SPANISH}};
  }

  @Test(dataProvider = "languages")
  public void everyKindHasItsCautions(Language l) {
    Words w = Words.in(l);
    for (Probe.Kind k : Probe.Kind.values()) {
      assertFalse(TraceMargin.care(k).isEmpty(), k.toString());
      for (String caution : TraceMargin.care(k)) {
        for (String sentence : caution.split("; ")) {
          assertTrue(w.has(sentence.replaceFirst("\\.$", "")), k + ": " + sentence);
        }
      }
    }
  }

  /// Ohms are measured on a board without power, and who powers it is told of limits first; common
  /// practice, no source.
  @Test
  public void powerIsSpokenOfWhereItMatters() {
    for (Probe.Kind k : Probe.Kind.values()) {
      String first = TraceMargin.care(k).getFirst();
      if (k == Probe.Kind.OHMS || k == Probe.Kind.ALONG) {
        assertTrue(first.startsWith("Power off"), k + ": " + first);
      } else if (k.power() && k != Probe.Kind.TOUCH) {
        assertTrue(first.contains("limit"), k + ": " + first);
      }
    }
  }
}
