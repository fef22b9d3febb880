//! Money: what can be done for nothing, then what to buy for a sum and in which order. Free moves come first, then what most homes
//! have, then purchases - bundles of a thing with all that it needs here, chosen exactly over a table of gains and judged by the
//! corner laid out with them.

mod advice;
mod bundle;
mod catalogue;
mod change;
mod counter;
mod free;
mod goods;
mod kit;
mod lacks;
mod ledger;
mod mains;
mod passed_over;
mod path;
mod price;
mod program;
mod rows;
mod scored;
mod select;
mod shop;
mod substitute;
mod table;
mod words;
mod workshop;

pub use advice::{Advice, AtOnce, CurvePoint, Item, MeasureFirst, PathStep, PricesFrom};
pub use catalogue::Catalogue;
pub use change::SingleChange;
pub use counter::{Asked, Counter, PHONE_AT_HAND_UP_TO, Progress, advise};
pub use free::{Baseline, FreeMove, FreeMoves, free_moves, free_moves_until};
pub use ledger::{Ledger, LedgerRow, ledger};
pub use passed_over::{PassedBy, PassedOver};
pub use price::per_year;
pub use rows::{COLUMNS, Offer, Row, Rows, read as read_rows, write as write_rows};
pub use scored::{Scored, best_kit, kit_score};
pub use select::{Candidate, select};
pub use substitute::Substitute;
