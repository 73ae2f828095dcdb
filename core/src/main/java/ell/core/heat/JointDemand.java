package ell.core.heat;

import ell.core.board.Joint;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.quantity.Check;
import ell.core.quantity.Unit;
import ell.core.sheet.Worked;
import java.util.Comparator;
import java.util.List;
import java.util.Set;

/// How much heat a joint wants from an iron, what runs away meanwhile, and how long it takes to
/// wet: one body, heated through the tip and cooled through its copper.
///
/// `C·dT/dt = Gt·(Ttip − T) − Gl·(T − Ta)`, and the latent heat of the solder at the end. Heat
/// capacities: copper 385, tin 227 J/(kg·K), latent heat of tin 59 kJ/kg; copper conducts 390
/// W/(m·K). Tip conductances typical, no source.
///
/// @param capacity J/K, copper and solder
/// @param latent J
/// @param loss W/K through the copper
/// @param settles where it would settle, degree Celsius
/// @param seconds until it has wetted, infinite when it never does
public record JointDemand(
    double capacity, double latent, double loss, double settles, double seconds, Need need) {
  /// Where the numbers are from.
  public static final String SOURCE =
      "one body heated and cooled; heat capacities from memory of handbook tables; tips typical, no source";

  /// Longer on one pad loosens it from the board, second; typical, no source.
  public static final double DWELL = 4;

  private static final double COPPER_C = 385;
  private static final double TIN_C = 227;
  private static final double TIN_L = 59_000;
  private static final double COPPER_K = 390;
  private static final double COPPER_RHO = 8960;
  private static final double FOIL = 35e-6;
  private static final double AMBIENT = 25;

  /// What a joint wants.
  public enum Need {
    /// Under a second.
    LIGHT("light"),
    /// One to two and a half seconds.
    NORMAL("normal"),
    /// Up to the longest dwell.
    HEAVY("heavy"),
    /// Only with the board warmed, or a larger tip.
    PREHEAT("preheat");

    private final String key;

    Need(String key) {
      this.key = key;
    }

    /// The word in files and on screen.
    public String key() {
      return key;
    }
  }

  /// How a pad hangs on its net.
  public enum Tie {
    /// On a trace or two.
    TRACE,
    /// On a plane by four spokes.
    SPOKES,
    /// In the plane itself.
    PLANE;

    /// Heat that runs away, W/K: two traces 0.25 mm wide and 10 mm long; four spokes 0.3 mm by 0.5
    /// mm; a disc of copper from the pad out to 20 mm.
    double loss(double padMetre) {
      return switch (this) {
        case TRACE -> 2 * COPPER_K * 0.25e-3 * FOIL / 10e-3;
        case SPOKES -> 4 * COPPER_K * 0.3e-3 * FOIL / 0.5e-3;
        case PLANE ->
            2 * (2 * Math.PI * COPPER_K * FOIL / Math.log(20e-3 / Math.max(padMetre / 2, 1e-4)));
      };
    }
  }

  /// A tip of the iron.
  public enum Tip {
    /// Pointed.
    NEEDLE(0.03),
    /// A small bevel, the usual one.
    BEVEL(0.10),
    /// Broad.
    BLADE(0.20);

    private final double conductance;

    Tip(double conductance) {
      this.conductance = conductance;
    }

    /// W/K into a wetted joint; typical, no source.
    public double conductance() {
      return conductance;
    }
  }

  /// One joint as a body.
  ///
  /// @param pad diameter or length, metre
  /// @param hole diameter, metre; 0 for a surface joint
  /// @param lead diameter or thickness, metre
  /// @param board thickness, metre
  /// @throws IllegalArgumentException when pad is out of its range, hole is not in 0...0.05, lead
  ///   is not in 0...0.05 or board is out of its range
  public record Body(double pad, double hole, double lead, double board, Tie tie) {
    public Body {
      Check.inRange(pad, 1e-5, 0.1, "pad");
      Check.inRange(hole, 0, 0.05, "hole");
      Check.inRange(lead, 0, 0.05, "lead");
      Check.inRange(board, 1e-4, 0.02, "board");
    }

    double copper() {
      double pads = Math.PI / 4 * pad * pad * FOIL * (hole > 0 ? 2 : 1);
      double barrel = hole > 0 ? Math.PI * hole * 25e-6 * board : 0;
      double wire = Math.PI / 4 * lead * lead * (hole > 0 ? board + 3e-3 : 1e-3);
      return (pads + barrel + wire) * COPPER_RHO;
    }

    double solder(Alloy alloy) {
      double fill = hole > 0 ? Math.PI / 4 * Math.max(hole * hole - lead * lead, 0) * board : 0;
      return (fill + pad * pad * 0.15e-3) * alloy.density();
    }
  }

  /// Works it out.
  ///
  /// @param dial temperature of the tip, degree Celsius
  /// @param start temperature of the board before, degree Celsius
  /// @throws IllegalArgumentException when dial is not in 100...500 or start is not in -20...200
  public static JointDemand of(Body body, Alloy alloy, Tip tip, double dial, double start) {
    Check.inRange(dial, 100, 500, "dial");
    Check.inRange(start, -20, 200, "start");
    double solder = body.solder(alloy);
    double c = body.copper() * COPPER_C + solder * TIN_C;
    double latent = solder * TIN_L;
    double gl = body.tie().loss(body.pad());
    double gt = tip.conductance();
    double settles = (gt * dial + gl * start) / (gt + gl);
    double wet = alloy.liquidus() + 30;
    double seconds = Double.POSITIVE_INFINITY;
    double spare = gt * (dial - wet) - gl * (wet - start);
    if (settles > wet && spare > 0) {
      seconds = -c / (gt + gl) * Math.log(1 - (wet - start) / (settles - start)) + latent / spare;
    }
    Need need =
        seconds < 1
            ? Need.LIGHT
            : seconds <= 2.5 ? Need.NORMAL : seconds <= DWELL ? Need.HEAVY : Need.PREHEAT;
    return new JointDemand(c, latent, gl, settles, seconds, need);
  }

  /// The body that a joint of a netlist is taken for.
  ///
  /// @param planes nets that are planes, such as ground and the rails
  public static Body body(Revision revision, Joint j, Set<String> planes) {
    int others = revision.net(j.net()).size();
    Tie tie =
        !j.connected()
            ? Tie.TRACE
            : planes.contains(j.net()) || others >= 20 ? Tie.SPOKES : Tie.TRACE;
    double pad = Math.max(Math.max(j.widthMm(), j.heightMm()), Math.max(j.drillMm() + 0.5, 0.5));
    double hole = j.hole() ? Math.max(j.drillMm(), 0.3) : 0;
    double lead = j.hole() ? Math.max(hole - 0.25, 0.2) : 0.15;
    return new Body(
        Math.min(pad, 20) * 1e-3,
        Math.min(hole, 20) * 1e-3,
        Math.min(lead, 20) * 1e-3,
        1.6e-3,
        tie);
  }

  /// One pin in the order of soldering.
  public record Pin(Joint joint, JointDemand demand) {}

  /// The pins of a part in the order in which they are soldered: one light corner first that tacks
  /// it, then from the light ones in the middle outwards, the ones that want most heat last.
  public static List<Pin> order(
      Revision revision, Part part, Set<String> planes, Alloy alloy, Tip tip, double dial) {
    List<Joint> own = revision.jointsOf(part.reference());
    double x = own.stream().mapToDouble(Joint::xMm).average().orElse(0);
    double y = own.stream().mapToDouble(Joint::yMm).average().orElse(0);
    return own.stream()
        .map(j -> new Pin(j, of(body(revision, j, planes), alloy, tip, dial, AMBIENT)))
        .sorted(
            Comparator.comparing((Pin p) -> p.demand().need())
                .thenComparingDouble(
                    p -> Math.round(10 * Math.hypot(p.joint().xMm() - x, p.joint().yMm() - y)))
                .thenComparing(p -> p.joint().pin()))
        .toList();
  }

  /// What to set the iron to.
  ///
  /// @param heatings how often this pad was heated before
  /// @return degree Celsius, a start and no rule: liquidus + 135, and 15 less for each earlier
  ///   heating down to + 105
  public static double dial(Alloy alloy, int heatings) {
    return alloy.liquidus() + Math.max(105, 135 - 15 * Math.max(0, heatings));
  }

  /// The working.
  public Worked.Builder on(Worked.Builder s, Tip tip, double dial, Alloy alloy) {
    return s.line("C", "copper·385 + solder·227", capacity, "J/K")
        .line("latent", "solder · 59 kJ/kg", latent, Unit.JOULE)
        .line("runs away", "through its copper", loss, "W/K")
        .line("tip", "into the joint", tip.conductance(), "W/K")
        .line("settles", "(Gt·Ttip + Gl·Ta)/(Gt + Gl)", settles, Unit.CELSIUS)
        .line(
            "wets after",
            "−C/G·ln(1 − (Tw − Ta)/(Ts − Ta)) + latent, Tw = liquidus + 30 °C",
            Double.isInfinite(seconds)
                ? "never, without warming the board"
                : String.format(java.util.Locale.ROOT, "%.2g s", seconds))
        .line("class", "1 s, 2.5 s, 4 s", need.key())
        .line("dial", "liquidus + 120...150 °C, a start", dial, Unit.CELSIUS)
        .assume("alloy " + alloy.key() + "; spokes where the net is a plane; lead from the hole")
        .caution("Tip at 350 °C: burns. Fumes: extraction on, do not lean over it.")
        .caution("Longer than 4 s, or a fourth heating, loosens the pad from the board.");
  }
}
