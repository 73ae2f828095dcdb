package ell.core.order;

/// How a build is soldered.
public enum Method {
  /// Paste by stencil, a plate or an oven for a side at a time.
  STENCIL_PLATE("stencil-plate"),
  /// Paste by needle, hot air block by block.
  HOT_AIR("hot-air"),
  /// Everything by iron, block by block.
  IRON("iron");

  private final String key;

  Method(String key) {
    this.key = key;
  }

  /// The method as a key in files and on the command line.
  public String key() {
    return key;
  }

  /// The method with this key.
  ///
  /// @throws IllegalArgumentException when there is none
  public static Method of(String key) {
    for (Method m : values()) {
      if (m.key.equals(key)) {
        return m;
      }
    }
    throw new IllegalArgumentException(
        "a method is stencil-plate, hot-air or iron, got '" + key + "'");
  }
}
