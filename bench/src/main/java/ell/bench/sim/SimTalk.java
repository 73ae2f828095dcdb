package ell.bench.sim;

import ell.core.talk.Identity;
import ell.core.talk.TalkPlan;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;

/// What a board on the simulated bench can say, and what it holds before anybody loads it.
///
/// @param plan where its line, straps and memory are
/// @param stands how its links stand (true for closed) and what is plugged in, as its book has it
///   when it is laid down
/// @param firmware that it runs, empty when it is blank
/// @param knows what its memory holds
public record SimTalk(
    TalkPlan plan,
    Supplier<Map<String, Boolean>> stands,
    String firmware,
    Optional<Identity> knows) {}
