//! Reverberation time from absorption: Sabine 1922, Eyring 1930 (ISO 3382-2, EN 12354-6).

use crate::corner::Corner;
use crate::material::{Bands, MATERIALS, Material, PERSON_M2, material};
use crate::plan::{FurnitureKind, OpeningKind};
use crate::reading::{From, Reading};

/// Speed of sound, m/s.
pub const SPEED_M_S: f64 = 343.0;
/// Reverberation time of a furnished living room whose surfaces nobody knows, s (reference time of ISO 16283
/// and ISO 717, from memory).
pub const UNKNOWN_S: f64 = 0.5;

/// K = 24 ln 10 / c, s/m.
pub fn sabine_constant(speed_m_s: f64) -> f64 {
    24.0 * std::f64::consts::LN_10 / speed_m_s
}

/// Sabine: T = K V / A.
pub fn sabine_s(volume_m3: f64, absorption_m2: f64) -> f64 {
    sabine_constant(SPEED_M_S) * volume_m3 / absorption_m2
}

/// Eyring: T = K V / (-S ln(1 - A / S)).
pub fn eyring_s(volume_m3: f64, surface_m2: f64, absorption_m2: f64) -> f64 {
    sabine_constant(SPEED_M_S) * volume_m3 / (-surface_m2 * (1.0 - absorption_m2 / surface_m2).ln())
}

/// Absorption that gives an Eyring time, m2.
pub fn absorption_for_m2(volume_m3: f64, surface_m2: f64, eyring_s: f64) -> f64 {
    surface_m2 * (1.0 - (-sabine_constant(SPEED_M_S) * volume_m3 / (surface_m2 * eyring_s)).exp())
}

/// What absorbs in a room, m2 per band, and whether some of it had to be assumed.
struct Absorption {
    known_m2: Bands,
    assumed: bool,
}

fn surfaces(corner: &Corner<'_>, use_given: bool) -> Absorption {
    let unknown = material("hard_average").unwrap_or(&MATERIALS[0]);
    let mut areas = corner.brief.room.surfaces_m2();
    let mut sum = [0.0; 6];
    let mut assumed = false;
    let mut add = |row: &Material, area: f64| {
        for (band, alpha) in row.absorption.iter().enumerate() {
            sum[band] += alpha.min(0.99) * area;
        }
    };
    for opening in corner.brief.room.openings.values() {
        let area = opening.width_m * opening.height_or_usual_m();
        let name = if opening.kind == OpeningKind::Door { "door_solid" } else { "window_double_10mm" };
        if let (Some(row), Some(wall)) = (material(name), areas.get_mut(usize::from(opening.wall))) {
            let area = area.min(wall.1);
            wall.1 -= area;
            add(row, area);
        }
    }
    for (name, area) in areas {
        let told =
            corner.brief.room.surfaces.get(name).and_then(|s| s.material.as_deref()).and_then(material);
        assumed |= told.is_none();
        add(told.filter(|_| use_given).unwrap_or(unknown), area);
    }
    for piece in corner.brief.room.furniture.values() {
        for (band, m2) in furniture_m2(piece.kind, piece.size_m.0).iter().enumerate() {
            sum[band] += m2;
        }
    }
    for (band, m2) in PERSON_M2.iter().enumerate() {
        sum[band] += m2;
    }
    Absorption { known_m2: sum, assumed }
}

/// Absorption of a piece of furniture, m2 Sabine, from its kind and the area that faces the room.
fn furniture_m2(kind: FurnitureKind, [width, depth, height]: [f64; 3]) -> Bands {
    let over = |table: Bands, area: f64| table.map(|a| a * area);
    match kind {
        // The rows hold for a made double bed of 3.2 m2 top, and for three seats of 0.5 m2 each.
        FurnitureKind::Bed => over([0.8, 1.44, 2.08, 2.4, 2.4, 2.24], width * depth / 3.2),
        FurnitureKind::Sofa => over([0.66, 0.9, 1.16, 1.33, 1.23, 1.05], width * depth / 1.5),
        FurnitureKind::Bookcase => over([0.2, 0.3, 0.4, 0.4, 0.35, 0.3], width * height),
        _ => [0.0; 6],
    }
}

/// Mid-frequency mean of a band row: 500 Hz and 1 kHz.
fn mid(bands: Bands) -> f64 {
    (bands[2] + bands[3]) / 2.0
}

/// The reverberation time of the corner's room with one person in it.
pub fn reading(corner: &Corner<'_>) -> Reading {
    let volume = corner.brief.room.volume_m3();
    let surface = corner.brief.room.surfaces_m2().iter().map(|(_, area)| area).sum::<f64>();
    let given = surfaces(corner, true);
    let mut absorption = given.known_m2;
    if given.assumed {
        // What an unknown room must hold beyond hard surfaces to ring 0.5 s stays in, whatever is known of it.
        let bare = surfaces(corner, false).known_m2;
        let wanted = absorption_for_m2(volume, surface, UNKNOWN_S);
        for (band, m2) in absorption.iter_mut().enumerate() {
            *m2 += (wanted - bare[band]).max(0.0);
        }
    }
    // An absorption beyond the surface itself has no Eyring time: the room is as good as open air.
    let capped = absorption.map(|m2| m2.min(0.99 * surface));
    let eyring = capped.map(|m2| eyring_s(volume, surface, m2));
    let sabine = capped.map(|m2| sabine_s(volume, m2));
    let mut reading = Reading::new("sound.room.rt_mid_s", mid(eyring))
        .by(
            "mean of 500 Hz and 1 kHz of K V / (-S ln(1 - A/S)), K = 24 ln 10 / 343",
            "Eyring 1930; ISO 3382-2; absorption after Vorlander 2008 and handbooks (from memory)",
        )
        .with("volume", volume, "m\u{b3}", From::Typed)
        .with("surface", surface, "m\u{b2}", From::Typed)
        .with(
            "absorption, 500 Hz and 1 kHz",
            mid(capped),
            "m\u{b2}",
            if given.assumed { From::Assumed } else { From::Computed },
        )
        .with("Sabine instead", mid(sabine), "s", From::Computed)
        .within(mid(eyring) * if given.assumed { 0.4 } else { 0.15 });
    if given.assumed {
        reading.from = From::Assumed;
        reading = reading.note(
            "Not every surface is known: calibrated so that an unknown furnished room rings 0.5 s. Name the surfaces, or measure with a clap.",
        );
    }
    reading
}
