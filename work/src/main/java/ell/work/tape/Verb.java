package ell.work.tape;

import ell.core.rack.Stage;
import java.util.List;
import java.util.Optional;

/// A word of the tape: what it is called, how a line with it is built, what it means, and what may
/// come next. The tape, the sheet of keys, the command line's help and the page on the book are all
/// made from the lists of verbs.
///
/// @param stage that it belongs to, empty for words that belong to none
/// @param words any of which it is called by; empty when it is known by its form alone
/// @param afterPlace whether a place stands before it
/// @param grammar of the line, in capitals what is put in
/// @param examples as they could be typed, at least one
/// @param means what is logged, in a few words
/// @param reads understands the line; empty when it is not this verb's, which only a verb without
///   words may say
/// @param offers what could stand behind the word, whole
public record Verb(
    Optional<Stage> stage,
    List<String> words,
    boolean afterPlace,
    String grammar,
    List<String> examples,
    String means,
    Reads reads,
    Offers offers) {
  /// Understands a line.
  public interface Reads {
    /// What it means.
    Optional<Meaning> read(Said said);
  }

  /// Completes a line.
  public interface Offers {
    /// What could stand behind the word, whole; the tape keeps what fits.
    List<String> of(Tape tape);
  }

  /// What a verb with a word understands.
  public interface Worded {
    /// What it means.
    Meaning read(Said said);
  }

  public Verb {
    words = List.copyOf(words);
    examples = List.copyOf(examples);
  }

  /// A verb that begins a line.
  public static Verb first(
      String words, String grammar, String means, Worded reads, String... examples) {
    return of(words, false, grammar, means, reads, examples);
  }

  /// A verb that stands behind a place.
  public static Verb at(
      String words, String grammar, String means, Worded reads, String... examples) {
    return of(words, true, grammar, means, reads, examples);
  }

  /// A verb that is known by its form and stands behind a place.
  public static Verb form(String grammar, String means, Reads reads, String... examples) {
    return new Verb(
        Optional.empty(),
        List.of(),
        true,
        grammar,
        List.of(examples),
        means,
        reads,
        _ -> List.of());
  }

  private static Verb of(
      String words,
      boolean afterPlace,
      String grammar,
      String means,
      Worded reads,
      String... examples) {
    return new Verb(
        Optional.empty(),
        List.of(words.split("\\|")),
        afterPlace,
        grammar,
        List.of(examples),
        means,
        s -> Optional.of(reads.read(s)),
        _ -> List.of());
  }

  /// The same verb, of a stage.
  public Verb of(Stage s) {
    return new Verb(Optional.of(s), words, afterPlace, grammar, examples, means, reads, offers);
  }

  /// The same verb, which knows what could come next.
  public Verb offering(Offers what) {
    return new Verb(stage, words, afterPlace, grammar, examples, means, reads, what);
  }
}
