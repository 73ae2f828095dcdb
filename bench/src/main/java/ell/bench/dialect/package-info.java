/// How an instrument wants to be told: small files of command templates, one for each kind shipped.
///
/// Open [ell.bench.dialect.Dialect] first.
package ell.bench.dialect;
