package ell.cli.shell;

import java.io.StringWriter;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.PrettyPrinter;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultPrettyPrinter;
import tools.jackson.databind.JsonNode;

/// A tree of JSON as indented text, by the generator alone: the mapper, which a tree would call for
/// it, takes longer to wake than a sum to work.
public final class JsonText {
  private static final JsonFactory FACTORY = new JsonFactory();

  private JsonText() {}

  /// Writes it, without a new line at its end.
  public static String of(JsonNode tree) {
    StringWriter text = new StringWriter();
    try (JsonGenerator g = FACTORY.createGenerator(new Indented(), text)) {
      write(g, tree);
    }
    return text.toString();
  }

  private static void write(JsonGenerator g, JsonNode n) {
    switch (n.getNodeType()) {
      case OBJECT -> {
        g.writeStartObject();
        n.properties()
            .forEach(p -> {
              g.writeName(p.getKey());
              write(g, p.getValue());
            });
        g.writeEndObject();
      }
      case ARRAY -> {
        g.writeStartArray();
        n.forEach(e -> write(g, e));
        g.writeEndArray();
      }
      case STRING -> g.writeString(n.stringValue());
      case BOOLEAN -> g.writeBoolean(n.booleanValue());
      case NUMBER -> number(g, n);
      case null, default -> g.writeNull();
    }
  }

  private static void number(JsonGenerator g, JsonNode n) {
    if (n.isBigInteger()) {
      g.writeNumber(n.bigIntegerValue());
    } else if (n.isBigDecimal()) {
      g.writeNumber(n.decimalValue());
    } else if (n.isFloat()) {
      g.writeNumber(n.floatValue());
    } else if (n.isIntegralNumber()) {
      g.writeNumber(n.longValue());
    } else {
      g.writeNumber(n.doubleValue());
    }
  }

  /// Asks for indents, and for nothing else.
  private static final class Indented extends ObjectWriteContext.Base {
    @Override
    public PrettyPrinter getPrettyPrinter() {
      return new DefaultPrettyPrinter();
    }

    @Override
    public boolean hasPrettyPrinter() {
      return true;
    }
  }
}
