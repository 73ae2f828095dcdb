package ell.book;

import java.util.List;

/// A build: boards of a revision, made in one way.
///
/// @param id number in this workspace, rising
/// @param design of the revision
/// @param revision name
/// @param method `stencil-plate`, `hot-air` or `iron`
/// @param alloy a word, such as `sac305`
/// @param variant which parts are fitted, empty for the bill as it is
/// @param boards serials in order
public record Build(
    long id,
    String design,
    String revision,
    String method,
    String alloy,
    String variant,
    List<String> boards) {
  public Build {
    boards = List.copyOf(boards);
  }
}
