package ell.core.json;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.core.JacksonException;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.json.JsonFactory;

/// A JSON object as it was read (RFC 8259). Asking for something that is not there, or is of
/// another kind, throws an [IllegalArgumentException] that names the place, such as
/// `steps[2].kind`.
public final class JsonObject {
  private static final JsonFactory FACTORY = new JsonFactory();

  private final Map<String, Object> values;
  private final String at;

  private JsonObject(Map<String, Object> values, String at) {
    this.values = values;
    this.at = at;
  }

  /// Reads an object.
  ///
  /// @param what for messages, such as `a power ladder`
  public static JsonObject parse(String json, String what) {
    try (JsonParser p = FACTORY.createParser(ObjectReadContext.empty(), json)) {
      if (p.nextToken() != JsonToken.START_OBJECT) {
        throw new IllegalArgumentException(what + " is a JSON object");
      }
      Map<String, Object> values = object(p);
      if (p.nextToken() != null) {
        throw new IllegalArgumentException(what + " ends, and more text follows");
      }
      return new JsonObject(values, "");
    } catch (JacksonException e) {
      throw new IllegalArgumentException(
          "not JSON"
              + (e.getLocation() == null ? "" : " at line " + e.getLocation().getLineNr())
              + ": "
              + e.getOriginalMessage());
    }
  }

  private static Map<String, Object> object(JsonParser p) {
    Map<String, Object> values = new LinkedHashMap<>();
    String name;
    while ((name = p.nextName()) != null) {
      p.nextToken();
      values.put(name, value(p));
    }
    return values;
  }

  private static Object value(JsonParser p) {
    return switch (p.currentToken()) {
      case START_OBJECT -> object(p);
      case START_ARRAY -> {
        List<Object> list = new ArrayList<>();
        while (p.nextToken() != JsonToken.END_ARRAY) {
          list.add(value(p));
        }
        yield list;
      }
      case VALUE_STRING -> p.getString();
      case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> p.getDoubleValue();
      case VALUE_TRUE -> Boolean.TRUE;
      case VALUE_FALSE -> Boolean.FALSE;
      default -> Map.of(); // null: as good as not there
    };
  }

  /// Names, in the order of the text.
  public Set<String> keys() {
    return Collections.unmodifiableSet(values.keySet());
  }

  /// Whether something is there under this name.
  public boolean has(String key) {
    return values.containsKey(key);
  }

  /// A word or sentence.
  public String text(String key) {
    if (values.get(key) instanceof String s) {
      return s;
    }
    throw wrong(key, "words");
  }

  /// A word or sentence, or another when there is none.
  public String text(String key, String otherwise) {
    return has(key) ? text(key) : otherwise;
  }

  /// A number, finite.
  public double number(String key) {
    if (values.get(key) instanceof Double d && Double.isFinite(d)) {
      return d;
    }
    throw wrong(key, "a number");
  }

  /// A number, or another when there is none.
  public double number(String key, double otherwise) {
    return has(key) ? number(key) : otherwise;
  }

  /// Yes or no, no when nothing is there.
  public boolean flag(String key) {
    return Boolean.TRUE.equals(values.get(key));
  }

  /// Yes or no, or another when nothing is there.
  public boolean flag(String key, boolean otherwise) {
    return has(key) ? flag(key) : otherwise;
  }

  /// An object, an empty one when nothing is there.
  public JsonObject object(String key) {
    if (!has(key)) {
      return new JsonObject(Map.of(), path(key));
    }
    return nested(values.get(key), path(key));
  }

  /// A list of objects, an empty one when nothing is there.
  public List<JsonObject> objects(String key) {
    List<JsonObject> found = new ArrayList<>();
    for (Object o : list(key)) {
      found.add(nested(o, path(key) + "[" + found.size() + "]"));
    }
    return found;
  }

  /// Whether a list begins with words.
  public boolean ofWords(String key) {
    return list(key).stream().findFirst().filter(String.class::isInstance).isPresent();
  }

  /// A list of words, an empty one when nothing is there.
  ///
  /// @throws IllegalArgumentException when one of the list is no words, with its path
  public List<String> words(String key) {
    List<String> found = new ArrayList<>();
    for (Object o : list(key)) {
      if (!(o instanceof String s)) {
        throw new IllegalArgumentException(path(key) + "[" + found.size() + "]: expected words");
      }
      found.add(s);
    }
    return found;
  }

  /// A list of numbers, an empty one when nothing is there.
  ///
  /// @throws IllegalArgumentException when one of the list is no number, with its path
  public List<Double> numbers(String key) {
    List<Double> found = new ArrayList<>();
    for (Object o : list(key)) {
      if (!(o instanceof Double d) || !Double.isFinite(d)) {
        throw new IllegalArgumentException(path(key) + "[" + found.size() + "]: expected a number");
      }
      found.add(d);
    }
    return found;
  }

  private List<?> list(String key) {
    Object o = values.getOrDefault(key, List.of());
    if (o instanceof List<?> l) {
      return l;
    }
    throw wrong(key, "a list");
  }

  private static JsonObject nested(Object o, String at) {
    if (o instanceof Map<?, ?> m) {
      Map<String, Object> values = new LinkedHashMap<>();
      m.forEach((k, v) -> values.put((String) k, v));
      return new JsonObject(values, at);
    }
    throw new IllegalArgumentException(at + ": expected an object");
  }

  private String path(String key) {
    return at.isEmpty() ? key : at + "." + key;
  }

  /// A problem with what stands under a name.
  public IllegalArgumentException wrong(String key, String expected) {
    return new IllegalArgumentException(path(key) + ": expected " + expected);
  }
}
