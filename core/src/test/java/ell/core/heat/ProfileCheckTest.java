package ell.core.heat;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import ell.core.quantity.Limits;
import ell.core.quantity.Verdict;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Profiles made of straight lines, whose statistics a pencil gives; then with noise, spikes and
/// gaps on top.
public class ProfileCheckTest {
  /// 25 °C for 10 s, to 150 °C at 1.5 °C/s, to 200 °C in 90 s, to 245 °C at 1 °C/s, 10 s there,
  /// down at 2.5 °C/s.
  private static final double[][] CORNERS = {
    {0, 24},
    {10, 25},
    {10 + 125 / 1.5, 150},
    {10 + 125 / 1.5 + 90, 200},
    {10 + 125 / 1.5 + 90 + 45, 245},
    {10 + 125 / 1.5 + 90 + 55, 245},
    {10 + 125 / 1.5 + 90 + 55 + 80, 45}
  };

  private static double at(double t) {
    for (int i = 1; i < CORNERS.length; i++) {
      if (t <= CORNERS[i][0]) {
        double f = (t - CORNERS[i - 1][0]) / (CORNERS[i][0] - CORNERS[i - 1][0]);
        return CORNERS[i - 1][1] + f * (CORNERS[i][1] - CORNERS[i - 1][1]);
      }
    }
    return 45;
  }

  private static ProfileLog.Channel channel(double step, double noise, long seed) {
    Random r = new Random(seed);
    double end = CORNERS[CORNERS.length - 1][0];
    int n = (int) (end / step) + 1;
    double[] t = new double[n];
    double[] c = new double[n];
    for (int i = 0; i < n; i++) {
      t[i] = i * step;
      c[i] = at(t[i]) + noise * r.nextGaussian();
    }
    return new ProfileLog.Channel("board", t, c);
  }

  private static ProfileCheck check(ProfileLog.Channel... channels) {
    return ProfileCheck.of(new ProfileLog(List.of(channels)), ProfileWindow.SAC305, 0);
  }

  private static double value(ProfileCheck c, ProfileStatistic s) {
    return c.channels().getFirst().line(s).value();
  }

  @DataProvider
  Object[][] steps() {
    // sampling, and how far the corners may be cut by it
    return new Object[][] {{0.1, 0.1}, {0.5, 0.3}, {1.0, 0.6}, {2.0, 1.2}};
  }

  @Test(dataProvider = "steps")
  public void statisticsOfStraightLines(double step, double cut) {
    ProfileCheck c = check(channel(step, 0, 1));
    assertEquals(value(c, ProfileStatistic.RAMP_UP), 1.5, 0.01);
    assertEquals(value(c, ProfileStatistic.SOAK_TIME), 90, cut);
    // 217 °C is passed 28 s before the top, held 10 s, and passed again 28/2.5 s after it
    assertEquals(value(c, ProfileStatistic.TIME_ABOVE), 28 + 10 + 11.2, cut);
    assertEquals(value(c, ProfileStatistic.PEAK), 245, 1e-6 + cut * 0.01);
    assertEquals(value(c, ProfileStatistic.RAMP_DOWN), 2.5, 0.01);
    assertEquals(value(c, ProfileStatistic.TIME_TO_PEAK), 125 / 1.5 + 90 + 45, 2 * cut + step);
    assertEquals(c.channels().getFirst().line(ProfileStatistic.TIME_ABOVE).verdict(), Verdict.OUT);
    assertEquals(c.verdict(), Verdict.OUT);
    // time above: 49.2 s, middle 105, half 45
    assertEquals(c.pwi(), 100 * (105 - 49.2) / 45, 3);
  }

  @Test
  public void noiseAndSpikesMakeNoRampAndNoPeak() {
    ProfileLog.Channel noisy = channel(0.5, 0.6, 3);
    ProfileCheck c = check(noisy);
    assertEquals(value(c, ProfileStatistic.RAMP_UP), 1.5, 0.15);
    assertEquals(value(c, ProfileStatistic.RAMP_DOWN), 2.5, 0.15);
    assertEquals(value(c, ProfileStatistic.PEAK), 245, 0.8);
    assertEquals(value(c, ProfileStatistic.SOAK_TIME), 90, 3);
    assertEquals(value(c, ProfileStatistic.TIME_ABOVE), 49.2, 1.5);
    // one sample far off in either direction changes nothing and is told
    double[] t = new double[noisy.size()];
    double[] v = new double[noisy.size()];
    for (int i = 0; i < t.length; i++) {
      t[i] = noisy.second(i);
      v[i] = at(t[i]) + (i == 100 ? 400 : i == 300 ? -80 : 0);
    }
    ProfileCheck spiked = check(new ProfileLog.Channel("board", t, v));
    assertEquals(value(spiked, ProfileStatistic.PEAK), 245, 0.1);
    assertEquals(value(spiked, ProfileStatistic.RAMP_UP), 1.5, 0.02);
    assertTrue(
        spiked.channels().getFirst().remarks().stream().anyMatch(r -> r.contains("2 samples leap")),
        spiked.channels().getFirst().remarks().toString());
  }

  /// A sharp peak that is sampled slowly is no spike.
  @Test
  public void aSharpPeakIsNoSpike() {
    List<double[]> p = new ArrayList<>();
    for (double t = 0; t <= 400; t += 5) {
      p.add(new double[] {t, t <= 200 ? 25 + t * 1.1 : Math.max(25, 245 - (t - 200) * 2)});
    }
    ProfileCheck c =
        check(
            new ProfileLog.Channel(
                "b",
                p.stream().mapToDouble(x -> x[0]).toArray(),
                p.stream().mapToDouble(x -> x[1]).toArray()));
    assertEquals(value(c, ProfileStatistic.PEAK), 245, 1e-9);
    assertEquals(value(c, ProfileStatistic.RAMP_UP), 1.1, 1e-9);
    assertEquals(value(c, ProfileStatistic.RAMP_DOWN), 2.0, 1e-9);
  }

  @Test
  public void whatIsNotReachedIsOutAndSaysSo() {
    double[] t = new double[200];
    double[] v = new double[200];
    for (int i = 0; i < 200; i++) {
      t[i] = i;
      v[i] = 25 + Math.min(i, 130);
    }
    ProfileCheck c = check(new ProfileLog.Channel("cool", t, v));
    ProfileCheck.Line soak = c.channels().getFirst().line(ProfileStatistic.SOAK_TIME);
    assertTrue(Double.isNaN(soak.value()));
    assertEquals(soak.verdict(), Verdict.OUT);
    assertEquals(value(c, ProfileStatistic.TIME_ABOVE), 0.0);
    assertTrue(
        c.sheet(c.channels().getFirst()).lines().stream()
            .anyMatch(l -> l.display().equals("not reached")));
  }

  /// A thermocouple that may be 2.2 °C off leaves a peak of 249 °C too close to call.
  @Test
  public void theAccuracyOfTheThermocoupleIsAGuardBand() {
    ProfileLog.Channel hot = channel(1, 0, 1).shifted(4);
    ProfileLog log = new ProfileLog(List.of(hot));
    assertEquals(
        ProfileCheck.of(log, ProfileWindow.SAC305, 0)
            .channels()
            .getFirst()
            .line(ProfileStatistic.PEAK)
            .verdict(),
        Verdict.WITHIN);
    ProfileCheck.Line l =
        ProfileCheck.of(log, ProfileWindow.SAC305, 2.2)
            .channels()
            .getFirst()
            .line(ProfileStatistic.PEAK);
    assertEquals(l.uncertainty(), 2.2, 1e-9);
    assertEquals(l.verdict(), Verdict.CLOSE);
  }

  @Test
  public void setPointsAndPlatesAreNotJudgedAndChannelsSpread() {
    ProfileLog.Channel a = channel(1, 0, 1);
    double[] t = new double[a.size()];
    double[] v = new double[a.size()];
    for (int i = 0; i < t.length; i++) {
      t[i] = a.second(i);
      v[i] = a.celsius(i) - 6;
    }
    ProfileCheck c =
        check(
            a,
            new ProfileLog.Channel("far corner", t, v),
            new ProfileLog.Channel("Set point", t, v),
            new ProfileLog.Channel("Plate", t, v));
    assertEquals(c.channels().size(), 2);
    assertEquals(c.spread(), 6, 1e-9);
    assertThrows(
        IllegalArgumentException.class, () -> check(new ProfileLog.Channel("setpoint", t, v)));
  }

  /// J-STD-020, classification reflow, from memory.
  @Test
  public void theWindowsThatShipAreThoseOfTheStandard() {
    Map<ProfileStatistic, Limits> lead = ProfileWindow.SNPB.limits();
    Map<ProfileStatistic, Limits> free = ProfileWindow.SAC305.limits();
    assertEquals(lead.get(ProfileStatistic.SOAK_TIME), new Limits(60, 120));
    assertEquals(free.get(ProfileStatistic.SOAK_TIME), new Limits(60, 120));
    assertEquals(lead.get(ProfileStatistic.TIME_ABOVE), new Limits(60, 150));
    assertEquals(free.get(ProfileStatistic.RAMP_UP).high(), 3.0);
    assertEquals(free.get(ProfileStatistic.RAMP_DOWN).high(), 6.0);
    assertEquals(lead.get(ProfileStatistic.TIME_TO_PEAK).high(), 360.0);
    assertEquals(free.get(ProfileStatistic.TIME_TO_PEAK).high(), 480.0);
    assertEquals(ProfileWindow.SNPB.above(), 183.0);
    assertEquals(ProfileWindow.SAC305.above(), 217.0);
    assertEquals(ProfileWindow.of(Alloy.SN42BI58), ProfileWindow.SNBI);
    assertEquals(ProfileWindow.of("lead-free"), ProfileWindow.SAC305);
    assertThrows(IllegalArgumentException.class, () -> ProfileWindow.of("gold"));
  }

  @Test
  public void windowsOfOnesOwnAreReadAndWritten() {
    for (ProfileWindow w : ProfileWindow.shipped()) {
      assertEquals(ProfileWindow.read(w.write()), w);
    }
    try {
      ProfileWindow.read(
          "{\"name\":\"x\",\"soakFrom\":150,\"soakTo\":200,\"above\":217,\"limits\":{\"top\":{}}}");
      throw new AssertionError("it was read");
    } catch (IllegalArgumentException e) {
      assertTrue(e.getMessage().contains("limits.top: expected one of rampUp"), e.getMessage());
    }
  }
}
