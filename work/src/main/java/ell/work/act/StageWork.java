package ell.work.act;

import ell.core.rack.Stage;
import java.util.List;
import java.util.Map;

/// A stage as the workshop sees it: the rules that it holds, what its entries bring with them, and
/// how an export writes what it keeps. The words that the tape knows of it stand in its list of
/// verbs.
public interface StageWork {
  /// Which stage.
  Stage stage();

  /// Rules of the work that it holds.
  default List<Rule> rules() {
    return List.of();
  }

  /// What its entries bring with them.
  default List<Companion> companions() {
    return List.of();
  }

  /// To which other boards its entries happen as well.
  default List<Sharing> sharings() {
    return List.of();
  }

  /// Endings of the files in which an export writes what the stage keeps beside the book, by kind
  /// of what is kept, or by the first word of it. What no stage names is written as text all the
  /// same.
  default Map<String, String> keeps() {
    return Map.of();
  }
}
