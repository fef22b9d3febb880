//! The schools of microphones side by side, in this room: each where it would be, with its numbers. None is forbidden.

use serde::Serialize;
use utoipa::ToSchema;

use super::absorption::Absorption;
use super::pickup::{Scene, pickup};
use super::{field, intelligibility, noise};
use crate::corner::Corner;
use crate::plan::{Common, Gear, GearMicrophone, Mounting, Point3};

/// A usual microphone of each kind where none is owned: pattern, tube, own noise, sensitivity (middle of the usual range,
/// from memory, no product's).
const USUAL: [(Mounting, &str, f64, f64, f64, f64); 6] = [
    (Mounting::BuiltIn, "Built into the camera", 1.0, 0.0, 32.0, 10.0),
    (Mounting::OnCamera, "Short shotgun on the camera", 0.366_025_403_784, 0.12, 18.0, 25.0),
    (Mounting::Boom, "Boomed just out of the picture", 0.25, 0.0, 14.0, 15.0),
    (Mounting::Lavalier, "Lavalier on the chest", 1.0, 0.0, 26.0, 12.0),
    (Mounting::Desk, "On the desk", 0.5, 0.0, 12.0, 15.0),
    (Mounting::Headset, "Headset", 0.5, 0.0, 26.0, 8.0),
];

/// A microphone of one school in this corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MicrophoneChoice {
    /// How it is used.
    pub mounting: Mounting,
    /// What it is, in words.
    pub label: String,
    /// Gear id of the one at hand; none of a usual one.
    pub gear: Option<String>,
    /// It is the plan's.
    pub chosen: bool,
    /// It shows in the picture there.
    pub in_picture: bool,
    /// Capsule, m.
    pub position_m: Point3,
    /// From the mouth, m.
    pub distance_m: f64,
    /// Direct over reverberant voice, dB.
    pub direct_to_reverberant_db: f64,
    /// That in words.
    pub direct_words: String,
    /// Speech over noise, dB, A-weighted.
    pub snr_db: f64,
    /// That in words.
    pub snr_words: String,
    /// Speech transmission index.
    pub sti: f64,
    /// That in words.
    pub sti_words: String,
    /// What speaks for and against it, in one sentence (common practice, no source).
    pub remark: &'static str,
}

fn usual(row: &(Mounting, &str, f64, f64, f64, f64)) -> GearMicrophone {
    GearMicrophone {
        common: Common { label: row.1.into(), figures_assumed: true, ..Common::default() },
        mounting: row.0,
        pattern_a: row.2,
        tube_m: row.3,
        self_noise_dba: row.4,
        sensitivity_mv_pa: Some(row.5),
    }
}

/// A usual microphone of a kind.
pub fn typical(mounting: Mounting) -> GearMicrophone {
    usual(USUAL.iter().find(|row| row.0 == mounting).unwrap_or(&USUAL[0]))
}

fn remark(mounting: Mounting) -> &'static str {
    match mounting {
        Mounting::BuiltIn => "Only to join the files by: too far, and it sets its own level.",
        Mounting::OnCamera => {
            "A short tube is a plain microphone below 1.5 kHz: at this distance it hears the room."
        }
        Mounting::Boom => "Natural, and no rustle; it needs a stand, aim and a still head.",
        Mounting::Lavalier => "Foolproof: always as near, whoever leans; it rustles, and the chest dulls it.",
        Mounting::Desk => {
            "In the picture, or just under it: a microphone in shot beats bad sound. Mind the desk's echo and thumps."
        }
        Mounting::Headset => "The steadiest of all, and plainly seen.",
    }
}

/// One of each school, the way it would stand here; best speech transmission first.
pub fn choices(corner: &Corner<'_>) -> Vec<MicrophoneChoice> {
    let absorption = Absorption::of(corner);
    let scene = Scene::new(&absorption, super::voice_1m_dba(corner).0);
    let used = corner.layout.microphone.as_ref();
    let mut all: Vec<MicrophoneChoice> = USUAL
        .iter()
        .filter_map(|row| {
            let typical = usual(row);
            let at_hand = || {
                let own = corner.brief.gear.iter().filter(|(_, gear)| gear.at_hand());
                own.filter_map(|(id, gear)| Some((id, Gear::microphone(gear)?)))
                    .filter(|(_, gear)| gear.mounting == row.0)
            };
            let in_use = used.and_then(|used| at_hand().find(|(id, _)| **id == used.gear));
            let owned = in_use.or_else(|| at_hand().next());
            let gear = owned.map_or(&typical, |(_, gear)| gear);
            let place = match in_use {
                Some(_) => corner.microphone.map(|(_, capsule)| capsule)?,
                None => super::placement::places(corner, gear, 1.0).first().copied()?,
            };
            let at = super::placed(corner, &absorption, gear, place);
            let got = pickup(&scene, &at);
            let ratio = got.direct_to_reverberant_mid_db();
            Some(MicrophoneChoice {
                mounting: row.0,
                label: owned.map_or_else(|| row.1.to_owned(), |(_, gear)| gear.common.label.clone()),
                gear: owned.map(|(id, _)| id.0.clone()),
                chosen: in_use.is_some(),
                in_picture: in_picture(corner, gear, place),
                position_m: place.into(),
                distance_m: at.distance_m,
                direct_to_reverberant_db: ratio,
                direct_words: field::direct_words(ratio).into(),
                snr_db: got.snr_dba,
                snr_words: noise::ratio_words(got.snr_dba).into(),
                sti: got.sti,
                sti_words: intelligibility::words(got.sti).into(),
                remark: remark(row.0),
            })
        })
        .collect();
    all.sort_by(|a, b| b.sti.total_cmp(&a.sti));
    all
}

fn in_picture(corner: &Corner<'_>, gear: &GearMicrophone, place: crate::geometry::DVec3) -> bool {
    match gear.mounting {
        Mounting::BuiltIn | Mounting::OnCamera => false,
        _ => corner.view.sees(place),
    }
}
