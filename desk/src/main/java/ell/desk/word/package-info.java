/// The language of the window: everything that it shows passes through one pane of glass.
package ell.desk.word;
