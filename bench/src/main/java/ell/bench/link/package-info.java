/// Links that carry lines to instruments and back, each call within its time-out.
///
/// Open [ell.bench.link.ScpiLink] first.
package ell.bench.link;
