/// Lines, links, pins and chains in the window.
package ell.desk.talk;
