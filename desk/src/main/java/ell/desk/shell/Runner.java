package ell.desk.shell;

import java.util.concurrent.Executor;

/// Where work runs: book and files on one thread that may wait, results on the interface thread.
///
/// @param worker for work that may wait, in order
/// @param aside for long work that must not hold up the worker, such as first power
/// @param ui for everything that is shown
public record Runner(Executor worker, Executor aside, Executor ui) {}
