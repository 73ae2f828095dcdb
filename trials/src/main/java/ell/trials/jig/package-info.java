/// How fast jigs are planned, and how far what is not proven may be from the best.
package ell.trials.jig;
