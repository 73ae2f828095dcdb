/// The domain of Ell: values and computations without input, output, clock or screen.
package ell.core;
