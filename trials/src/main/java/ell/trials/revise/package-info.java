/// Timings of what is worked out over revisions.
package ell.trials.revise;
