/// How fast captures are read, measured and drawn.
package ell.trials.pulse;
