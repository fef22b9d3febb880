//! Numbers as people read them: what is written is read back, in either system, within half of the last place.

use fogon_core::reading::{Quantity, Reading};
use fogon_core::units::{UnitSystem, capital, decimals, shutter};
use proptest::prelude::*;

const INCH_M: f64 = 0.0254;

/// Metres out of `11' 2¼"`, `−½"` or `3.40 m`, by rules of its own.
fn metres(text: &str) -> f64 {
    let (sign, body) = match text.strip_prefix('\u{2212}') {
        Some(rest) => (-1.0, rest),
        None => (1.0, text),
    };
    if let Some(number) = body.strip_suffix(" m") {
        return sign * number.parse::<f64>().unwrap();
    }
    if let Some(number) = body.strip_suffix(" cm") {
        return sign * number.parse::<f64>().unwrap() / 100.0;
    }
    let (feet, inches) = body.split_once("' ").unwrap_or(("0", body));
    let inches = inches.strip_suffix('"').unwrap_or_else(|| panic!("no inches in {text}"));
    let quarter = |c: char| match c {
        '\u{bc}' => Some(0.25),
        '\u{bd}' => Some(0.5),
        '\u{be}' => Some(0.75),
        _ => None,
    };
    let part: f64 = inches.chars().filter_map(quarter).sum();
    let whole: String = inches.chars().filter(|c| quarter(*c).is_none()).collect();
    let whole = if whole.is_empty() { 0.0 } else { whole.parse::<f64>().unwrap() };
    assert!(whole < 12.0, "{text} has more than eleven inches");
    sign * (feet.parse::<f64>().unwrap() * 12.0 + whole + part) * INCH_M
}

proptest! {
    /// To the centimetre, the half centimetre on a mark, the quarter inch; small ones to the millimetre.
    #[test]
    fn lengths_read_back(length in -60.0f64..60.0) {
        let (metric, imperial) = (UnitSystem::Metric, UnitSystem::Imperial);
        prop_assert!((metres(&metric.length(length)) - length).abs() <= 0.005 + 1e-9);
        prop_assert!((metres(&metric.mark(length)) - length).abs() <= 0.0025 + 1e-9);
        prop_assert!((metres(&metric.gap(length)) - length.abs()).abs() <= 0.005 + 1e-9);
        for text in [imperial.length(length), imperial.mark(length)] {
            prop_assert!((metres(&text) - length).abs() <= INCH_M / 8.0 + 1e-9, "{text} for {length}");
        }
        prop_assert!((metres(&imperial.gap(length)) - length.abs()).abs() <= INCH_M / 8.0 + 1e-9);
    }

    /// A number has its decimals, a true minus sign, and is never minus nothing.
    #[test]
    fn numbers_have_their_decimals(value in -1e6f64..1e6, count in 0usize..4) {
        let text = decimals(value, count);
        prop_assert!(!text.contains('-'));
        let back: f64 = text.replace('\u{2212}', "-").parse().unwrap();
        prop_assert!((back - value).abs() <= 0.5 * 10f64.powi(-(count as i32)) + 1e-9);
        prop_assert_eq!(text.split_once('.').map_or(0, |(_, part)| part.len()), count);
        prop_assert!(back != 0.0 || !text.contains('\u{2212}'), "{}", text);
    }

    /// Pounds, square feet, degrees and inches by their definitions.
    #[test]
    fn other_units_are_those_of_the_definitions(value in 0.0f64..500.0) {
        let number = |text: String| text.split(' ').next().unwrap().parse::<f64>().unwrap();
        let imperial = UnitSystem::Imperial;
        prop_assert!((number(imperial.mass(value)) * 0.453_592_37 - value).abs() <= 0.05 * 0.46);
        prop_assert!((number(imperial.area(value)) * 0.3048 * 0.3048 - value).abs() <= 0.5 * 0.093);
        prop_assert!((number(imperial.warmer(value)) / 1.8 - value).abs() <= 0.5);
        prop_assert!((number(imperial.fine(value)) * 25.4 - value).abs() <= 0.005 * 25.5);
        prop_assert!((number(UnitSystem::Metric.mass(value)) - value).abs() <= 0.05 + 1e-9);
    }
}

/// A reading is told with its unit, lenses in millimetres everywhere, and one without a value by a dash.
#[test]
fn readings_are_told_with_their_units() {
    let told = |quantity, value, units| Reading::new(quantity, value).in_words(units);
    let (metric, imperial) = (UnitSystem::Metric, UnitSystem::Imperial);
    assert_eq!(told(Quantity::ShotLensEquivalentMm, 35.0, imperial), "35.00 mm");
    assert_eq!(told(Quantity::LightKeyNoseShadowMm, 25.4, imperial), "1.00 in");
    assert_eq!(told(Quantity::LightKeyNoseShadowMm, 25.4, metric), "25.40 mm");
    assert_eq!(told(Quantity::ShotCameraDistanceM, 1.524, imperial), "5' 0\"");
    assert_eq!(told(Quantity::LightFaceCctK, 5600.0, imperial), "5600 K");
    assert_eq!(told(Quantity::RoomHeatRiseK, 5.0, imperial), "9 \u{b0}F");
    assert_eq!(told(Quantity::RoomHeatRiseK, 5.0, metric), "5.00 \u{b0}C");
    assert_eq!(told(Quantity::SoundRoomRtMidS, f64::NAN, metric), "\u{2013}");
    assert_eq!((capital("\u{e9}clat"), shutter(0.5)), ("\u{c9}clat".to_owned(), "0.5 s".to_owned()));
}

#[test]
fn small_words_are_said_as_people_say_them() {
    use fogon_core::units::{aperture, beside_lens, degrees, lower_first};
    for (angle, words) in [(1.2, "1 degree"), (0.4, "0 degrees"), (40.0, "40 degrees"), (1.6, "2 degrees")] {
        assert_eq!(degrees(angle), words);
    }
    assert_eq!(beside_lens(-40.2), "40 degrees camera left");
    assert_eq!(beside_lens(1.0), "1 degree camera right");
    for (f_number, words) in [(2.8, "f/2.8"), (4.0, "f/4"), (11.0, "f/11"), (1.25, "f/1.2"), (22.0, "f/22")] {
        assert_eq!(aperture(f_number), words);
    }
    // A label keeps its abbreviations within a sentence.
    for (label, within) in [
        ("Small LED panel", "small LED panel"),
        ("LED panel", "LED panel"),
        ("XLR cable", "XLR cable"),
        ("60 W LED", "60 W LED"),
        ("A rug", "a rug"),
        ("", ""),
    ] {
        assert_eq!(lower_first(label), within);
    }
}

#[test]
fn lengths_read_back_as_people_write_them() {
    assert_eq!(UnitSystem::Metric.length(1.4249), "1.42 m");
    assert_eq!(UnitSystem::Metric.mark(1.4249), "1.425 m");
    assert_eq!(UnitSystem::Imperial.length(3.4036), "11' 2\"");
    assert_eq!(UnitSystem::Imperial.length(0.3048), "1' 0\"");
    assert_eq!(UnitSystem::Imperial.length(0.0064), "\u{bc}\"");
    // A carry: eleven and 9/10 inches is a foot to the quarter inch.
    assert_eq!(UnitSystem::Imperial.length(0.304), "1' 0\"");
    assert_eq!(decimals(-0.001, 2), "0.00");
    assert_eq!(shutter(0.02), "1/50 s");
    assert_eq!(
        (UnitSystem::Metric.fine(12.0), UnitSystem::Imperial.fine(12.0)),
        ("12 mm".into(), "0.47 in".into())
    );
    assert_eq!(UnitSystem::Imperial.with_unit(10.0, "kg", 1), "22.0 lb");
}
