/// A test jig for a revision: whether it is worth its hours, where probes land, what presses
/// against them, how the board bends, what is drilled, which patterns find which shorts. In go a
/// revision, its bare holes and vias, and a [JigSetup]; out comes a [JigPlan]. Open first:
/// [JigMaker].
package ell.core.jig;
