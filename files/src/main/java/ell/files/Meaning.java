package ell.files;

import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;

/// What a column is about, with the headings that people give it (lower case, letters and digits
/// only).
enum Meaning {
  REFERENCE(
      "reference",
      "references",
      "refdes",
      "designator",
      "designators",
      "ref",
      "refs",
      "part",
      "parts",
      "component",
      "components",
      "referencedesignator",
      "referencedesignators",
      "partref",
      "reference s"),
  QUANTITY(
      "quantity",
      "qty",
      "count",
      "amount",
      "qnty",
      "pcs",
      "onhand",
      "stock",
      "instock",
      "quantityperboard",
      "qtyperboard"),
  VALUE("value", "val", "comment", "nominal"),
  PACKAGE(
      "package",
      "footprint",
      "case",
      "pattern",
      "pkg",
      "housing",
      "casesize",
      "landpattern",
      "body"),
  CODE(
      "code",
      "partnumber",
      "housecode",
      "pn",
      "mpn",
      "partno",
      "partnr",
      "sku",
      "ipn",
      "article",
      "stockcode",
      "partcode",
      "itemcode",
      "manufacturerpartnumber",
      "mfrpart",
      "mfrpartnumber",
      "ordercode",
      "item"),
  FITTED("fitted", "fit", "populate", "populated", "mounted", "mount", "place", "assemble"),
  NOT_FITTED(
      "dnp", "dnf", "donotplace", "donotfit", "donotpopulate", "nofit", "notfitted", "nopop"),
  ALTERNATES(
      "alternates", "alternate", "alternatives", "alternative", "alt", "substitutes", "substitute"),
  KEY("key", "keypart", "critical"),
  BLOCK("block", "group", "buildblock"),
  DESCRIPTION("description", "desc", "details", "what"),
  COST("cost", "unitcost", "price", "unitprice"),
  MASS("mass", "weight", "massg"),
  X(
      "x",
      "midx",
      "posx",
      "centerx",
      "centrex",
      "xpos",
      "refx",
      "locationx",
      "xlocation",
      "xcenter",
      "xcentre",
      "xmid",
      "xcoord",
      "xcoordinate",
      "xposition",
      "positionx"),
  Y(
      "y",
      "midy",
      "posy",
      "centery",
      "centrey",
      "ypos",
      "refy",
      "locationy",
      "ylocation",
      "ycenter",
      "ycentre",
      "ymid",
      "ycoord",
      "ycoordinate",
      "yposition",
      "positiony"),
  ROTATION("rotation", "rot", "angle", "orientation", "theta", "rotate", "rotationdeg"),
  SIDE("side", "layer", "tb", "face", "boardside", "topbottom", "mountside"),
  LOOP("loop", "shape", "contour"),
  BIN("bin", "location", "drawer", "box", "place", "shelf"),
  ON_ORDER("onorder", "ordered", "incoming", "underway", "qtyonorder"),
  EXPECTED(
      "expected", "due", "eta", "arrives", "expecteddate", "delivery", "duedate", "deliverydate"),
  EXPIRY("expiry", "expires", "expirydate", "bestbefore", "usebefore");

  private static final Pattern UNIT = Pattern.compile("[(\\[]\\s*([a-zA-Zµμ°]+)\\s*[)\\]]");
  private final List<String> names;

  Meaning(String... names) {
    this.names = List.of(names);
  }

  boolean is(String heading) {
    return names.contains(key(heading));
  }

  /// A heading without its unit, lower case, letters and digits only.
  static String key(String heading) {
    String h = UNIT.matcher(heading).replaceAll("").toLowerCase(Locale.ROOT);
    h = h.replaceAll("[^a-z0-9]", "");
    // headings such as `X mm` carry the unit as a word
    return h.matches("(pos|mid|center|centre|ref|location)?[xy](mm|mil|mils|inch|in|um)")
        ? h.replaceAll("(mm|mils?|inch|in|um)$", "")
        : h;
  }

  /// The unit that a heading states in brackets or as its last word, empty when none.
  static String unit(String heading) {
    var m = UNIT.matcher(heading);
    if (m.find()) {
      return m.group(1).toLowerCase(Locale.ROOT);
    }
    var w =
        Pattern.compile("[\\s_](mm|mils?|inch|in|um)$")
            .matcher(heading.strip().toLowerCase(Locale.ROOT));
    return w.find() ? w.group(1) : "";
  }
}
