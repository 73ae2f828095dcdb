/// Kit: can I start, and how far do I get. Open [ell.desk.kit.KitModel] first.
package ell.desk.kit;
