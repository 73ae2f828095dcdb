/// What stands around every stage: the rule with its pegs and cursor, the rack, the margin, the
/// tape.
///
/// In: the desk's snapshot. Out: nodes, and acts on the desk. Open [ell.desk.shell.DeskModel]
/// first; the models know no nodes.
package ell.desk.shell;
