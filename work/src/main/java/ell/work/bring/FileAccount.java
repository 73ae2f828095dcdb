package ell.work.bring;

import ell.files.Account;

/// What was found, guessed and passed over in one file of a revision.
///
/// @param file its name
/// @param kind what it was taken for, in words
public record FileAccount(String file, String kind, Account account) {}
