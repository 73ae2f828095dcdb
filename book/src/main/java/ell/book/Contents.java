package ell.book;

import ell.core.board.Revision;
import ell.core.kit.ShelfLine;
import java.util.List;
import java.util.Map;

/// Everything that a workspace holds, for carrying it into another one.
///
/// @param revisions with the documents that are kept with them
/// @param builds in the order of their numbers, which count from 1
/// @param shelf as it was counted, not as it is folded
/// @param parameters of parts, name and value by code
/// @param keepsakes text by kind
/// @param entries of all boards in the order of their numbers, which count from 1
/// @param seal that the chain ends in
public record Contents(
    List<Kept> revisions,
    List<Build> builds,
    List<ShelfLine> shelf,
    Map<String, Map<String, String>> parameters,
    Map<String, String> keepsakes,
    List<Photograph> photographs,
    List<Written> entries,
    String seal) {
  /// A revision and its documents, text by kind.
  public record Kept(Revision revision, Map<String, String> documents) {}

  /// A photograph by the hash of its bytes.
  public record Photograph(String sha256, String name, byte[] body) {}
}
