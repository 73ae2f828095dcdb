package ell.trials.power;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertFalse;
import static org.testng.Assert.assertTrue;

import ell.bench.sim.Mischief;
import ell.trials.power.MischiefMatrix.Case;
import ell.trials.power.MischiefMatrix.End;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;

/// A part of the table of misbehaviour; the whole of it takes minutes.
public final class MischiefMatrixTest {
  private static final Path DEMO = Path.of("../demo");

  @Test(timeOut = 300_000)
  public void offOrToldAtEveryCommand() throws Exception {
    List<String> commands = MischiefMatrix.commands(DEMO);
    assertTrue(commands.containsAll(List.of("OUTP", "OUTP?", "VOLT", "CURR", "MEAS:CURR?")));
    Set<Mischief> some = EnumSet.of(Mischief.HANG, Mischief.STUCK_ON, Mischief.TRIPLE);
    List<Case> cases =
        MischiefMatrix.of(DEMO, List.of("OUTP", "MEAS:CURR?", "CURR"), some::contains);
    assertEquals(cases.size(), 18);
    int begun = 0;
    for (Case c : cases) {
      assertFalse(c.end() == End.WRONG || c.end() == End.DONE, c.toString());
      // on a machine that stood still a run may end, off, before the misbehaviour began
      boolean early = c.end() == End.OFF && c.seconds() == 0;
      begun += early ? 0 : 1;
      assertTrue(
          early || c.end() == (c.mischief() == Mischief.TRIPLE ? End.OFF : End.TOLD), c.toString());
      assertTrue(c.seconds() < 3 * MischiefMatrix.MOST_SECONDS, c.toString());
    }
    assertTrue(begun > 12, "most of them misbehave: " + begun);
    assertEquals(MischiefMatrix.table(cases).size(), 6);
  }
}
