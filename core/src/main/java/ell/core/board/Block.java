package ell.core.board;

import java.util.List;

/// A block of a revision: parts that are built together and proved by one gate.
///
/// @param name a word, such as `supply`
/// @param gate the name of the test that must hold before the next block is built
/// @param question what the gate asks, for the step card
/// @param parts references, in no order
public record Block(String name, String gate, String question, List<String> parts) {
  public Block {
    if (name.isBlank() || gate.isBlank()) {
      throw new IllegalArgumentException("a block needs a name and a gate");
    }
    parts = List.copyOf(parts);
  }
}
