package ell.files;

/// Something about a file: an error, a warning, or a thing that was passed over.
///
/// @param file name of the file
/// @param line 1-based, 0 when it is about the whole file
/// @param column 1-based, 0 when it is about the whole line; in CSV the number of the cell, in
///   fixed-column files the column of the line
/// @param message what was read and what was expected
public record Problem(String file, int line, int column, String message) {
  @Override
  public String toString() {
    StringBuilder s = new StringBuilder(file);
    if (line > 0) {
      s.append(", line ").append(line);
    }
    if (column > 0) {
      s.append(", column ").append(column);
    }
    return s.append(": ").append(message).toString();
  }
}
