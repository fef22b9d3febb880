//! `fogon serve` or `fogon demo` running on a free port, for as long as the value lives.

// Each test binary uses its own part of it.
#![allow(dead_code)]

use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::process::{Child, Command, ExitStatus, Stdio};
use std::sync::Mutex;

use serde_json::Value;

/// A running server.
pub(crate) struct Running {
    child: Mutex<Child>,
    /// Host and port.
    pub(crate) address: String,
}

impl Running {
    /// Starts a command on a database file and waits for the address that it prints.
    pub(crate) fn start(command: &str, database: &Path) -> Self {
        let mut child = Command::new(env!("CARGO_BIN_EXE_fogon"))
            .args([command, "--port", "0", "--no-token", "--home", "127.0.0.2", "--database"])
            .arg(database)
            .stdout(Stdio::piped())
            .spawn()
            .unwrap();
        let mut line = String::new();
        BufReader::new(child.stdout.take().unwrap()).read_line(&mut line).unwrap();
        let address = line.split("http://").nth(1).expect("an address is printed").split('/').next().unwrap();
        Self { child: Mutex::new(child), address: address.to_owned() }
    }

    /// Its number as a process.
    pub(crate) fn id(&self) -> String {
        self.child.lock().unwrap().id().to_string()
    }

    /// How it ended; none as long as it runs.
    pub(crate) fn ended(&self) -> Option<ExitStatus> {
        self.child.lock().unwrap().try_wait().unwrap()
    }

    /// SIGKILL: no handler runs, no buffer is flushed.
    pub(crate) fn kill(&self) {
        let mut child = self.child.lock().unwrap();
        let _ = child.kill();
        let _ = child.wait();
    }

    /// One request over a socket of its own; status and body.
    pub(crate) fn send(&self, method: &str, path: &str, headers: &str, body: &str) -> (u16, Value) {
        self.try_send(method, path, headers, body).expect("the server answers")
    }

    /// As [`Self::send`]; none when the server is gone.
    pub(crate) fn try_send(
        &self,
        method: &str,
        path: &str,
        headers: &str,
        body: &str,
    ) -> Option<(u16, Value)> {
        let mut socket = TcpStream::connect(&self.address).ok()?;
        let request = format!(
            "{method} {path} HTTP/1.1\r\nHost: {}\r\nConnection: close\r\nContent-Length: {}\r\n{headers}\r\n{body}",
            self.address,
            body.len()
        );
        socket.write_all(request.as_bytes()).ok()?;
        let mut answer = String::new();
        socket.read_to_string(&mut answer).ok()?;
        let status = answer.split(' ').nth(1)?.parse().ok()?;
        // The body may come in pieces with their lengths between them: it is one line of JSON.
        let body = answer.split_once("\r\n\r\n")?.1;
        let start = body.find(['{', '[']).unwrap_or(body.len());
        let end = body.rfind(['}', ']']).map_or(body.len(), |at| at + 1);
        // Cut off in its midst it is no answer.
        let value = match body.get(start..end) {
            None | Some("") => Value::Null,
            Some(text) => serde_json::from_str(text).ok()?,
        };
        Some((status, value))
    }

    /// A corner that was made of a brief or plan file.
    pub(crate) fn made(&self, file: &str) -> Value {
        let (status, made) = self.send("POST", "/api/v1/corners", "", file);
        assert_eq!(status, 201, "{made}");
        made
    }
}

impl Drop for Running {
    fn drop(&mut self) {
        self.kill();
    }
}

/// A number that a long run may set.
pub(crate) fn from_env(name: &str, otherwise: u64) -> u64 {
    std::env::var(name).map_or(otherwise, |text| text.parse().expect("a whole number"))
}
