/// The demo's workspace as a file.
///
/// Open [ell.cli.demo.DemoWorkspaceCommand].
package ell.cli.demo;
