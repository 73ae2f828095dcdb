package ell.core.kit;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/// Shares stock among lines whose alternates overlap, so that as little as possible is missing.
///
/// A line takes its own code first. What it lacks comes from alternates, and where an alternate is
/// held by another line that could use something else, that line is moved over: a greatest flow
/// from stock to lines (augmenting paths, as in Ford and Fulkerson 1956), begun with each line on
/// its own stock, so that a line whose own code suffices is never sent to an alternate for nothing.
final class Pool {
  private final int[][] stockOf;
  private final long[] left;
  private final long[] open;
  private final List<long[]> flow = new ArrayList<>();
  private final List<List<int[]>> users;

  // of the path that is being looked for; marked with its number, so that nothing need be cleared
  private int round;
  private int[] seenStock;
  private int[] cameBy;
  private int[] cameAt;
  private int[] seenLine;
  private int[] lineFrom;
  private int[] lineAt;

  /// @param stockOf for each line the indexes of stock that it may use, its own first
  /// @param stock quantities, changed to what is left
  /// @param need by line
  Pool(int[][] stockOf, long[] stock, long[] need) {
    this.stockOf = stockOf;
    this.left = stock;
    this.open = need.clone();
    this.users = new ArrayList<>();
    boolean shared = Arrays.stream(stockOf).anyMatch(s -> s.length > 1);
    for (int[] s : stockOf) {
      flow.add(new long[s.length]);
    }
    for (int i = 0; i < stockOf.length; i++) {
      take(i, 0);
    }
    if (shared) {
      for (int i = 0; i < stockOf.length; i++) {
        for (int k = 1; k < stockOf[i].length && open[i] > 0; k++) {
          take(i, k);
        }
      }
      for (int s = 0; s < stock.length; s++) {
        users.add(new ArrayList<>(1));
      }
      for (int i = 0; i < stockOf.length; i++) {
        for (int k = 0; k < stockOf[i].length; k++) {
          users.get(stockOf[i][k]).add(new int[] {i, k});
        }
      }
      for (int i = 0; i < stockOf.length; i++) {
        while (open[i] > 0 && stockOf[i].length > 1 && augment(i)) {
          // one path more
        }
      }
    }
  }

  private void take(int line, int k) {
    if (stockOf[line].length > k) {
      long t = Math.min(open[line], left[stockOf[line][k]]);
      flow.get(line)[k] += t;
      left[stockOf[line][k]] -= t;
      open[line] -= t;
    }
  }

  /// Finds a way from a short line to stock that is left, over lines that can change theirs.
  private boolean augment(int from) {
    if (cameBy == null) {
      cameBy = new int[left.length];
      cameAt = new int[left.length];
      seenStock = new int[left.length];
      lineFrom = new int[stockOf.length];
      lineAt = new int[stockOf.length];
      seenLine = new int[stockOf.length];
    }
    round++;
    ArrayDeque<Integer> lines = new ArrayDeque<>(List.of(from));
    seenLine[from] = round;
    while (!lines.isEmpty()) {
      int i = lines.poll();
      for (int k = 0; k < stockOf[i].length; k++) {
        int s = stockOf[i][k];
        if (seenStock[s] == round) {
          continue;
        }
        seenStock[s] = round;
        cameBy[s] = i;
        cameAt[s] = k;
        if (left[s] > 0) {
          push(from, s);
          return true;
        }
        for (int[] u : users.get(s)) {
          if (seenLine[u[0]] != round && flow.get(u[0])[u[1]] > 0) {
            seenLine[u[0]] = round;
            lineFrom[u[0]] = s;
            lineAt[u[0]] = u[1];
            lines.add(u[0]);
          }
        }
      }
    }
    return false;
  }

  private void push(int from, int end) {
    long amount = Math.min(open[from], left[end]);
    for (int s = end; cameBy[s] != from; s = lineFrom[cameBy[s]]) {
      amount = Math.min(amount, flow.get(cameBy[s])[lineAt[cameBy[s]]]);
    }
    left[end] -= amount;
    open[from] -= amount;
    for (int s = end; ; s = lineFrom[cameBy[s]]) {
      int i = cameBy[s];
      flow.get(i)[cameAt[s]] += amount;
      if (i == from) {
        return;
      }
      flow.get(i)[lineAt[i]] -= amount;
    }
  }

  /// What is missing, by line.
  long[] missing() {
    return open;
  }

  /// What a line takes of stock that is not its own code.
  long fromAlternates(int line) {
    long sum = 0;
    for (int k = 1; k < flow.get(line).length; k++) {
      sum += flow.get(line)[k];
    }
    return sum;
  }
}
