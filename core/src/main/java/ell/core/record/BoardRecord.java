package ell.core.record;

import java.util.List;
import java.util.Optional;

/// The record of one board, or of a build or a lot of them.
///
/// @param kind what it is: `board record`, `build record` or `certificate`
/// @param board what it is about, such as `Board 07` or `Build 3`
/// @param revision design and revision as one phrase
/// @param build method and alloy in words
/// @param standing the phrase of its state
/// @param printed up to which entry of the book it speaks, and of when that is
/// @param seal where the book ends: how many entries, a colon, the hash of the last, hexadecimal
/// @param sections open findings first, then what each stage has to say, the book last
public record BoardRecord(
    String kind,
    String board,
    String revision,
    String build,
    String standing,
    String printed,
    String seal,
    List<Section> sections) {
  public BoardRecord {
    sections = List.copyOf(sections);
  }

  /// The section with a title.
  public Optional<Section> section(String title) {
    return sections.stream().filter(s -> s.title().equals(title)).findFirst();
  }
}
