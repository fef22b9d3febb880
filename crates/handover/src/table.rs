//! Tables as CSV (RFC 4180): lines end in CR LF, and no cell runs as a formula.

use csv::{Terminator, Writer, WriterBuilder};
use fogon_core::document::as_cell;

/// Rows in memory: writing them does not fail.
pub(crate) struct Table<const N: usize>(Writer<Vec<u8>>);

impl<const N: usize> Table<N> {
    /// A table with its head.
    pub(crate) fn new(head: [&str; N]) -> Self {
        let mut table = Self(WriterBuilder::new().terminator(Terminator::CRLF).from_writer(Vec::new()));
        table.row(head);
        table
    }

    pub(crate) fn row(&mut self, fields: [&str; N]) {
        let _ = self.0.write_record(fields.map(as_cell).iter().map(|cell| cell.as_bytes()));
    }

    /// The whole table.
    pub(crate) fn text(self) -> String {
        String::from_utf8(self.0.into_inner().unwrap_or_default()).unwrap_or_default()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn fields_are_quoted_and_never_run() {
        let mut table = Table::new(["a", "b"]);
        table.row(["a,\"b\"", "=1+1"]);
        assert_eq!(table.text(), "a,b\r\n\"a,\"\"b\"\"\",'=1+1\r\n");
    }
}
