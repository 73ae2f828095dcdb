/// Help in place: the page of what is selected, at the passage that speaks of it, with the words of
/// the trade that occur in it. The pages are those of the documentation and ship with the window.
package ell.desk.help;
