//! What a corner has though nobody told of it.

use std::sync::OnceLock;

use crate::plan::{Common, GearMicrophone, Mounting};

/// The microphone that every camera has: round, with 32 dBA of its own (28 to 36 usual, from memory, no product's).
pub fn built_in() -> &'static GearMicrophone {
    static OWN: OnceLock<GearMicrophone> = OnceLock::new();
    OWN.get_or_init(|| GearMicrophone {
        common: Common { label: "Built into the camera".into(), figures_assumed: true, ..Common::default() },
        mounting: Mounting::BuiltIn,
        pattern_a: 1.0,
        tube_m: 0.0,
        self_noise_dba: 32.0,
        sensitivity_mv_pa: Some(10.0),
        wireless: false,
    })
}
