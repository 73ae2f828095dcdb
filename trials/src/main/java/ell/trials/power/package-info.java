/// First power tried on boards with faults and on healthy ones, in the model's own time.
///
/// Open [ell.trials.power.StagedTrial] first.
package ell.trials.power;
