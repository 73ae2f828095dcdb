/// How a practice goes, laid over the window.
package ell.desk.practice;
