/// May this part be fitted instead: parameter by parameter against what the circuit needs, not
/// against the part that was drawn.
///
/// In come a revision with its ladder, a part, and what is known of a candidate; out comes a
/// [ell.core.kit.substitute.Substitution]. Open that first. What is not known never passes.
package ell.core.kit.substitute;
