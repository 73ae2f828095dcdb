/// What every command has: the workspace, which board or build is meant, how results are shown as
/// text and as JSON, exit codes.
///
/// Open [ell.cli.shell.WorkspaceCommand] first.
package ell.cli.shell;
