/// Look: joint by joint under the lens, one key for each outcome, rates over the boards. Open
/// [ell.desk.look.LookModel] first.
package ell.desk.look;
