//! Lengths, and how numbers are written for people. Inside the core everything is metres, degrees and SI;
//! feet and inches exist only in text.

use std::fmt::{self, Write};

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Metres in one inch, exact by definition (international yard and pound agreement, 1959).
pub const INCH_M: f64 = 0.0254;

/// Metres in a foot and kilograms in a pound, exact by the same agreement.
pub const FOOT_M: f64 = 0.3048;
const POUND_KG: f64 = 0.453_592_37;

/// How much of something is lacking, with its unit.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Amount {
    /// m.
    Length(f64),
    /// kg.
    Mass(f64),
    /// Of the whole, 0 to 1 and more.
    Part(f64),
    /// Not told by a number.
    Unmeasured,
}

impl Amount {
    /// The number alone, 0 where there is none: amounts of one rule are compared by it.
    pub fn value(self) -> f64 {
        match self {
            Amount::Length(value) | Amount::Mass(value) | Amount::Part(value) => value,
            Amount::Unmeasured => 0.0,
        }
    }

    /// Its unit in answers.
    pub fn unit(self) -> &'static str {
        match self {
            Amount::Length(_) => "m",
            Amount::Mass(_) => "kg",
            Amount::Part(_) | Amount::Unmeasured => "",
        }
    }
}

/// The unit system in which a person types and reads.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum UnitSystem {
    /// Metres and centimetres; mains of 230 V, 50 Hz assumed.
    #[default]
    Metric,
    /// Feet and inches; mains of 120 V, 60 Hz assumed.
    Imperial,
}

impl UnitSystem {
    /// A length as people write it: `1.42 m`, or `4' 8"` to the nearest quarter inch.
    pub fn length(self, metres: f64) -> String {
        match self {
            UnitSystem::Metric => format!("{} m", decimals(metres, 2)),
            UnitSystem::Imperial => feet_and_inches(metres),
        }
    }

    /// A small length as people speak of it: `6 cm`, or inches.
    pub fn gap(self, metres: f64) -> String {
        let cm = metres.abs() * 100.0;
        match self {
            UnitSystem::Metric => format!("{} cm", decimals(cm, usize::from(cm < 9.95))),
            UnitSystem::Imperial => feet_and_inches(metres.abs()),
        }
    }

    /// A mass as people speak of it: `2.5 kg`, `5.5 lb`.
    pub fn mass(self, kilograms: f64) -> String {
        match self {
            UnitSystem::Metric => format!("{} kg", decimals(kilograms, 1)),
            UnitSystem::Imperial => format!("{} lb", decimals(kilograms / POUND_KG, 1)),
        }
    }

    /// An area: `7.2 m\u{b2}`, `78 sq ft`.
    pub fn area(self, square_metres: f64) -> String {
        match self {
            UnitSystem::Metric => format!("{} m\u{b2}", decimals(square_metres, 1)),
            UnitSystem::Imperial => format!("{} sq ft", decimals(square_metres / FOOT_M.powi(2), 0)),
        }
    }

    /// A difference of temperature: `6 \u{b0}C`, `11 \u{b0}F`.
    pub fn warmer(self, kelvins: f64) -> String {
        match self {
            UnitSystem::Metric => format!("{} \u{b0}C", decimals(kelvins, 0)),
            UnitSystem::Imperial => format!("{} \u{b0}F", decimals(kelvins * 1.8, 0)),
        }
    }

    /// A length on a face or on a page, in millimetres: `12 mm`, `0.47 in`. Lenses and sensors are told in millimetres
    /// everywhere: those are not written by this.
    pub fn fine(self, millimetres: f64) -> String {
        match self {
            UnitSystem::Metric => {
                format!("{} mm", decimals(millimetres, usize::from(millimetres.abs() < 9.95)))
            }
            UnitSystem::Imperial => format!("{} in", decimals(millimetres / 1000.0 / INCH_M, 2)),
        }
    }

    /// A value with its unit as people of this system read it.
    pub fn with_unit(self, value: f64, unit: &str, digits: usize) -> String {
        match (self, unit) {
            (_, "m") => self.length(value),
            (UnitSystem::Imperial, "kg") => self.mass(value),
            (UnitSystem::Imperial, "m\u{b2}") => self.area(value),
            (UnitSystem::Imperial, "m\u{b3}") => {
                format!("{} cu ft", decimals(value / FOOT_M.powi(3), 0))
            }
            (UnitSystem::Imperial, "cm") => self.length(value / 100.0),
            (UnitSystem::Imperial, "mm") => self.fine(value),
            (UnitSystem::Imperial, "\u{b0}C") => self.warmer(value),
            (_, "") => decimals(value, digits),
            (_, "\u{b0}" | "%") => format!("{}{unit}", decimals(value, digits)),
            _ => format!("{} {unit}", decimals(value, digits)),
        }
    }

    /// A floor mark: to 5 mm, or to a quarter inch.
    pub fn mark(self, metres: f64) -> String {
        match self {
            UnitSystem::Metric => format!("{} m", decimals((metres * 200.0).round() / 200.0, 3)),
            UnitSystem::Imperial => feet_and_inches(metres),
        }
    }
}

fn feet_and_inches(metres: f64) -> String {
    let quarters = (metres.abs() / INCH_M * 4.0).round() as i64;
    let sign = if metres < 0.0 && quarters > 0 { "\u{2212}" } else { "" };
    let (feet, inches, quarter) = (quarters / 48, quarters % 48 / 4, quarters % 4);
    let part = ["", "\u{bc}", "\u{bd}", "\u{be}"][quarter as usize];
    let inches = match (inches, part) {
        (0, "") => "0".to_owned(),
        (0, part) => part.to_owned(),
        (whole, part) => format!("{whole}{part}"),
    };
    if feet == 0 { format!("{sign}{inches}\"") } else { format!("{sign}{feet}' {inches}\"") }
}

/// A label within a sentence: its first letter small, unless it begins with an abbreviation.
pub fn lower_first(text: &str) -> String {
    let mut letters = text.chars();
    let (first, second) = (letters.next(), letters.clone().next());
    match first {
        Some(first) if !second.is_some_and(char::is_uppercase) => {
            first.to_lowercase().chain(letters).collect()
        }
        _ => text.to_owned(),
    }
}

/// A number with a fixed count of decimals, never "-0".
pub fn decimals(value: f64, count: usize) -> String {
    let text = format!("{value:.count$}");
    let is_zero = text.chars().all(|c| matches!(c, '-' | '0' | '.'));
    if is_zero { text.trim_start_matches('-').to_owned() } else { text.replace('-', "\u{2212}") }
}

/// A number of which two digits are meant: 42318 becomes 42000.
pub fn two_digits(value: f64) -> f64 {
    let step = 10f64.powf(value.abs().log10().floor() - 1.0);
    if step.is_normal() { (value / step).round() * step } else { value }
}

/// An angle in words, to the degree: "1 degree", "40 degrees".
pub fn degrees(angle_deg: f64) -> String {
    match decimals(angle_deg, 0).as_str() {
        "1" => "1 degree".to_owned(),
        many => format!("{many} degrees"),
    }
}

/// A focal length as it is told, without its unit: "39", and "6.5" where a tenth counts.
pub fn focal_mm(focal_length_mm: f64) -> String {
    decimals(focal_length_mm, if focal_length_mm < 10.0 { 1 } else { 0 })
}

/// An angle from the lens as the picture shows it, right positive: "40 degrees camera right".
pub fn beside_lens(azimuth_deg: f64) -> String {
    let side = if azimuth_deg < 0.0 { "left" } else { "right" };
    format!("{} camera {side}", degrees(azimuth_deg.abs()))
}

/// An aperture as it stands on a dial: "f/2.8", "f/4".
pub fn aperture(f_number: f64) -> String {
    let text = decimals(f_number, 1);
    format!("f/{}", text.strip_suffix(".0").unwrap_or(&text))
}

/// Whether something is written as this text, looked at piece by piece as it is written.
pub(crate) fn spells(value: &impl fmt::Display, text: &str) -> bool {
    struct Rest<'a>(&'a str);
    impl fmt::Write for Rest<'_> {
        fn write_str(&mut self, piece: &str) -> fmt::Result {
            self.0 = self.0.strip_prefix(piece).ok_or(fmt::Error)?;
            Ok(())
        }
    }
    let mut rest = Rest(text);
    write!(rest, "{value}").is_ok() && rest.0.is_empty()
}

/// With the first letter as a capital.
pub fn capital(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map_or(String::new(), |first| first.to_uppercase().chain(chars).collect())
}

/// An exposure time as photographers write it: `1/50`.
pub fn shutter(seconds: f64) -> String {
    if seconds >= 0.3 { format!("{} s", decimals(seconds, 1)) } else { format!("1/{:.0} s", 1.0 / seconds) }
}
