package ell.work.page;

import java.io.IOException;
import java.io.InputStream;
import java.util.Map;

/// What stands around every page, and the files beside it: style and the few lines that take a page
/// anew when somebody wrote.
final class Shell {
  /// The kind of each file by its path.
  static final Map<String, String> FILES =
      Map.of("/page.css", "text/css; charset=utf-8", "/page.js", "text/javascript; charset=utf-8");

  private Shell() {}

  static byte[] file(String path) throws IOException {
    try (InputStream in = Shell.class.getResourceAsStream("/ell/work/page" + path)) {
      return in.readAllBytes();
    }
  }

  /// A whole page.
  ///
  /// @param body markup
  /// @param stamp of the workspace as it is shown, empty where nothing is shown
  static String page(String title, String body, String stamp) {
    return "<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\">"
        + "<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">"
        + "<title>"
        + Html.text(title)
        + " · ell</title><link rel=\"stylesheet\" href=\"/page.css\">"
        + "<script src=\"/page.js\" defer></script></head><body data-stamp=\""
        + Html.text(stamp)
        + "\"><header><span class=\"name\">ell</span><span id=\"age\" role=\"status\"></span>"
        + "</header><main>"
        + body
        + "</main></body></html>\n";
  }

  /// The page that asks for the code.
  static String asking(String trouble) {
    return page(
        "Code",
        "<form method=\"post\" action=\"/code\"><h1>Which code is shown at the bench?</h1>"
            + "<label for=\"code\">six digits</label>"
            + "<input id=\"code\" name=\"code\" inputmode=\"numeric\" autocomplete=\"off\""
            + " autofocus maxlength=\"12\">"
            + "<button>Look</button>"
            + (trouble.isEmpty()
                ? ""
                : "<p class=\"care\" role=\"alert\">" + Html.text(trouble) + "</p>")
            + "</form>",
        "");
  }
}
