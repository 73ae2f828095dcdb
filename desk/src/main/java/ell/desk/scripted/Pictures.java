package ell.desk.scripted;

import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.Scene;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javax.imageio.ImageIO;

/// Takes pictures of a scene.
final class Pictures {
  private Pictures() {}

  /// Takes a picture as it is now; to be called on the interface thread.
  static BufferedImage take(Scene scene) {
    WritableImage image = scene.snapshot(null);
    int w = (int) image.getWidth();
    int h = (int) image.getHeight();
    int[] pixels = new int[w * h];
    image.getPixelReader().getPixels(0, 0, w, h, PixelFormat.getIntArgbInstance(), pixels, 0, w);
    BufferedImage out = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
    out.setRGB(0, 0, w, h, pixels, 0, w);
    return out;
  }

  /// Writes a picture as PNG.
  static void write(BufferedImage image, Path file) throws IOException {
    Files.createDirectories(file.toAbsolutePath().getParent());
    ImageIO.write(image, "png", file.toFile());
  }
}
