//! Corners in one SQLite file. Every save is a row in `revision`; an acknowledged save is on the disk (WAL, synchronous FULL).
//!
//! One process has the file open (`file`), reads beside its one writer, and notices when the file is taken away under it
//! (`identity`). Contents lie in `document`, each once. `doctor` works on a file that nobody has open.

mod archive;
mod binned;
mod corners;
pub mod doctor;
mod document;
mod file;
mod history;
mod house;
mod identity;
mod key;
mod listing;
mod log;
mod snapshots;
mod tables;
mod ticks;
mod trouble;
mod voice;

pub use archive::{Archive, BadArchive, Becomes, Outcome, Taking};
pub use binned::Deleted;
pub use corners::{Kept, Step};
pub use document::Document;
pub use file::Store;
pub use history::{Saved, Thinning};
pub use key::key;
pub use listing::{Cursor, Entry, Page, Told};
pub use log::{LogSince, Logging};
pub use snapshots::{Snapshot, folder as snapshot_folder};
pub use ticks::Tick;
pub use trouble::{StoreError, Trouble};
