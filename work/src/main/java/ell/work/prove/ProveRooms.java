package ell.work.prove;

import ell.work.act.Acts;
import ell.work.pulse.Captures;
import ell.work.talk.Recordings;
import ell.work.talk.Scripts;
import ell.work.talk.Talks;

/// What a run of a test plan works with.
public record ProveRooms(
    Acts acts,
    Proofs proofs,
    Captures captures,
    Talks talks,
    Recordings recordings,
    Scripts scripts) {}
