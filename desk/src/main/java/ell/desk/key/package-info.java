/// What the interface can do: one command object each, with its key, its words and when it is
/// there. Keys, the sheet of keys and the tests all use the same list.
///
/// Open [ell.desk.key.Command] first.
package ell.desk.key;
