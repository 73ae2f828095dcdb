/// How sure
///
/// Pure computation on immutable values in, immutable values out. Open [ell.core.prove. intervals
/// and trials for counts of failures.:Counts] first. Knows nothing of files, stores, instruments or
/// screens.
package ell.core.prove;
