/// The window worked by the program itself: pictures for the documentation, the offscreen demo.
///
/// Open [ell.desk.scripted.OffscreenDemo] first. What each stage does there stands in its station.
package ell.desk.scripted;
