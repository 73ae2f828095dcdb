package ell.files;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;

/// Something that can be read, more than once, under a name that problems carry.
public interface Source {
  /// The name, as a person knows it.
  String name();

  /// Opens it from the start.
  ///
  /// @throws IOException when it is not there or cannot be read
  InputStream open() throws IOException;

  /// A file.
  static Source of(Path file) {
    return new Source() {
      @Override
      public String name() {
        return file.getFileName().toString();
      }

      @Override
      public InputStream open() throws IOException {
        if (Files.isDirectory(file)) {
          throw new IOException(file + " is a folder, expected a file");
        }
        if (Files.exists(file) && !Files.isRegularFile(file)) {
          throw new IOException(file + " is a pipe or a device, expected a plain file");
        }
        return Files.newInputStream(file);
      }
    };
  }

  /// Bytes in memory.
  static Source of(String name, byte[] bytes) {
    return new Source() {
      @Override
      public String name() {
        return name;
      }

      @Override
      public InputStream open() {
        return new ByteArrayInputStream(bytes);
      }
    };
  }

  /// Text in memory.
  static Source of(String name, String text) {
    return of(name, text.getBytes(StandardCharsets.UTF_8));
  }
}
