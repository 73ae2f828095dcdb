/// The tape: what a typed line means.
///
/// In: a line and the state of a board. Out: [ell.work.tape.Meaning]. Open [ell.work.tape.Tape]
/// first, then [ell.work.tape.Verb]. The words themselves stand with the stages.
package ell.work.tape;
