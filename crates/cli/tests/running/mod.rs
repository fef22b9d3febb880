//! `fogon serve` or `fogon demo` running on a free port, for as long as the value lives.

use std::io::{BufRead, BufReader};
use std::path::Path;
use std::process::{Child, Command, Stdio};

/// A running server.
pub(crate) struct Running {
    child: Child,
    /// Host and port.
    pub(crate) address: String,
}

impl Running {
    /// Starts a command on a database file and waits for the address that it prints.
    pub(crate) fn start(command: &str, database: &Path) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_fogon"))
            .args([command, "--port", "0", "--database"])
            .arg(database)
            .stdout(Stdio::piped())
            .spawn()
            .unwrap();
        let mut line = String::new();
        BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
        let address = line.split("http://").nth(1).expect("an address is printed").split('/').next().unwrap();
        Self { child, address: address.to_owned() }
    }
}

impl Drop for Running {
    /// SIGKILL: no handler runs, no buffer is flushed.
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
