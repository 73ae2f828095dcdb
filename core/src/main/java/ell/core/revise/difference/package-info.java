/// What differs between two drawings of a design: parts and nets matched by what they join, though
/// they are called otherwise.
package ell.core.revise.difference;
