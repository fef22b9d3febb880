//! The table of schools: where practitioners disagree, the default, and why. One entry per disagreement.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// One disagreement, as shown to a person.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct School {
    /// Id, as in `brief.schools`.
    pub id: &'static str,
    /// Choices, the default first.
    pub choices: Vec<SchoolChoice>,
    /// Why the default is the default.
    pub reason: &'static str,
    /// Where the reason comes from.
    pub source: &'static str,
    /// Readings that it changes.
    pub readings: &'static [&'static str],
}

/// One choice within a school.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct SchoolChoice {
    /// Id of the choice.
    pub id: &'static str,
    /// In words.
    pub label: &'static str,
}

macro_rules! schools {
    ($(
        $(#[$doc:meta])*
        $field:ident: $name:ident = $id:literal {
            $first:ident = $first_id:literal $first_label:literal
            $(, $choice:ident = $choice_id:literal $choice_label:literal)* $(,)?
        }
        because $reason:literal from $source:literal changes [$($reading:literal),*];
    )+) => {
        $(
            $(#[$doc])*
            #[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Hash, Serialize, Deserialize)]
            #[allow(missing_docs)]
            pub enum $name {
                #[default]
                #[serde(rename = $first_id)]
                $first,
                $(#[serde(rename = $choice_id)] $choice,)*
            }

            // The derive does not see through a literal that a macro passes on.
            impl utoipa::PartialSchema for $name {
                fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
                    utoipa::openapi::schema::ObjectBuilder::new()
                        .schema_type(utoipa::openapi::schema::Type::String)
                        .enum_values(Some([$first_id $(, $choice_id)*]))
                        .into()
                }
            }
            impl ToSchema for $name {}
        )+

        /// The schools a person has chosen; the rest are at their defaults.
        #[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
        #[serde(rename_all = "kebab-case")]
        pub struct Schools {
            $($(#[$doc])* #[serde(default, skip_serializing_if = "is_default")] pub $field: $name,)+
        }

        /// The table, in the order of the work.
        pub fn all_schools() -> Vec<School> {
            vec![$(School {
                id: $id,
                choices: vec![
                    SchoolChoice { id: $first_id, label: $first_label },
                    $(SchoolChoice { id: $choice_id, label: $choice_label },)*
                ],
                reason: $reason,
                source: $source,
                readings: &[$($reading),*],
            }),+]
        }
    };
}

fn is_default<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

schools! {
    /// Where the head stands in the picture.
    placement: Placement = "placement" { Thirds = "thirds" "Eyes on the upper third", Centred = "centred" "Eyes in the middle" }
        because "An upper-third eye line leaves little empty space over the head." from "common practice, no source"
        changes ["shot.frame.headroom_fraction", "shot.frame.eye_line_error"];
    /// Which distance and lens.
    lens: LensSchool = "lens" { FarAndLong = "far-and-long" "Longer lens, further back", NearAndWide = "near-and-wide" "Wide lens, near" }
        because "From well beyond arm's length the face keeps its proportions and the background softens." from "perspective: Ward et al., JAMA Facial Plast Surg 2018 (from memory); ranges common practice, no source"
        changes ["shot.camera.distance_m", "shot.background.blur_percent"];
    /// Which aperture.
    aperture: Aperture = "aperture" { AboutF4 = "about-f4" "About f/4", WideOpen = "wide-open" "Wide open" }
        because "At about f/4 an ordinary lean stays sharp without face tracking." from "depth of field of the thin lens; f/4 common practice, no source"
        changes ["shot.focus.front_tolerance_m", "light.face.exposure_stops"];
    /// How high the camera is.
    camera_height: CameraHeight = "camera-height" { Level = "level" "At eye level", SlightlyBelow = "slightly-below" "Slightly below the eyes" }
        because "A lens at eye level neither looks up nor down at the speaker." from "common practice, no source"
        changes ["shot.camera.view_angle_deg"];
    /// How many lights.
    lights: LightSchool = "lights" { ThreePoint = "three-point" "Key, fill and hair light", KeyAndFill = "key-and-fill" "Key and fill", One = "one" "One light", Ring = "ring" "A ring light round the lens", Even = "even" "Even, from both sides", WindowOnly = "window-only" "The window alone" }
        because "A hair light separates dark hair from a dark wall." from "common practice, no source"
        changes ["light.face.ratio", "light.key.azimuth_deg", "light.back.flare_margin_deg"];
    /// How large the key is.
    source: SourceSchool = "source" { BigSoft = "big-soft" "Large and soft", SmallNear = "small-near" "Small, room stays usable" }
        because "A large source forgives movement and glasses." from "size of the source as the face sees it"
        changes ["light.key.angular_size_deg"];
    /// Which microphone.
    microphone: MicrophoneSchool = "microphone" { Boom = "boom" "Boomed, out of the picture", Lavalier = "lavalier" "Worn", Desk = "desk" "On the desk", InShot = "in-shot" "In the picture" }
        because "A boomed microphone sounds natural and cannot rustle." from "common practice, no source"
        changes ["sound.microphone.distance_m"];
    /// What money goes to first.
    spending: Spending = "spending" { Sound = "sound" "Sound first", Light = "light" "Light first", Lens = "lens" "Lens first", SetAndLight = "set-and-light" "Set and light first" }
        because "Listeners leave bad sound sooner than a bad picture." from "common practice, no source"
        changes ["score"];
    /// Frames per second.
    frame_rate: FrameRate = "frame-rate" { ByMains = "by-mains" "25 at 50 Hz, 30 at 60 Hz", Fps24 = "24" "24", Fps25 = "25" "25", Fps30 = "30" "30", Fps60 = "60" "60" }
        because "Half the mains frequency gives a flicker-free shutter of exactly 180 degrees." from "light of lamps pulses at twice the mains frequency"
        changes ["light.face.exposure_stops"];
    /// What to do with the window.
    window: WindowSchool = "window" { ShutOut = "shut-out" "Shut out", Key = "key" "As the key" }
        because "A shut-out window gives the same picture at every hour." from "common practice, no source"
        changes ["light.face.illuminance_lx", "light.face.ratio"];
    /// Where the sound is recorded.
    record: RecordSchool = "record" { IntoCamera = "into-camera" "Into the camera", Separate = "separate" "Separate recorder and clap" }
        because "One file needs no joining; a recorder of its own has better inputs, and fails where nobody looks." from "common practice, no source"
        changes ["sound.microphone.gain_db"];
    /// What the gear stands on.
    rig: RigSchool = "rig" { Separate = "separate" "Separate stands", Column = "column" "One rolling column", Fixed = "fixed" "Fixed to wall and ceiling" }
        because "Separate stands place freely." from "common practice, no source"
        changes ["room.floor.in_use_m2", "room.floor.parked_m2", "ready.corner.time_s"];
    /// How the person sees themselves.
    monitor: MonitorSchool = "monitor" { FlipScreen = "flip-screen" "Flip screen", Field = "field" "Field monitor", Phone = "phone" "Phone", Television = "television" "Television", Mirror = "mirror" "Mirror" }
        because "A flip screen is already there." from "common practice, no source"
        changes ["shot.screen.gaze_deg", "shot.screen.focus_times", "shot.screen.letter_mm"];
    /// What lights the background.
    background: BackgroundSchool = "background" { Natural = "natural" "Natural", Coloured = "coloured" "Coloured light" }
        because "A natural background needs no further lamp." from "common practice, no source"
        changes ["light.background.stops"];
}
