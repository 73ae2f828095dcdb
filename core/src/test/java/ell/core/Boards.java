package ell.core;

import ell.core.board.Joint;
import ell.core.board.Outline;
import ell.core.board.Part;
import ell.core.board.Revision;
import ell.core.board.Side;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// Builds small revisions for tests, a part at a time.
public final class Boards {
  private final List<Part> parts = new ArrayList<>();
  private final List<Joint> joints = new ArrayList<>();

  /// A part that is added to the board.
  public final class Placing {
    private final String reference;
    private String value = "v";
    private String shape = "0603";
    private String code;
    private String block = "";
    private String description = "";
    private List<String> alternates = List.of();
    private List<String> variants = List.of();
    private int spares;
    private boolean fitted = true;
    private boolean key;
    private Optional<Part.Spot> spot = Optional.empty();
    private double mass = Double.NaN;

    private Placing(String reference) {
      this.reference = reference;
      this.code = reference;
    }

    public Placing code(String c) {
      code = c;
      return this;
    }

    public Placing value(String v) {
      value = v;
      return this;
    }

    public Placing shape(String s) {
      shape = s;
      return this;
    }

    public Placing block(String b) {
      block = b;
      return this;
    }

    public Placing words(String d) {
      description = d;
      return this;
    }

    public Placing or(String... codes) {
      alternates = List.of(codes);
      return this;
    }

    public Placing in(String... names) {
      variants = List.of(names);
      return this;
    }

    public Placing spares(int n) {
      spares = n;
      return this;
    }

    public Placing off() {
      fitted = false;
      return this;
    }

    public Placing key() {
      key = true;
      return this;
    }

    public Placing grams(double g) {
      mass = g;
      return this;
    }

    public Placing at(double x, double y) {
      return at(x, y, 0, Side.FIRST);
    }

    public Placing at(double x, double y, double turned, Side side) {
      spot = Optional.of(new Part.Spot(x, y, turned, side));
      return this;
    }

    /// Pads on nets, 1 mm apart from the part's place on, each 1 mm square.
    public Boards pads(String... nets) {
      return joints(false, nets);
    }

    /// Plated holes on nets.
    public Boards holes(String... nets) {
      return joints(true, nets);
    }

    private Boards joints(boolean hole, String... nets) {
      Side side = spot.map(Part.Spot::side).orElse(Side.FIRST);
      for (int i = 0; i < nets.length; i++) {
        joints.add(
            new Joint(
                reference,
                String.valueOf(i + 1),
                nets[i],
                spot.map(Part.Spot::xMm).orElse(0.0) + i,
                spot.map(Part.Spot::yMm).orElse(0.0),
                hole
                    ? Joint.Reach.BOTH
                    : side == Side.FIRST ? Joint.Reach.FIRST : Joint.Reach.SECOND,
                hole,
                hole ? 1 : 0,
                true,
                1,
                1,
                0,
                false,
                0));
      }
      return done();
    }

    public Boards done() {
      parts.add(
          new Part(
              reference,
              value,
              shape,
              code,
              description,
              fitted,
              key,
              alternates,
              block,
              spot,
              mass,
              Double.NaN,
              variants,
              spares));
      return Boards.this;
    }
  }

  public Placing part(String reference) {
    return new Placing(reference);
  }

  public Revision revision() {
    return new Revision("T", "1", parts, joints, Outline.UNKNOWN);
  }
}
