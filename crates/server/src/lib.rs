//! The local server.
