package ell.work.bring;

import ell.files.Source;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The files of one revision.
///
/// @param bom bill of materials, CSV
/// @param placement placement, CSV
/// @param netlist IPC-D-356A
/// @param outline edge of the board, CSV or a layer
/// @param shelf what lies on the shelf, CSV
/// @param ladder corrected power ladder, JSON
/// @param placeFromJoints whether a part that the placement lacks may be placed amid its joints
/// @param layers paste, legend and drill; the outline is not among them
/// @param columns which headings mean what, where somebody said it
public record ImportFiles(
    Source bom,
    Source placement,
    Source netlist,
    Optional<Source> outline,
    Optional<Source> shelf,
    Optional<Source> ladder,
    boolean placeFromJoints,
    Map<LayerKind, List<Source>> layers,
    ColumnChoice columns) {
  public ImportFiles {
    layers = Map.copyOf(layers);
  }

  /// Files whose columns nobody said anything about.
  public ImportFiles(
      Source bom,
      Source placement,
      Source netlist,
      Optional<Source> outline,
      Optional<Source> shelf,
      Optional<Source> ladder,
      boolean placeFromJoints,
      Map<LayerKind, List<Source>> layers) {
    this(
        bom,
        placement,
        netlist,
        outline,
        shelf,
        ladder,
        placeFromJoints,
        layers,
        ColumnChoice.NONE);
  }

  /// Files without layers.
  public ImportFiles(
      Source bom,
      Source placement,
      Source netlist,
      Optional<Source> outline,
      Optional<Source> shelf,
      Optional<Source> ladder,
      boolean placeFromJoints) {
    this(
        bom,
        placement,
        netlist,
        outline,
        shelf,
        ladder,
        placeFromJoints,
        Map.of(),
        ColumnChoice.NONE);
  }

  /// These files with headings that somebody gave a meaning.
  public ImportFiles with(ColumnChoice said) {
    return new ImportFiles(
        bom, placement, netlist, outline, shelf, ladder, placeFromJoints, layers, said);
  }
}
