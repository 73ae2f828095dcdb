/// Practice workspaces: a revision, a build that was just assembled, and faults that are hidden in
/// it.
package ell.work.practice;
