//! What can be bought: generic things with typical figures.

use std::sync::OnceLock;

use crate::plan::{Gear, Things};

/// The generic catalogue: made-up things with figures and prices.
pub fn catalogue() -> &'static Things<Gear> {
    static CATALOGUE: OnceLock<Things<Gear>> = OnceLock::new();
    // The file is part of the program, and a test reads it with every limit of the schema.
    CATALOGUE.get_or_init(|| serde_json::from_str(include_str!("catalogue.json")).unwrap_or_default())
}
