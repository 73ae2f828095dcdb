/// Proof in the window: a board goes through its test plan, one thing to do or see at a time; over
/// the build, each test with every board on its limit strip. Open first: [ProveStation].
package ell.desk.prove;
