/// Printed pages: records, profiles, labels.
///
/// Open [ell.files.pdf.RecordPdf] first; [ell.files.pdf.PdfPage] sets text and lines.
package ell.files.pdf;
