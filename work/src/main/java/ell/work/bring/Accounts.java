package ell.work.bring;

import ell.files.Account;
import ell.files.Guess;
import ell.files.Problem;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// Gathers what is to be said of the files of a revision while they are read and held against each
/// other.
final class Accounts {
  private final Map<String, FileAccount> files = new LinkedHashMap<>();

  /// Takes what a reader said of a file.
  void take(String file, String kind, Account account) {
    files.merge(
        file + "\n" + kind,
        new FileAccount(file, kind, account),
        (a, b) -> new FileAccount(file, kind, a.account().and(b.account())));
  }

  /// Something to mind about a file that was read.
  void mind(String file, int line, int column, String message) {
    add(
        file,
        new Account(
            List.of(), List.of(), List.of(new Problem(file, line, column, message)), List.of()));
  }

  /// Something that was found in a file that was read.
  void found(String file, String what) {
    add(file, Account.NOTHING.finding(List.of(what)));
  }

  /// Something that a file did not say.
  void guess(Guess g) {
    add(g.file(), new Account(List.of(), List.of(g), List.of(), List.of()));
  }

  private void add(String file, Account more) {
    String key =
        files.keySet().stream()
            .filter(k -> k.startsWith(file + "\n"))
            .findFirst()
            .orElse(file + "\n");
    String kind = key.substring(file.length() + 1);
    take(file, kind, more);
  }

  List<FileAccount> list() {
    return new ArrayList<>(files.values());
  }
}
