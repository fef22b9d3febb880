//! The run of a day: which shots are wanted and in which order, the script, how files are named, and what is kept of it.

mod file_name;
mod log;
pub mod order;
mod script;
mod set_up;
mod sheet;
mod wanted;

pub use file_name::file_stem;
pub use log::{
    CheckLogged, Entry, LogIn, SessionLogged, ShotLogged, TakeLogged, TakeVerdict, TestLogged, What,
};
pub use script::{Paragraph, Script, script, words_in};
pub use sheet::{ActionRow, InOrder, Run, ShotTold, run};
pub use wanted::wanted;
