package ell.core.board;

import static org.testng.Assert.assertEquals;
import static org.testng.Assert.assertThrows;
import static org.testng.Assert.assertTrue;

import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/// Names that carry meaning: rails by net name, kinds by reference, bodies by package name. Common
/// practice, no source, except where named.
public class NamesTest {
  @DataProvider
  Object[][] rails() {
    return new Object[][] {
      {"3V3", 3.3},
      {"+3V3", 3.3},
      {"+5V", 5.0},
      {"5V0", 5.0},
      {"1V8", 1.8},
      {"12V", 12.0},
      {"VCC_3V3", 3.3},
      {"3V3_MCU", 3.3},
      {"3V3A", 3.3},
      {"VDD3.3", 3.3},
      {"-12V", -12.0},
      {"VBUS", 5.0},
      {"/power/3V3", 3.3},
      {"VIN_12V", 12.0},
      {"5V_USB", 5.0},
      {"SENSOR_3V3", 3.3},
      {"+3V3_WIFI", 3.3},
      {"MOTOR_12V", 12.0},
      {"V12", 12.0},
      {"V5", 5.0},
      {"V3P3", 3.3},
      {"V1P8A", 1.8},
      {"3P3V", 3.3},
      {"P3V3", 3.3},
      {"N12V", -12.0},
      {"-5V", -5.0},
      {"-12", -12.0},
      {"+24", 24.0},
      {"5V_SW", 5.0},
      {"12V_SWITCHED", 12.0},
      {"5VSB", 5.0},
      {"3V3_STBY", 3.3},
      {"12VDC", 12.0},
      {"+3.3VA", 3.3},
      {"24V_IN", 24.0},
      {"1.8V", 1.8},
      {"VDD_1V2", 1.2},
      {"USB_VBUS", 5.0},
      {"VBUS_IN", 5.0},
    };
  }

  @Test(dataProvider = "rails")
  public void railsThatStateTheirVolts(String net, double volts) {
    Rail r = Rail.of(net).orElseThrow();
    assertEquals(r.volts(), OptionalDouble.of(volts));
    assertTrue(!r.ground());
  }

  @DataProvider
  Object[][] unnamed() {
    return new Object[][] {
      {"VIN"},
      {"VBAT"},
      {"VCC"},
      {"VDDA"},
      {"AVDD"},
      {"VIN_RAW"},
      {"VSYS"},
      {"V+"},
      {"HV"},
      {"+VIN"},
      {"DC_IN"},
      {"VMOT"},
      {"BAT+"},
      {"VBAT+"},
      {"+BATT"},
      {"BATT+"},
      {"V_BAT"},
      {"V_IN"},
      {"VLED"},
      {"LED+"},
      {"PWR_IN"},
      {"DCIN"},
      {"DC+"},
      {"+V"},
      {"V-"},
      {"CELL+"},
      {"PACK+"},
      {"LIPO"},
      {"SOLAR+"},
      {"PV+"},
      {"VSOLAR"},
      {"VSERVO"},
      {"VMOTOR"},
      {"VHV"},
      {"HV+"},
      {"BATTERY"},
      {"B+"},
      {"VCORE"},
      {"VIO"},
      {"LDO_OUT"},
      {"BUCK_OUT"},
      {"VOUT"},
      {"VEE"},
      {"VDDIO"},
      {"PVDD"},
      {"VSTBY"},
      {"USB_PWR"},
      {"MOT_PWR"}
    };
  }

  @Test(dataProvider = "unnamed")
  public void railsThatDoNot(String net) {
    assertTrue(Rail.of(net).orElseThrow().volts().isEmpty());
  }

  @DataProvider
  Object[][] grounds() {
    return new Object[][] {
      {"GND"},
      {"AGND"},
      {"DGND"},
      {"PGND"},
      {"VSS"},
      {"0V"},
      {"gnd"},
      {"GND_A"},
      {"GNDPWR"},
      {"SGND"},
      {"GND1"},
      {"PWR_GND"},
      {"MASSE"}
    };
  }

  @Test(dataProvider = "grounds")
  public void grounds(String net) {
    assertTrue(Rail.of(net).orElseThrow().ground());
  }

  @DataProvider
  Object[][] signals() {
    return new Object[][] {
      {"SDA"},
      {"SPI_MOSI"},
      {"NRST"},
      {"N$17"},
      {"USB_DP"},
      {"ADC_5V"},
      {"5V_SENSE"},
      {"VALID"},
      {"SW_5V"},
      {"LED3V"},
      {"3V3_EN"},
      {"BAT_SENSE"},
      {"VBAT_ADC"},
      {"VREF"},
      {"12V_PG"},
      {"PWR_LED"},
      {"LED1"},
      {"D13"},
      {"A5"},
      {"V_SENSE"},
      {""}
    };
  }

  @Test(dataProvider = "signals")
  public void signalsAreNoRails(String net) {
    assertEquals(Rail.of(net), Optional.empty(), net);
  }

  @Test
  public void manyReferencesAreFolded() {
    assertEquals(Folded.references(List.of("R2", "R1")), "R2 R1");
    List<String> many = new java.util.ArrayList<>(List.of("LED", "R1"));
    for (int i = 40; i > 0; i--) {
      if (i != 5 && i != 8) {
        many.add("D" + i);
      }
    }
    assertEquals(Folded.references(many), "D1…D4 D6 D7 D9…D40 LED R1");
    assertEquals(
        Folded.assumptions(
            List.of(
                "VIN is taken as 12 V",
                "U1 is taken to draw 1 mA",
                "U2 is taken to draw 1 mA",
                "x")),
        List.of("VIN is taken as 12 V", "U1 U2 (2) are each taken to draw 1 mA", "x"));
  }

  @Test
  public void kindsByReference() {
    // class letters of IEEE 315, from memory, with the variants that are common practice
    assertEquals(PartKind.of("R12"), PartKind.RESISTOR);
    assertEquals(PartKind.of("C5"), PartKind.CAPACITOR);
    assertEquals(PartKind.of("CR1"), PartKind.DIODE);
    assertEquals(PartKind.of("Q3"), PartKind.TRANSISTOR);
    assertEquals(PartKind.of("U7"), PartKind.CHIP);
    assertEquals(PartKind.of("Y1"), PartKind.CRYSTAL);
    assertEquals(PartKind.of("TP4"), PartKind.TEST_POINT);
    assertEquals(PartKind.of("FID1"), PartKind.MARK);
    assertEquals(PartKind.of("BT1"), PartKind.CELL);
    assertEquals(PartKind.of("Foo9"), PartKind.OTHER);
    assertTrue(PartKind.TEST_POINT.bare());
  }

  private static Part part(String ref, String shape) {
    return new Part(
        ref,
        "",
        shape,
        "",
        "",
        true,
        false,
        List.of(),
        "",
        Optional.empty(),
        Double.NaN,
        Double.NaN);
  }

  @DataProvider
  Object[][] bodies() {
    return new Object[][] {
      // EIA size codes are hundredths of an inch; JEDEC MS-012 for the eight-lead body, from memory
      {"R1", "0603", 1.6, 0.8},
      {"R1", "R_0402_1005", 1.0, 0.5},
      {"C1", "CAP-1206", 3.2, 1.6},
      {"R1", "0805", 2.0, 1.25},
      {"U1", "SOIC-8", 3.9, 4.9},
      {"U1", "LQFP-48", 7.0, 7.0},
      {"M1", "MOD-19x18x9mm", 19.0, 18.0},
      {"C1", "RADIAL-6.3", 6.3, 6.3},
    };
  }

  @Test(dataProvider = "bodies")
  public void bodiesByPackage(String ref, String shape, double l, double w) {
    PackageShape s = PackageShape.of(part(ref, shape), List.of());
    assertEquals(s.lengthMm(), l, 0.01);
    assertEquals(s.widthMm(), w, 0.01);
    assertTrue(s.known());
  }

  @Test
  public void bodiesTurnWithTheirPart() {
    PackageShape s = PackageShape.of(part("R1", "1206"), List.of());
    double[] upright = s.boxAt(new Part.Spot(10, 20, 90, Side.FIRST));
    assertEquals(upright[2] - upright[0], 1.6, 1e-9);
    assertEquals(upright[3] - upright[1], 3.2, 1e-9);
  }

  @Test
  public void aRevisionLooksThingsUp() {
    Joint a =
        new Joint("R1", "1", "N1", 0, 0, Joint.Reach.FIRST, false, 0, true, 1, 1, 0, false, 0);
    Joint b = new Joint("R1", "2", "", 2, 0, Joint.Reach.FIRST, false, 0, true, 1, 1, 0, false, 0);
    Revision r =
        new Revision("D", "1", List.of(part("R1", "0603")), List.of(a, b), Outline.UNKNOWN);
    assertEquals(r.nets(), List.of("N1"));
    assertEquals(r.joint("R1", "2"), Optional.of(b));
    assertEquals(r.net("none"), List.of());
    assertEquals(r.joint("R1.2"), Optional.of(b));
    assertEquals(r.joint("R1"), Optional.empty());
    assertEquals(r.netAt("N1"), Optional.of("N1"));
    assertEquals(r.netAt("R1.1"), Optional.of("N1"));
    assertEquals(r.netAt("R1"), Optional.of("N1"), "all of its joints that are on one");
    assertEquals(r.netAt("R1.2"), Optional.empty());
    assertEquals(r.netAt("none.1"), Optional.empty());
    assertEquals(r.title(), "D rev 1");
    assertThrows(
        IllegalArgumentException.class,
        () ->
            new Revision(
                "D", "1", List.of(part("R1", ""), part("R1", "")), List.of(), Outline.UNKNOWN));
    assertThrows(
        IllegalArgumentException.class,
        () -> new Outline(List.of(List.of(new Outline.Point(0, 0), new Outline.Point(1, 1)))));
  }
}
