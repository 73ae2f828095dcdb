package ell.work.page;

import ell.work.word.Words;
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
    try (InputStream in = Shell.class.getResourceAsStream(path.substring(1))) {
      return in.readAllBytes();
    }
  }

  /// A whole page.
  ///
  /// @param body markup
  /// @param stamp of the workspace as it is shown, empty where nothing is shown
  static String page(Words words, String title, String body, String stamp) {
    return "<!doctype html>\n<html lang=\""
        + words.language().key()
        + "\"><head><meta charset=\"utf-8\">"
        + "<meta name=\"viewport\" content=\"width=device-width, initial-scale=1\">"
        + "<title>"
        + Html.text(words.shown(title))
        + " · ell</title><link rel=\"stylesheet\" href=\"/page.css\">"
        + "<script src=\"/page.js\" defer></script></head><body data-stamp=\""
        + Html.text(stamp)
        + "\" data-now=\""
        + Html.text(words.shown("as it is now"))
        + "\" data-old=\""
        + Html.text(words.shown("no answer from the bench: this may be old"))
        + "\"><header><span class=\"name\">ell</span><span id=\"age\" role=\"status\"></span>"
        + "</header><main>"
        + body
        + "</main></body></html>\n";
  }

  /// A page that says one thing.
  static String saying(Words words, String said) {
    return page(words, "ell", new Html(words).say("p", "", said).toString(), "");
  }

  /// The page that asks for the code.
  ///
  /// @param trouble why it asks again, empty at first
  static String asking(Words words, String trouble) {
    Html h = new Html(words);
    h.raw("<form method=\"post\" action=\"/code\">");
    h.say("h1", "", "Which code is shown at the bench?");
    h.raw("<label for=\"code\">" + Html.text(words.shown("six digits")) + "</label>");
    h.raw(
        "<input id=\"code\" name=\"code\" inputmode=\"numeric\" autocomplete=\"off\" autofocus"
            + " maxlength=\"12\">");
    h.say("button", "", "Show");
    if (!trouble.isEmpty()) {
      h.raw("<div role=\"alert\">").say("p", "care", trouble).raw("</div>");
    }
    return page(words, "Code", h.raw("</form>").toString(), "");
  }
}
