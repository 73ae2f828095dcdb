package ell.core.heat;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/// The plate: its solver against closed forms, its fit against runs of a plate that is known.
public class PlateTest {
  private static final PlateModel TRUE = new PlateModel(3.1, 150, 26, 0.25, 240, 58, 2, 22);

  /// Two bodies at full power: eigenvalues of the linear system, worked by hand. Source: step
  /// response of a linear system of two equations, any textbook.
  @Test
  public void theSolverMeetsTheStepResponseOfTwoBodies() {
    PlateModel m = new PlateModel(2, 200, 30, 0.3, 250, 60, 0, 20);
    // x = Tp − Ta, y = Tb − Ta: x' = g − a·x + b·y, y' = c·x − d·y
    double a = 1 / 200.0 + 0.3 / 30;
    double b = 0.3 / 30;
    double c = 1 / 30.0;
    double d = 1 / 30.0 + 1 / 250.0;
    double g = 2;
    double det = a * d - b * c;
    double xs = g * d / det;
    double ys = g * c / det;
    double mean = -(a + d) / 2;
    double root = Math.sqrt((a - d) * (a - d) / 4 + b * c);
    double l1 = mean + root;
    double l2 = mean - root;
    // y = ys + k1·e^(l1·t) + k2·e^(l2·t), y(0) = 0, y'(0) = c·x(0) − d·y(0) = 0
    double k1 = ys * l2 / (l1 - l2);
    double k2 = -ys * l1 / (l1 - l2);
    PlateModel.Curve curve = m.run(t -> 1e6, 20, 20, Double.POSITIVE_INFINITY, 600);
    for (double t : new double[] {5, 30, 77.3, 200, 600}) {
      double y = ys + k1 * Math.exp(l1 * t) + k2 * Math.exp(l2 * t);
      double x = (k1 * (l1 + d) * Math.exp(l1 * t) + k2 * (l2 + d) * Math.exp(l2 * t)) / c + xs;
      // between steps the curve is read on a straight line, which costs less than 0.001 °C here
      assertEquals(PlateModel.Curve.at(curve.boardAt(), t), 20 + y, 2e-3, "board at " + t);
      assertEquals(PlateModel.Curve.at(curve.plate(), t), 20 + x, 2e-3, "plate at " + t);
    }
    assertEquals(m.hottest(), 20 + xs, 1e-9, "where it settles");
  }

  /// Lifted off, a board cools by the law of Newton.
  @Test
  public void aLiftedBoardCoolsByNewtonsLaw() {
    PlateModel.Curve c = TRUE.run(t -> 0, 200, 240, 0, 120);
    for (double t : new double[] {10, 58, 120}) {
      assertEquals(
          PlateModel.Curve.at(c.boardAt(), t), 22 + 218 * Math.exp(-t / 58), 2e-3, "at " + t);
    }
  }

  static PlateRun recorded(PlateModel m, double soak, double hot, double lift, long seed) {
    Random r = new Random(seed);
    double end = lift + 100;
    PlateModel.Curve c = m.run(t -> t >= lift ? 0 : t < 170 ? soak : hot, 22, 22, lift, end);
    List<Double> set = new ArrayList<>();
    List<Double> plate = new ArrayList<>();
    List<Double> board = new ArrayList<>();
    for (double t = 0; t <= end; t++) {
      set.add(t >= lift ? 0 : t < 170 ? soak : hot);
      plate.add(PlateModel.Curve.at(c.plate(), t) + 0.3 * r.nextGaussian());
      board.add(PlateModel.Curve.at(c.boardAt(), t) + 0.3 * r.nextGaussian());
    }
    return new PlateRun(1, set, plate, board);
  }

  @Test
  public void aFitFindsThePlateThatMadeTheRuns() {
    PlateFit f =
        PlateFit.of(List.of(recorded(TRUE, 175, 275, 310, 1), recorded(TRUE, 180, 300, 270, 2)));
    assertEquals(f.runs(), 2);
    assertTrue(f.rms() < 0.5, "left over " + f.rms());
    assertEquals(f.model().gain(), 3.1, 0.1);
    assertEquals(f.model().board(), 26, 2);
    assertEquals(f.model().cool(), 58, 2);
    assertTrue(f.error().get(0) < 0.05, "the power is known to " + f.error().get(0));
    assertTrue(f.sheet().lines().size() > 7);
  }

  @Test
  public void aScheduleKeepsTheBoardInTheWindowOfThePlateThatItIsFor() {
    PlateSchedule s = PlateSchedule.of(TRUE, ProfileWindow.SAC305);
    assertTrue(s.pwi() < 60, "index " + s.pwi());
    assertTrue(s.warnings().isEmpty(), s.warnings().toString());
    // the same run again, by the plate itself and not by the search
    PlateModel.Curve c = TRUE.run(s::set, 22, 22, s.liftAt(), s.liftAt() + 90);
    double top = 0;
    for (double v : c.boardAt()) {
      top = Math.max(top, v);
    }
    assertTrue(top > 235 && top < 250, "peak " + top);
  }

  @Test
  public void aPlateThatIsTooWeakSaysSo() {
    PlateModel weak = new PlateModel(0.9, 160, 26, 0.25, 240, 58, 2, 22);
    assertTrue(weak.hottest() < 200);
    PlateSchedule s = PlateSchedule.of(weak, ProfileWindow.SAC305);
    assertTrue(
        s.warnings().getFirst().contains("cannot bring the board to"), s.warnings().toString());
    PlateSchedule low = PlateSchedule.of(weak, ProfileWindow.SNBI);
    assertTrue(low.liftTemperature() > 100);
  }

  /// A part that follows its board by 6 s, four degrees cooler: the lag is found.
  @Test
  public void aPartsLagIsFound() {
    PlateRun run = recorded(TRUE, 175, 275, 310, 5);
    List<Double> part = new ArrayList<>();
    double q = run.board().getFirst();
    for (double b : run.board()) {
      q = b + (q - b) * Math.exp(-1 / 6.0);
      part.add(q - 4);
    }
    PlateFit f = PlateFit.of(List.of(new PlateRun(1, run.set(), run.plate(), run.board(), part)));
    assertEquals(f.partLag(), 6, 0.3);
  }
}
