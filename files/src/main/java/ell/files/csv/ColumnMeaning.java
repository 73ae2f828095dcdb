package ell.files.csv;

import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/// What a column is about, with the headings that people give it (lower case, letters and digits
/// only).
enum ColumnMeaning {
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
  EXPIRY("expiry", "expires", "expirydate", "bestbefore", "usebefore"),
  KIND("kind", "shelfkind"),
  VARIANTS("variant", "variants", "fittedin"),
  SPARES("spares", "sparequantity", "spareparts"),
  AVAILABLE("available", "availability", "availablequantity"),
  SELLER("seller", "supplier", "vendor", "shop", "distributor", "source", "from"),
  PACK(
      "pack",
      "packsize",
      "packing",
      "multiple",
      "packquantity",
      "packqty",
      "ordermultiple",
      "perpack"),
  LEAST("moq", "minimum", "minorder", "minimumorder", "minimumquantity", "minqty", "least"),
  PRICES("pricebreaks", "prices", "breaks", "pricelist", "tiers", "pricetiers", "pricebreak"),
  BREAK("breakquantity", "break", "fromquantity", "breakqty", "pricefrom"),
  DAYS("days", "leadtime", "leaddays", "leadtimedays", "deliverydays", "lead", "deliversin"),
  SHIPPING("shipping", "shippingcost", "postage", "freight", "carriage", "shippingprice"),
  SHIPS_WITH("shipswith", "combinedwith", "sharedwith", "sharesshippingwith", "shippedwith"),
  FAMILY("family"),
  LENGTH("length"),
  WIDTH("width"),
  HEIGHT("height"),
  PARAMETER("parameter", "param", "property", "attribute");

  private static final int LONGEST = 60;
  private static final Pattern OTHER = Pattern.compile("[^a-z0-9]");
  private static final Pattern UNIT_WORD =
      Pattern.compile("((?:pos|mid|center|centre|ref|location)?[xy])(?:mm|mils?|inch|in|um)");
  private static final Pattern UNIT = Pattern.compile("[(\\[]\\s*([a-zA-Zµμ°]+)\\s*[)\\]]");
  private final List<String> names;

  ColumnMeaning(String... names) {
    this.names = List.of(names);
  }

  /// Whether a heading, brought to its key, means this.
  boolean isKey(String key) {
    return names.contains(key);
  }

  /// A heading without its unit, lower case, letters and digits only.
  static String key(String heading) {
    if (heading.length() > LONGEST) {
      return ""; // no heading is that long
    }
    String h = UNIT.matcher(heading).replaceAll("").toLowerCase(Locale.ROOT);
    h = OTHER.matcher(h).replaceAll("");
    // headings such as `X mm` carry the unit as a word
    Matcher word = UNIT_WORD.matcher(h);
    return word.matches() ? word.group(1) : h;
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
