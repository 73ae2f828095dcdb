package ell.core.statistic;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.Arrays;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// The fitter against certified values. Source: NIST Statistical Reference Datasets, nonlinear
/// regression (Misra1a, Misra1b, MGH09, Rat42, BoxBOD), written from memory, from both of their
/// beginnings.
public final class CurveFitTest {
  private interface Model {
    double at(double x, double[] b);
  }

  private static final double[] MISRA_X = {
    77.6, 114.9, 141.1, 190.8, 239.9, 289.0, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760.0
  };
  private static final double[] MISRA_Y = {
    10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.40, 75.47, 81.78
  };

  @DataProvider
  Object[][] certified() {
    Model misra1a = (x, b) -> b[0] * (1 - Math.exp(-b[1] * x));
    Model misra1b = (x, b) -> b[0] * (1 - Math.pow(1 + b[1] * x / 2, -2));
    Model mgh09 = (x, b) -> b[0] * (x * x + x * b[1]) / (x * x + x * b[2] + b[3]);
    Model rat42 = (x, b) -> b[0] / (1 + Math.exp(b[1] - b[2] * x));
    Model box = (x, b) -> b[0] * (1 - Math.exp(-b[1] * x));
    return new Object[][] {
      {
        "Misra1a",
        misra1a,
        MISRA_X,
        MISRA_Y,
        new double[][] {{500, 0.0001}, {250, 0.0005}},
        new double[] {2.3894212918E+02, 5.5015643181E-04},
        new double[] {2.7070075241E+00, 7.2668688436E-06},
        1.2455138894E-01
      },
      {
        "Misra1b",
        misra1b,
        MISRA_X,
        MISRA_Y,
        new double[][] {{500, 0.0001}, {300, 0.0002}},
        new double[] {3.3799746163E+02, 3.9039091287E-04},
        new double[] {3.1643950207E+00, 4.2547321834E-06},
        7.5464681533E-02
      },
      {
        "MGH09",
        mgh09,
        new double[] {4, 2, 1, 0.5, 0.25, 0.167, 0.125, 0.1, 0.0833, 0.0714, 0.0625},
        new double[] {
          0.1957, 0.1947, 0.1735, 0.16, 0.0844, 0.0627, 0.0456, 0.0342, 0.0323, 0.0235, 0.0246
        },
        new double[][] {{0.25, 0.39, 0.415, 0.39}},
        new double[] {1.9280693458E-01, 1.9128232873E-01, 1.2305650693E-01, 1.3606233068E-01},
        new double[] {1.1435312227E-02, 1.9633220911E-01, 8.0842031232E-02, 9.0025542308E-02},
        3.0750560385E-04
      },
      {
        "Rat42",
        rat42,
        new double[] {9, 14, 21, 28, 42, 57, 63, 70, 79},
        new double[] {8.93, 10.8, 18.59, 22.33, 39.35, 56.11, 61.73, 64.62, 67.08},
        new double[][] {{100, 1, 0.1}, {75, 2.5, 0.07}},
        new double[] {7.2462237576E+01, 2.6180768402E+00, 6.7359200066E-02},
        new double[] {1.7340283401E+00, 8.8295217536E-02, 3.4465663377E-03},
        8.0565229338E+00
      },
      {
        "BoxBOD",
        box,
        new double[] {1, 2, 3, 5, 7, 10},
        new double[] {109, 149, 149, 191, 213, 224},
        new double[][] {{100, 0.75}},
        new double[] {2.1380940889E+02, 5.4723748542E-01},
        new double[] {1.2354515176E+01, 1.0455993237E-01},
        1.1680088766E+03
      },
    };
  }

  @Test(dataProvider = "certified")
  public void theCertifiedValues(
      String name,
      Model m,
      double[] x,
      double[] y,
      double[][] starts,
      double[] wanted,
      double[] errors,
      double rss) {
    for (double[] start : starts) {
      CurveFit f = CurveFit.of(b -> Arrays.stream(x).map(v -> m.at(v, b)).toArray(), y, start);
      assertEquals(f.rss(), rss, 1e-6 * rss, name);
      for (int i = 0; i < wanted.length; i++) {
        assertEquals(f.parameters()[i], wanted[i], 1e-4 * Math.abs(wanted[i]), name + " b" + i);
        assertEquals(f.errors()[i], errors[i], 2e-3 * errors[i], name + " its error " + i);
      }
    }
  }

  @Test
  public void whatCannotBeFittedIsRefused() {
    assertThrows(
        IllegalArgumentException.class,
        () ->
            CurveFit.of(b -> new double[] {b[0], b[1]}, new double[] {1, 2}, new double[] {1, 1}));
    CurveFit twins =
        CurveFit.of(
            b -> new double[] {b[0] + b[1], b[0] + b[1], b[0] + b[1]},
            new double[] {1, 2, 3},
            new double[] {1, 1});
    assertEquals(twins.rss(), 2, 1e-9);
    assertTrue(
        Double.isNaN(twins.errors()[0]) || twins.errors()[0] > 1e3,
        "what the data do not tell apart has no error that means anything");
  }
}
