package ell.core.talk;

/// The line over which a controller is loaded and spoken to.
///
/// @param controller its reference
/// @param tx joint `part.pin` at which it speaks; of a USB pair, the one of the two
/// @param rx joint at which it hears; of a USB pair, the other
/// @param heardAt place (net or joint) at which the cable hears it
/// @param spokenAt place at which the cable speaks to it
/// @param baud bits a second, 0 where it does not matter
/// @param usb whether it is a USB pair, of which both are needed for either way
/// @param guessed whether nobody said so
public record SerialPort(
    String controller,
    String tx,
    String rx,
    String heardAt,
    String spokenAt,
    int baud,
    boolean usb,
    boolean guessed) {
  /// What a console is set to by custom; common practice, no source.
  public static final int USUAL_BAUD = 115_200;
}
