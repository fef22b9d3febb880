//! The mains as given, or as usual where the unit system suggests.

use crate::person::given;
use crate::plan::Brief;
use crate::reading::{Origin, Quantity};
use crate::units::UnitSystem;

/// Mains values with where each comes from.
#[derive(Debug, Clone, Copy)]
pub struct MainsAs {
    /// Volts.
    pub voltage_v: (f64, Origin),
    /// Hertz, 50 or 60.
    pub frequency_hz: (f64, Origin),
    /// Breaker, A.
    pub breaker_a: (f64, Origin),
}

/// The mains of a brief: 230 V, 50 Hz, 16 A where metric, 120 V, 60 Hz, 15 A where imperial, unless given.
/// A measured voltage stands in place of either.
pub fn mains(brief: &Brief) -> MainsAs {
    let mut mains = mains_told(brief);
    if let Some(measured) = brief.measured_value(Quantity::RoomMainsVoltageV) {
        mains.voltage_v = (measured, Origin::Measured);
    }
    mains
}

/// As [`mains`], whatever was measured.
pub(super) fn mains_told(brief: &Brief) -> MainsAs {
    let (volts, amperes) = match brief.units {
        UnitSystem::Metric => (230.0, 16.0),
        UnitSystem::Imperial => (120.0, 15.0),
    };
    let told = &brief.room.mains;
    MainsAs {
        voltage_v: given(told.voltage_v, volts),
        frequency_hz: brief.mains_frequency_hz(),
        breaker_a: given(told.breaker_a, amperes),
    }
}

/// Current of a load, A: I = P / (V pf).
pub fn load_a(watts: f64, volts: f64, power_factor: f64) -> f64 {
    watts / (volts * power_factor)
}
