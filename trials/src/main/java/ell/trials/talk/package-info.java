/// How fast lines are kept, operations ordered and pins matched.
package ell.trials.talk;
