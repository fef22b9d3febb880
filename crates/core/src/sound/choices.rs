//! The schools of microphones side by side, in this room: each where it would be, with its numbers. None is forbidden.

use serde::Serialize;
use utoipa::ToSchema;

use super::absorption::Absorption;
use super::pickup::{Scene, pickup};
use super::{field, intelligibility, noise, pattern};
use crate::corner::Corner;
use crate::plan::{Common, Gear, GearMicrophone, Mounting, Point3};

/// A way to use a microphone.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum MicrophoneKind {
    BuiltIn,
    OnCamera,
    BoomShotgun,
    Boom,
    Lavalier,
    Desk,
    Headset,
}

/// A usual microphone of a kind where none is owned (middle of the usual range, from memory, no product's).
struct Usual {
    kind: MicrophoneKind,
    label: &'static str,
    pattern_a: f64,
    tube_m: f64,
    self_noise_dba: f64,
    sensitivity_mv_pa: f64,
    /// What speaks for and against it.
    remark: &'static str,
}

#[rustfmt::skip]
const USUAL: [Usual; 7] = [
    Usual { kind: MicrophoneKind::BuiltIn, label: "Built into the camera", pattern_a: 1.0, tube_m: 0.0, self_noise_dba: 32.0, sensitivity_mv_pa: 10.0,
        remark: "Only to join the files by: too far, and it sets its own level." },
    Usual { kind: MicrophoneKind::OnCamera, label: "Short shotgun on the camera", pattern_a: 0.366_025_403_784, tube_m: 0.12, self_noise_dba: 18.0, sensitivity_mv_pa: 25.0,
        remark: "A short tube is a plain microphone below 1.5 kHz: at this distance it hears the room." },
    Usual { kind: MicrophoneKind::BoomShotgun, label: "Short shotgun, boomed just out of the picture", pattern_a: 0.366_025_403_784, tube_m: 0.20, self_noise_dba: 12.0, sensitivity_mv_pa: 30.0,
        remark: "Natural, and no rustle; under a low, hard ceiling or in a corner its tube colours the room: try it." },
    Usual { kind: MicrophoneKind::Boom, label: "Boomed just out of the picture", pattern_a: 0.25, tube_m: 0.0, self_noise_dba: 14.0, sensitivity_mv_pa: 15.0,
        remark: "Natural, and no rustle; it needs a stand, aim and a still head." },
    Usual { kind: MicrophoneKind::Lavalier, label: "Lavalier on the chest", pattern_a: 1.0, tube_m: 0.0, self_noise_dba: 26.0, sensitivity_mv_pa: 12.0,
        remark: "Foolproof: always as near, whoever leans. On the breastbone, a span below the chin; it rustles, and the chest dulls it." },
    Usual { kind: MicrophoneKind::Desk, label: "On the desk", pattern_a: 0.5, tube_m: 0.0, self_noise_dba: 12.0, sensitivity_mv_pa: 15.0,
        remark: "In the picture, or just under it: a microphone in shot beats bad sound. Mind the desk's echo and thumps." },
    Usual { kind: MicrophoneKind::Headset, label: "Headset", pattern_a: 0.5, tube_m: 0.0, self_noise_dba: 26.0, sensitivity_mv_pa: 8.0,
        remark: "The steadiest of all, and plainly seen." },
];

impl MicrophoneKind {
    /// Whether a microphone is of this kind.
    fn is(self, gear: &GearMicrophone) -> bool {
        let tube = gear.tube_m > 0.0;
        match (self, gear.mounting) {
            (Self::BuiltIn, Mounting::BuiltIn)
            | (Self::OnCamera, Mounting::OnCamera)
            | (Self::Lavalier, Mounting::Lavalier)
            | (Self::Desk, Mounting::Desk)
            | (Self::Headset, Mounting::Headset) => true,
            (Self::BoomShotgun, Mounting::Boom) => tube,
            (Self::Boom, Mounting::Boom) => !tube,
            _ => false,
        }
    }

    fn mounting(self) -> Mounting {
        match self {
            Self::BuiltIn => Mounting::BuiltIn,
            Self::OnCamera => Mounting::OnCamera,
            Self::BoomShotgun | Self::Boom => Mounting::Boom,
            Self::Lavalier => Mounting::Lavalier,
            Self::Desk => Mounting::Desk,
            Self::Headset => Mounting::Headset,
        }
    }

    /// A usual microphone of this kind.
    pub fn typical(self) -> GearMicrophone {
        let row = USUAL.iter().find(|row| row.kind == self).unwrap_or(&USUAL[0]);
        GearMicrophone {
            common: Common { label: row.label.into(), figures_assumed: true, ..Common::default() },
            mounting: self.mounting(),
            pattern_a: row.pattern_a,
            tube_m: row.tube_m,
            self_noise_dba: row.self_noise_dba,
            sensitivity_mv_pa: Some(row.sensitivity_mv_pa),
            wireless: false,
        }
    }
}

/// A microphone of one school in this corner.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MicrophoneChoice {
    /// How it is used.
    pub kind: MicrophoneKind,
    /// What it is, in words.
    pub label: String,
    /// Its pattern, in words.
    pub pattern: String,
    /// So many times as far as a round one it may stand for the same balance of voice and room, at 500 Hz and 1 kHz.
    pub distance_factor: f64,
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

/// One of each school, the way it would stand here; best speech transmission first.
pub fn choices(corner: &Corner<'_>, absorption: &Absorption) -> Vec<MicrophoneChoice> {
    let scene = Scene::new(absorption, super::voice_1m_dba(corner).0);
    let used = corner.layout.microphone.as_ref();
    let mut all: Vec<MicrophoneChoice> = USUAL
        .iter()
        .filter_map(|row| {
            let typical = row.kind.typical();
            let at_hand = || {
                let own = corner.brief.gear.iter().filter(|(_, gear)| gear.at_hand());
                own.filter_map(|(id, gear)| Some((id, Gear::microphone(gear)?)))
                    .filter(|(_, gear)| row.kind.is(gear))
            };
            let in_use = used.and_then(|used| at_hand().find(|(id, _)| **id == used.gear));
            let owned = in_use.or_else(|| at_hand().next());
            let gear = owned.map_or(&typical, |(_, gear)| gear);
            let place = match in_use {
                Some(_) => corner.microphone.map(|(_, capsule)| capsule)?,
                None => super::placement::places(corner, gear, 1.0).first().copied()?,
            };
            let at = super::placed(corner, absorption, gear, place);
            let got = pickup(&scene, &at);
            let ratio = got.direct_to_reverberant_mid_db();
            Some(MicrophoneChoice {
                kind: row.kind,
                label: gear.common.label.clone(),
                pattern: pattern::words(gear.pattern_a, gear.tube_m),
                distance_factor: ((at.q[2] + at.q[3]) / 2.0).sqrt(),
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
                remark: row.remark,
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
