/// Commands of the kit and the shelf.
///
/// Open [ell.cli.kit.KitCommand] first.
package ell.cli.kit;
