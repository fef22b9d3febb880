//! The sound: where the microphone goes, what the room does to the voice, what else is heard, and how it will sound.

pub mod absorption;
pub mod air;
pub mod around;
pub mod chart;
pub mod choices;
pub mod clap;
pub mod decay;
pub mod desk;
pub mod echoes;
pub mod field;
pub mod gain;
pub mod hear;
pub mod images;
pub mod impulse;
pub mod intelligibility;
pub mod level;
pub mod loudness;
pub mod modes;
pub mod noise;
pub mod pattern;
pub mod pickup;
pub mod placement;
pub mod porous;
pub mod rate;
pub mod record;
pub mod reflections;
pub mod reverberation;
pub mod seen;
pub mod spectrum;
pub mod treatment;
pub mod voice;

use crate::corner::Corner;
use crate::geometry::{DVec3, angle_between_deg, bearing_vector};
use crate::plan::GearMicrophone;
use crate::reading::{Origin, Quantity, Reading};

use absorption::Absorption;
use level::level_at_distance_db;
use pickup::{MicrophonePlaced, Scene, pickup};

/// What noise that nobody told may be more or less, dB. Fogon's own rule.
const NOISE_WITHIN_DB: f64 = 4.0;
/// A lift of low tones by more is told, dB (common practice, no source).
const LIFT_DB: f64 = 3.0;

/// Level of the voice at 1 m, dBA, and whether it was told.
pub fn voice_1m_dba(corner: &Corner<'_>) -> (f64, Origin) {
    let told = corner.brief.person.voice;
    let from = if told.is_some() { Origin::Typed } else { Origin::Assumed };
    (voice::level_1m_dba(told.unwrap_or_default()), from)
}

/// A microphone at a place.
pub fn placed(
    corner: &Corner<'_>,
    absorption: &Absorption,
    gear: &GearMicrophone,
    capsule_m: DVec3,
) -> MicrophonePlaced {
    let noises = around::together_dba(&around::heard(corner, absorption, gear, capsule_m));
    placed_among(corner, gear, capsule_m, noises)
}

/// A microphone at a place with so much noise, dBA.
fn placed_among(
    corner: &Corner<'_>,
    gear: &GearMicrophone,
    capsule_m: DVec3,
    noises: f64,
) -> MicrophonePlaced {
    let off = capsule_m - corner.mouth_m;
    let facing = bearing_vector(corner.layout.seat.bearing_deg);
    let aside_deg = angle_between_deg(-off, corner.aimed_at_m(gear) - capsule_m);
    MicrophonePlaced {
        voice_gain_db: pattern::gain_db(gear.pattern_a, gear.tube_m, 1000.0, aside_deg),
        distance_m: off.length().max(0.02),
        off_axis_deg: angle_between_deg(facing, off),
        q: pattern::directivities(gear.pattern_a, gear.tube_m),
        self_noise_dba: own_noise_dba(corner, gear),
        noise_db: noise::STEADY_DB.map(|db| noises + db),
    }
}

/// Noise of a microphone with its input, dBA: of the input where its figures are told.
fn own_noise_dba(corner: &Corner<'_>, gear: &GearMicrophone) -> f64 {
    let input = record::input(corner).and_then(|thing| thing.input_noise_dbu);
    match (input, gear.sensitivity_mv_pa) {
        (Some(noise_dbu), Some(sensitivity)) => {
            level::sum_db([gear.self_noise_dba, noise::preamplifier_dba(noise_dbu, sensitivity)])
        }
        _ => gear.self_noise_dba,
    }
}

/// The corner's voice, room and microphone: that of the layout, else the camera's own.
pub fn scene(corner: &Corner<'_>, absorption: &Absorption) -> (Scene, MicrophonePlaced) {
    let (gear, capsule) = corner.heard_by();
    let scene = Scene::new(absorption, voice_1m_dba(corner).0);
    (scene, placed(corner, absorption, gear, capsule))
}

/// What the sound trade reads off a corner.
pub fn readings(corner: &Corner<'_>) -> Vec<Reading> {
    let absorption = Absorption::of(corner);
    let mut all = Vec::from(at_microphone(corner));
    all.extend(heard(corner, &absorption));
    // Beside a measured time stands what is computed without it.
    let is_measured = corner.brief.measured_value(Quantity::SoundRoomRtMidS).is_some();
    let rings = if is_measured { Absorption::computed(corner) } else { absorption };
    all.push(reverberation::reading(&rings));
    all
}

/// Where the microphone is, against the mouth and the camera.
fn at_microphone(corner: &Corner<'_>) -> [Reading; 2] {
    let (gear, capsule) = corner.heard_by();
    let distance = (capsule - corner.mouth_m).length().max(0.02);
    let camera = (corner.view.position_m - corner.mouth_m).length();
    [
        Reading::new(Quantity::SoundMicrophoneDistanceM, distance)
            .by("straight line from the mouth to the capsule", "bands common practice, no source")
            .with("microphone height", capsule.z, "m", Origin::Typed)
            .with("mouth height", corner.mouth_m.z, "m", Origin::Computed)
            .within(0.03)
            .note(close_up(gear, distance)),
        Reading::new(Quantity::SoundMicrophoneGainOverCameraDb, level_at_distance_db(0.0, camera, distance))
            .by("20 lg(camera distance / microphone distance)", "inverse square law, direct sound only")
            .with("mouth to camera", camera, "m", Origin::Computed)
            .with("mouth to microphone", distance, "m", Origin::Computed)
            .with("self-noise", gear.self_noise_dba, "dBA", gear.common.figures_from())
            .within(1.0),
    ]
}

/// What of the voice is heard: over the room, over the noise, and understood.
fn heard(corner: &Corner<'_>, absorption: &Absorption) -> [Reading; 3] {
    let (gear, capsule) = corner.heard_by();
    let (voice_dba, voice_from) = voice_1m_dba(corner);
    let scene = Scene::new(absorption, voice_dba);
    let noises = around::heard(corner, absorption, gear, capsule);
    let at = placed_among(corner, gear, capsule, around::together_dba(&noises));
    let got = pickup(&scene, &at);
    let told = gear.common.figures_from();
    let loudest = noises.first();
    let direct = Reading::new(
        Quantity::SoundMicrophoneDirectToReverberantDb,
        got.direct_to_reverberant_mid_db(),
    )
    .by(
        "20 lg(Dc / r) - what the mouth gives less to that side, Dc = sqrt(Qs Qm R / 16 pi); mean of 500 Hz to 2 kHz",
        "Beranek; Kuttruff; directivity of the voice is Fogon's own model, good to 3 dB",
    )
    .with("critical distance on the mouth's axis", got.critical_distance_m, "m", Origin::Computed)
    .with("distance", at.distance_m, "m", Origin::Computed)
    .with("off the mouth's axis", at.off_axis_deg, "\u{b0}", Origin::Computed)
    .with("directivity factor at 1 kHz", at.q[3], "", told)
    .with("room constant", scene.room_constant_mid_m2(), "m\u{b2}", Origin::Computed)
    .within(3.0)
    .note(field::direct_words(got.direct_to_reverberant_mid_db()));
    let index = Reading::new(Quantity::SoundMicrophoneSpeechTransmissionIndex, got.sti)
        .by(
            "indirect method, male weights, no masking",
            "IEC 60268-16:2011 (weights from memory); a recording should reach 0.75, aim for 0.85: Fogon's own rule",
        )
        .with("speech over noise", got.snr_dba, "dB", Origin::Computed)
        .with("direct over reverberant", got.direct_to_reverberant_mid_db(), "dB", Origin::Computed)
        .within(0.05)
        .note(intelligibility::words(got.sti));
    let mut over_noise = Reading::new(Quantity::SoundMicrophoneSnrDb, got.snr_dba)
        .by(
            "speech at the microphone less noise there, both A-weighted",
            "direct and reverberant by Beranek; words common practice, no source",
        )
        .with("voice at its reference distance", voice_dba, "dBA", voice_from)
        .with("speech at the microphone", got.speech_dba, "dBA", Origin::Computed)
        .with("noise with the microphone's own", got.noise_dba, "dBA", Origin::Computed)
        .with("the microphone's own", at.self_noise_dba, "dBA", told)
        .within(NOISE_WITHIN_DB);
    if let Some(loudest) = loudest {
        over_noise = over_noise.with("loudest noise there", loudest.level_dba, "dBA", loudest.from);
    }
    let mut all = [direct, index, over_noise.note(noise::ratio_words(got.snr_dba))];
    let noise_assumed = loudest.is_some_and(|loudest| loudest.from == Origin::Assumed);
    let room_assumed = absorption.assumed;
    if noise_assumed || room_assumed {
        let [quick_s, slow_s] = reverberation::assumed_range_s(absorption.rt_mid_s());
        let ends = [(quick_s, -NOISE_WITHIN_DB), (slow_s, NOISE_WITHIN_DB)].map(|(rings_s, more_db)| {
            let room = if room_assumed { absorption.ringing(rings_s) } else { absorption.clone() };
            let noise = if noise_assumed { more_db } else { 0.0 };
            let mut at = at;
            at.noise_db = at.noise_db.map(|db| db + noise);
            pickup(&Scene::new(&room, voice_dba), &at)
        });
        let values: [fn(&pickup::Pickup) -> f64; 3] =
            [pickup::Pickup::direct_to_reverberant_mid_db, |got| got.sti, |got| got.snr_dba];
        all = std::array::from_fn(|i| {
            let [one, other] = [values[i](&ends[0]), values[i](&ends[1])];
            all[i].clone().assumed_within(one, other)
        });
    }
    all
}

/// Low tones that a directional microphone lifts near the mouth.
fn close_up(gear: &GearMicrophone, distance_m: f64) -> String {
    let speed = decay::SPEED_M_S;
    let lift = pattern::proximity_db(gear.pattern_a, 100.0, distance_m, speed);
    if lift < LIFT_DB {
        return String::new();
    }
    let words = crate::units::decimals(lift, 0);
    format!("So near, it lifts 100 Hz by {words} dB: switch its low cut on, 80 to 100 Hz.")
}

/// What is told of the sound and not scored.
pub fn details(corner: &Corner<'_>) -> Vec<Reading> {
    let absorption = Absorption::of(corner);
    let times = absorption.rt60_s();
    let mut all = vec![
        Reading::new(
            Quantity::SoundRoomSchroederHz,
            modes::schroeder_frequency_hz(absorption.volume_m3, absorption::mid(times)),
        )
        .by("2000 sqrt(T / V)", "Schroeder 1996")
        .with("volume", absorption.volume_m3, "m\u{b3}", Origin::Typed)
        .with("reverberation time", absorption::mid(times), "s", Origin::Computed)
        .note("Below this single modes of the room dominate: figures there are indicative."),
        room_noise(corner, &absorption),
    ];
    let (gear, capsule) = corner.heard_by();
    let (scene, at) = scene(corner, &absorption);
    let got = pickup(&scene, &at);
    all.push(
        Reading::new(Quantity::SoundMicrophoneClarityC50Db, got.c50_1k_db)
            .by(
                "10 lg((d + 1 - e) / e), e = exp(-0.05 x 6 ln 10 / T), at 1 kHz",
                "ISO 3382-1, an exponential decay; 15 dB and more is good for a recorded voice: Fogon's own scale",
            )
            .with("reverberation time at 1 kHz", times[3], "s", Origin::Computed)
            .with("direct over reverberant", got.direct_to_reverberant_db[3], "dB", Origin::Computed)
            .within(3.0),
    );
    all.extend(gain::gain_reading(corner, gear, &got));
    if let Some(hit) = reflections::first(corner).iter().find(|r| r.is_furniture) {
        all.push(desk_reading(corner, capsule, hit));
    }
    all
}

/// Background noise where the person sits.
fn room_noise(corner: &Corner<'_>, absorption: &Absorption) -> Reading {
    let round = GearMicrophone {
        common: crate::plan::Common::default(),
        mounting: crate::plan::Mounting::Desk,
        pattern_a: 1.0,
        tube_m: 0.0,
        self_noise_dba: 0.0,
        sensitivity_mv_pa: None,
        wireless: false,
    };
    let all = around::computed(corner, absorption, &round, corner.mouth_m);
    let level = around::together_dba(&all);
    let from = all.first().map_or(Origin::Assumed, |loudest| loudest.from);
    let mut reading = Reading::new(Quantity::SoundRoomNoiseDba, level)
        .by(
            "all noises where you sit, direct and by way of the room, added by energy",
            "Beranek; ISO 16283-3 through windows; levels nobody told are usual ones: common figures, no source",
        )
        .within(4.0)
        .note(noise::room_words(level));
    if let Some(loudest) = all.first() {
        reading = reading.with("loudest noise", loudest.level_dba, "dBA", loudest.from);
    }
    reading.from = from;
    reading
}

/// What a desk does to the voice at the microphone.
fn desk_reading(corner: &Corner<'_>, capsule: DVec3, hit: &reflections::Reflection) -> Reading {
    let level = (capsule - corner.mouth_m).truncate().length();
    let (mouth, above) = (corner.mouth_m.z - hit.point_m.z, capsule.z - hit.point_m.z);
    let comb = desk::comb(mouth, above, level, desk::HARD, decay::SPEED_M_S);
    let level_db = comb.reflection_rel_db.unwrap_or(0.0);
    Reading::new(Quantity::SoundMicrophoneDeskReflectionDb, level_db)
        .by("20 lg(0.95 d / e), d straight, e by way of the desk", "two rays (Everest); words are Fogon's own scale")
        .with("mouth above the desk", mouth, "m", Origin::Computed)
        .with("microphone above it", above, "m", Origin::Computed)
        .with("lowest notch", comb.first_notch_hz.unwrap_or(0.0), "Hz", Origin::Computed)
        .within(2.0)
        .note(match desk::words(level_db) {
            "hollow" => "Hollow: come nearer, lay a towel on the desk where the voice reflects, tilt or flush-mount the microphone, or boom from above.",
            "slight" => "Slight: a towel on the desk where the voice reflects takes it away.",
            _ => "Fine: the desk is hardly heard.",
        })
}
