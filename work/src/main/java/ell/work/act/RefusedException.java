package ell.work.act;

import ell.work.space.ActException;

/// An act was refused by a rule of the work; nothing was changed.
public final class RefusedException extends ActException {
  private final transient Refusal refusal;

  /// The refusal as an exception.
  public RefusedException(Refusal refusal) {
    super(refusal.text());
    this.refusal = refusal;
  }

  /// Which rule, why, and how it can be done all the same.
  public Refusal refusal() {
    return refusal;
  }
}
