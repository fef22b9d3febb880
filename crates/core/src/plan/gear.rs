//! Gear by kind, with the figures that the physics needs. Generic: a thing is its kind and its figures.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::reading::Origin;

/// One thing that can be owned or bought.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(tag = "kind", rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Gear {
    Camera(GearCamera),
    Lens(GearLens),
    Light(GearLight),
    Reflector(GearPanel),
    Microphone(GearMicrophone),
    Support(GearSupport),
    Recorder(GearThing),
    Interface(GearThing),
    Monitor(GearMonitor),
    Backdrop(GearBackdrop),
    Treatment(GearTreatment),
    Power(GearThing),
    Cable(GearThing),
    Card(GearThing),
    Accessory(GearThing),
}

/// What every kind has.
#[derive(Debug, Clone, Default, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Common {
    /// What people call it.
    #[schema(min_length = 1, max_length = 120)]
    pub label: String,
    /// Price, in the plan's currency.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    pub price: f64,
    /// Price it can be sold for after its life.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 10_000_000.0)]
    pub resale: f64,
    /// Expected life, years.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.5, maximum = 50.0)]
    pub life_years: Option<f64>,
    /// Mass, kg.
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 500.0)]
    pub mass_kg: f64,
    /// Mains power, W.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 20_000.0)]
    pub power_w: Option<f64>,
    /// Level of its fan 1 m away, dBA; none if it is silent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 90.0)]
    pub fan_noise_1m_dba: Option<f64>,
    /// Power factor (1).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 1.0)]
    pub power_factor: Option<f64>,
    /// Plugs, mounts and inputs that it brings, each for one other thing.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub offers: Vec<String>,
    /// Plugs, mounts and inputs that it cannot work without.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    #[schema(max_items = 12)]
    pub needs: Vec<String>,
    /// The figures are those of its usual kind, not read off the thing itself.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub figures_assumed: bool,
    /// Owned, wanted, never, borrowed.
    #[serde(default)]
    pub state: GearState,
}

impl Common {
    /// Where this thing's figures come from.
    pub fn told(&self) -> Origin {
        if self.figures_assumed { Origin::Assumed } else { Origin::Typed }
    }
}

/// Whether a thing is at hand.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum GearState {
    #[default]
    Owned,
    Wanted,
    Never,
    Borrowed,
}

/// A camera body, or a phone.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearCamera {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Width of the full sensor, mm.
    #[schema(minimum = 1.0, maximum = 70.0)]
    pub sensor_width_mm: f64,
    /// Height of the full sensor, mm.
    #[schema(minimum = 1.0, maximum = 70.0)]
    pub sensor_height_mm: f64,
    /// Linear crop in video beside the 16:9 one (1).
    #[serde(default = "one")]
    #[schema(minimum = 1.0, maximum = 4.0)]
    pub extra_crop: f64,
    /// Lowest ISO setting.
    #[schema(minimum = 25.0, maximum = 409_600.0)]
    pub iso_min: f64,
    /// Highest ISO setting.
    #[schema(minimum = 25.0, maximum = 409_600.0)]
    pub iso_max: f64,
    /// Follows a face by itself.
    #[serde(default)]
    pub face_tracking: bool,
    /// Width of the video it records, pixels (3840).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 320.0, maximum = 16_384.0)]
    pub video_width_px: Option<f64>,
    /// Data rate of the video, Mbit/s (100).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 10_000.0)]
    pub bitrate_mbit_s: Option<f64>,
    /// Longest clip before it stops by itself, from heat or by design, min.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 10_000.0)]
    pub clip_limit_min: Option<f64>,
    /// Energy of its battery, Wh.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 1000.0)]
    pub battery_wh: Option<f64>,
    /// What it draws while recording, W (5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 500.0)]
    pub draw_w: Option<f64>,
    /// Width of a screen that turns to face the person, m; none if it has none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.4)]
    pub flip_screen_width_m: Option<f64>,
    /// What its picture profile holds above an 18 % grey card, stops (2.97).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 12.0)]
    pub headroom_stops: Option<f64>,
}

fn one() -> f64 {
    1.0
}

impl GearCamera {
    /// Active area for 16:9 video, width and height in mm: the largest such rectangle in the sensor, divided
    /// by the extra crop (16:9 raster of ITU-R BT.709, from memory).
    pub fn active_area_mm(&self) -> (f64, f64) {
        let aspect = 16.0 / 9.0;
        let (width, height) = if self.sensor_width_mm / self.sensor_height_mm < aspect {
            (self.sensor_width_mm, self.sensor_width_mm / aspect)
        } else {
            (self.sensor_height_mm * aspect, self.sensor_height_mm)
        };
        (width / self.extra_crop, height / self.extra_crop)
    }
}

/// A lens.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearLens {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Shortest focal length, mm, real.
    #[schema(minimum = 1.0, maximum = 600.0)]
    pub focal_min_mm: f64,
    /// Longest focal length, mm, real.
    #[schema(minimum = 1.0, maximum = 600.0)]
    pub focal_max_mm: f64,
    /// Widest f-number at the shortest focal length.
    #[schema(minimum = 0.7, maximum = 64.0)]
    pub f_number_at_min: f64,
    /// Widest f-number at the longest focal length.
    #[schema(minimum = 0.7, maximum = 64.0)]
    pub f_number_at_max: f64,
    /// Smallest opening; equal to the widest on a fixed aperture.
    #[schema(minimum = 0.7, maximum = 64.0)]
    pub f_number_limit: f64,
    /// Nearest focus from the sensor, m.
    #[schema(minimum = 0.01, maximum = 20.0)]
    pub nearest_focus_m: f64,
    /// Diameter of its filter thread, mm; none if it takes no filter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 10.0, maximum = 200.0)]
    pub filter_mm: Option<f64>,
    /// The body it is built into (a phone, a compact camera); none if it can be changed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub built_into: Option<super::Id>,
}

impl GearLens {
    /// Widest f-number at a focal length, interpolated between the ends.
    pub fn widest_f_number(&self, focal_length_mm: f64) -> f64 {
        let span = self.focal_max_mm - self.focal_min_mm;
        let t = if span > 0.0 { ((focal_length_mm - self.focal_min_mm) / span).clamp(0.0, 1.0) } else { 0.0 };
        self.f_number_at_min + t * (self.f_number_at_max - self.f_number_at_min)
    }
}

/// Outline of an emitting face.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Shape {
    /// Round; width is the diameter.
    Disc,
    /// Width by height.
    Rectangle,
    /// Regular octagon; width is measured across corners.
    Octagon,
    /// Ring; width is the outer diameter, height the inner one.
    Ring,
    /// Long and thin; it shines around its longer side.
    Tube,
    /// A bulb of its width; it shines all round.
    Bulb,
}

/// A lamp with its modifier on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearLight {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Outline of the emitting face.
    pub shape: Shape,
    /// Width of the face, m.
    #[schema(minimum = 0.01, maximum = 4.0)]
    pub width_m: f64,
    /// Height of the face, m.
    #[schema(minimum = 0.01, maximum = 4.0)]
    pub height_m: f64,
    /// Depth of lamp and modifier behind the face, m.
    #[serde(default = "lamp_depth")]
    #[schema(minimum = 0.01, maximum = 3.0)]
    pub depth_m: f64,
    /// Illuminance 1 m from the emitting face, on axis, modifier on, full power, lx.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 1_000_000.0)]
    pub illuminance_at_1m_lx: Option<f64>,
    /// The same of the lamp alone with its reflector, lx; then the beam and the modifier's efficiency count.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 1_000_000.0)]
    pub bare_at_1m_lx: Option<f64>,
    /// Beam of the lamp alone, across at half its intensity, degrees (55).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 170.0)]
    pub bare_beam_deg: Option<f64>,
    /// Light of the lamp alone, lm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 500_000.0)]
    pub flux_lm: Option<f64>,
    /// What it carries before its light source; its efficiency and its warmth follow.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub modifier: Option<super::Modifier>,
    /// Part of the lamp's light that comes out of the face with the modifier on (usual for the modifier, else 0.5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 1.0)]
    pub modifier_efficiency: Option<f64>,
    /// Beam of the face itself, across at half its intensity, degrees (120, a matt face). A tube or bulb without one is
    /// bare and shines round.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 10.0, maximum = 120.0)]
    pub beam_deg: Option<f64>,
    /// Measured on axis with a lux meter, full power, lx.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1.0, maximum = 1_000_000.0)]
    pub measured_lx: Option<f64>,
    /// So far from the emitting face, m.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 20.0)]
    pub measured_at_m: Option<f64>,
    /// Lowest colour temperature, K.
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    pub cct_min_k: f64,
    /// Highest colour temperature, K.
    #[schema(minimum = 1000.0, maximum = 25_000.0)]
    pub cct_max_k: f64,
}

fn lamp_depth() -> f64 {
    0.25
}

/// A board or cloth that throws light back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearPanel {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Width, m.
    #[schema(minimum = 0.05, maximum = 4.0)]
    pub width_m: f64,
    /// Height, m.
    #[schema(minimum = 0.05, maximum = 4.0)]
    pub height_m: f64,
    /// Reflectance.
    #[schema(minimum = 0.0, maximum = 0.98)]
    pub reflectance: f64,
    /// Part of the reflected light that goes as in a mirror: 0 a matt board, 1 a smooth foil, a crumpled one between (0).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub mirror_part: f64,
    /// Part of the light that passes a cloth or paper; none of a board.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.95)]
    pub transmittance: Option<f64>,
}

/// How a microphone is used.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
#[allow(missing_docs)]
pub enum Mounting {
    BuiltIn,
    OnCamera,
    Boom,
    Lavalier,
    Desk,
    Headset,
}

/// A microphone.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearMicrophone {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// How it is used.
    pub mounting: Mounting,
    /// First-order pattern: 1 omni, 0.5 cardioid, 0.25 hypercardioid, 0 figure of eight.
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub pattern_a: f64,
    /// Length of the interference tube, m (0).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 1.0)]
    pub tube_m: f64,
    /// Self-noise, dBA.
    #[schema(minimum = 0.0, maximum = 60.0)]
    pub self_noise_dba: f64,
    /// Sensitivity, mV/Pa.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.1, maximum = 500.0)]
    pub sensitivity_mv_pa: Option<f64>,
    /// No cable to its input.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub wireless: bool,
}

/// A stand, tripod, boom or clamp.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearSupport {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Lowest height of what it carries, m.
    #[schema(minimum = 0.0, maximum = 5.0)]
    pub height_min_m: f64,
    /// Greatest height, m.
    #[schema(minimum = 0.05, maximum = 5.0)]
    pub height_max_m: f64,
    /// Radius of the circle of the feet, m.
    #[schema(minimum = 0.02, maximum = 2.0)]
    pub foot_radius_m: f64,
    /// What it can carry, kg.
    #[schema(minimum = 0.05, maximum = 200.0)]
    pub payload_kg: f64,
    /// Reach of its arm from the column, m (0 = no arm).
    #[serde(default)]
    #[schema(minimum = 0.0, maximum = 4.0)]
    pub reach_m: f64,
    /// On wheels.
    #[serde(default)]
    pub castors: bool,
}

/// What a person sees themselves on.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum ScreenType {
    /// A small monitor at the camera.
    #[default]
    Field,
    /// A phone that shows the camera's picture.
    Phone,
    /// A television or large monitor behind the camera.
    Television,
    /// A laptop below or behind the camera.
    Laptop,
    /// A mirror behind the camera, in which its own screen is seen.
    Mirror,
    /// A half-silvered glass before the lens, over a screen that lies flat.
    Script,
}

impl ScreenType {
    /// What people call it.
    pub fn word(self) -> &'static str {
        match self {
            ScreenType::Field => "field monitor",
            ScreenType::Phone => "phone",
            ScreenType::Television => "television",
            ScreenType::Laptop => "laptop",
            ScreenType::Mirror => "mirror",
            ScreenType::Script => "script screen",
        }
    }
}

/// A screen, a mirror or a script glass.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearMonitor {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// What it is (a field monitor).
    #[serde(default)]
    pub screen: ScreenType,
    /// Width of the picture, or of the mirror, m (usual for its type).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.04, maximum = 3.0)]
    pub width_m: Option<f64>,
    /// Pixels across (1920).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 100.0, maximum = 16_384.0)]
    pub width_px: Option<f64>,
    /// Part of the light that a script glass lets through to the lens (0.7).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.05, maximum = 1.0)]
    pub transmittance: Option<f64>,
    /// Energy of its battery, Wh.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    pub energy_wh: Option<f64>,
}

impl GearMonitor {
    /// Width as given, else usual for its type, m (common practice, no source), and whether it was given.
    pub fn width(&self) -> (f64, Origin) {
        let usual = match self.screen {
            ScreenType::Field => 0.155,
            ScreenType::Phone => 0.14,
            ScreenType::Television => 0.89,
            ScreenType::Laptop => 0.30,
            ScreenType::Mirror => 0.30,
            ScreenType::Script => 0.20,
        };
        self.width_m.map_or((usual, Origin::Assumed), |width| (width, self.common.told()))
    }

    /// Part of the light that a script glass lets through: as given, else 0.7 (common practice, no source).
    pub fn script_transmittance(&self) -> f64 {
        self.transmittance.unwrap_or(0.7)
    }

    /// Height of a 16:9 picture, m.
    pub fn height_m(&self) -> f64 {
        self.width().0 * 9.0 / 16.0
    }
}

/// What hangs or stands behind the person.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum BackdropType {
    /// A roll of paper.
    Paper,
    /// A curtain.
    Curtain,
    /// Boards or panels.
    Boards,
    /// A plain cloth.
    Cloth,
    /// A screen of one pure colour, to be keyed out.
    Chroma,
}

/// A backdrop.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearBackdrop {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// What it is.
    pub backdrop: BackdropType,
    /// Width, m.
    #[schema(minimum = 0.5, maximum = 12.0)]
    pub width_m: f64,
    /// Height, m.
    #[schema(minimum = 0.5, maximum = 6.0)]
    pub height_m: f64,
    /// Diffuse reflectance (0.5).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.02, maximum = 0.95)]
    pub reflectance: Option<f64>,
}

/// Something that takes sound out of the room: a panel, a curtain, blankets, a rug.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearTreatment {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Row of the absorption table, as `blanket_pleated`.
    pub material: String,
    /// Width as it hangs or lies, m.
    #[schema(minimum = 0.1, maximum = 10.0)]
    pub width_m: f64,
    /// Height as it hangs, or length as it lies, m.
    #[schema(minimum = 0.1, maximum = 10.0)]
    pub height_m: f64,
    /// Thickness of a porous layer, m; with its flow resistivity its absorption is worked out in place of the row's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.005, maximum = 1.0)]
    pub thickness_m: Option<f64>,
    /// Gap between it and the wall, m (0).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 2.0)]
    pub air_gap_m: Option<f64>,
    /// Flow resistivity of a porous layer, Pa s/m2.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 1000.0, maximum = 100_000.0)]
    pub flow_resistivity_pa_s_m2: Option<f64>,
}

impl GearTreatment {
    /// Area as it hangs, m2.
    pub fn area_m2(&self) -> f64 {
        self.width_m * self.height_m
    }

    /// It lies on the floor rather than hangs.
    pub fn lies(&self) -> bool {
        crate::material::material(&self.material).is_some_and(|row| row.kind == crate::material::Use::Floor)
    }
}

/// Gear that matters by what it offers and needs.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct GearThing {
    /// What every kind has.
    #[serde(flatten)]
    pub common: Common,
    /// Energy, Wh.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    pub energy_wh: Option<f64>,
    /// Capacity, GB.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100_000.0)]
    pub capacity_gb: Option<f64>,
    /// Writing speed that a card keeps up, MB/s.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.5, maximum = 20_000.0)]
    pub write_mb_s: Option<f64>,
    /// Noise of its microphone input, dBu, A-weighted (EIN).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -140.0, maximum = -60.0)]
    pub input_noise_dbu: Option<f64>,
    /// Level at its input that fills the scale at no gain, dBu.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = -40.0, maximum = 40.0)]
    pub full_scale_dbu: Option<f64>,
    /// Most gain of its microphone input, dB.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[schema(minimum = 0.0, maximum = 100.0)]
    pub gain_max_db: Option<f64>,
}

impl Gear {
    /// What every kind has.
    pub fn common(&self) -> &Common {
        match self {
            Gear::Camera(g) => &g.common,
            Gear::Lens(g) => &g.common,
            Gear::Light(g) => &g.common,
            Gear::Reflector(g) => &g.common,
            Gear::Microphone(g) => &g.common,
            Gear::Support(g) => &g.common,
            Gear::Monitor(g) => &g.common,
            Gear::Backdrop(g) => &g.common,
            Gear::Treatment(g) => &g.common,
            Gear::Recorder(g)
            | Gear::Interface(g)
            | Gear::Power(g)
            | Gear::Cable(g)
            | Gear::Card(g)
            | Gear::Accessory(g) => &g.common,
        }
    }

    /// The same, to be changed.
    pub fn common_mut(&mut self) -> &mut Common {
        match self {
            Gear::Camera(g) => &mut g.common,
            Gear::Lens(g) => &mut g.common,
            Gear::Light(g) => &mut g.common,
            Gear::Reflector(g) => &mut g.common,
            Gear::Microphone(g) => &mut g.common,
            Gear::Support(g) => &mut g.common,
            Gear::Monitor(g) => &mut g.common,
            Gear::Backdrop(g) => &mut g.common,
            Gear::Treatment(g) => &mut g.common,
            Gear::Recorder(g)
            | Gear::Interface(g)
            | Gear::Power(g)
            | Gear::Cable(g)
            | Gear::Card(g)
            | Gear::Accessory(g) => &mut g.common,
        }
    }

    /// At hand: owned or borrowed.
    pub fn at_hand(&self) -> bool {
        matches!(self.common().state, GearState::Owned | GearState::Borrowed)
    }

    /// The camera, if it is one.
    pub fn camera(&self) -> Option<&GearCamera> {
        if let Gear::Camera(g) = self { Some(g) } else { None }
    }
    /// The lens, if it is one.
    pub fn lens(&self) -> Option<&GearLens> {
        if let Gear::Lens(g) = self { Some(g) } else { None }
    }
    /// The light, if it is one.
    pub fn light(&self) -> Option<&GearLight> {
        if let Gear::Light(g) = self { Some(g) } else { None }
    }
    /// The reflector, if it is one.
    pub fn reflector(&self) -> Option<&GearPanel> {
        if let Gear::Reflector(g) = self { Some(g) } else { None }
    }
    /// The microphone, if it is one.
    pub fn microphone(&self) -> Option<&GearMicrophone> {
        if let Gear::Microphone(g) = self { Some(g) } else { None }
    }
    /// The monitor, if it is one.
    pub fn monitor(&self) -> Option<&GearMonitor> {
        if let Gear::Monitor(g) = self { Some(g) } else { None }
    }
    /// The backdrop, if it is one.
    pub fn backdrop(&self) -> Option<&GearBackdrop> {
        if let Gear::Backdrop(g) = self { Some(g) } else { None }
    }
    /// What takes sound out of the room, if it does.
    pub fn treatment(&self) -> Option<&GearTreatment> {
        if let Gear::Treatment(g) = self { Some(g) } else { None }
    }
    /// Recorder, interface and other things, if it is one.
    pub fn thing(&self) -> Option<&GearThing> {
        match self {
            Gear::Recorder(g)
            | Gear::Interface(g)
            | Gear::Power(g)
            | Gear::Cable(g)
            | Gear::Card(g)
            | Gear::Accessory(g) => Some(g),
            _ => None,
        }
    }
    /// The support, if it is one.
    pub fn support(&self) -> Option<&GearSupport> {
        if let Gear::Support(g) = self { Some(g) } else { None }
    }
}
