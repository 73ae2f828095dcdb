package ell.work.act;

/// Why an act was not done.
///
/// @param rule that refused it, as it is named in `override RULE WHY`
/// @param why a sentence without its stop
/// @param how it can be done all the same, a sentence
public record Refusal(String rule, String why, String how) {
  /// Both as one text.
  public String text() {
    return why + ". " + how;
  }
}
