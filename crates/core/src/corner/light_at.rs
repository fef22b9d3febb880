//! A light or a board with its gear looked up.

use crate::geometry::DVec3;
use crate::photometry::{Face, face_of};
use crate::plan::{Common, GearLight, GearPanel, Gel, Id, Light, Modifier, Shape, ThingId};

/// A light or reflector with its gear.
#[derive(Debug, Clone, Copy)]
pub struct LightAt<'a> {
    /// Its id in the layout.
    pub id: &'a Id,
    /// As placed.
    pub light: &'a Light,
    /// A lamp, or a board.
    pub source: Source<'a>,
    /// Middle of the face, m.
    pub position_m: DVec3,
    /// Point it faces, m.
    pub aim_m: DVec3,
    /// The cloth that hangs before it, and how far from the lamp, m.
    pub cloth: Option<(&'a GearPanel, f64)>,
}

/// What a light entry is.
#[derive(Debug, Clone, Copy)]
pub enum Source<'a> {
    /// It emits.
    Lamp(&'a GearLight),
    /// It throws back what falls on it.
    Board(&'a GearPanel),
}

impl LightAt<'_> {
    /// The face that shines, at its dial setting and through its gel: of a lamp with a cloth before it the lamp's own,
    /// behind the cloth. A board's luminance is 0 until something lights it.
    pub fn face(&self) -> Face {
        match self.source {
            Source::Lamp(lamp) => {
                let behind = self.direction() * self.cloth.map_or(0.0, |(_, ahead_m)| ahead_m);
                let face = face_of(lamp, self.position_m - behind, self.aim_m);
                let passes = self.light.gel.map_or(1.0, Gel::transmittance);
                Face { luminance_cd_m2: face.luminance_cd_m2 * self.light.dim * passes, ..face }
            }
            Source::Board(_) => self.dark_face(),
        }
    }

    /// What the face of the person sees, as a shape alone, its luminance 0: the cloth where one hangs before the lamp.
    pub fn dark_face(&self) -> Face {
        let (shape, width_m, height_m) = match (self.source, self.cloth) {
            (_, Some((cloth, _))) => (Shape::Rectangle, cloth.width_m, cloth.height_m),
            (Source::Lamp(lamp), None) => (lamp.shape, lamp.width_m, lamp.height_m),
            (Source::Board(board), None) => (Shape::Rectangle, board.width_m, board.height_m),
        };
        Face::new(shape, width_m, height_m, self.position_m, self.aim_m, 0.0)
    }

    /// Unit vector along which it shines.
    pub fn direction(&self) -> DVec3 {
        (self.aim_m - self.position_m).normalize_or(-DVec3::Z)
    }

    /// Depth of the body behind the face, m; with a cloth, from the cloth to the lamp's back.
    pub fn depth_m(&self) -> f64 {
        match self.source {
            Source::Lamp(lamp) => lamp.depth_m + self.cloth.map_or(0.0, |(_, ahead_m)| ahead_m),
            Source::Board(_) => 0.02,
        }
    }

    /// Where the stand holds it: the back of its body, m.
    pub fn hold_m(&self) -> DVec3 {
        self.position_m + (self.position_m - self.aim_m).normalize_or_zero() * self.depth_m()
    }

    /// Its correlated colour temperature as it leaves gel and cloth, K: as set, else the middle of its range in mired.
    pub fn cct_k(&self) -> f64 {
        let Source::Lamp(lamp) = self.source else { return 5600.0 };
        let set = self.light.cct_k.unwrap_or(2e6 / (1e6 / lamp.cct_min_k + 1e6 / lamp.cct_max_k));
        let modifier = if self.cloth.is_some() { Some(Modifier::Softbox) } else { lamp.modifier };
        let shift =
            self.light.gel.map_or(0.0, Gel::shift_mired) + modifier.map_or(0.0, Modifier::warms_mired);
        1e6 / (1e6 / set + shift).max(20.0)
    }

    /// What every kind of gear has.
    pub fn common(&self) -> &Common {
        match self.source {
            Source::Lamp(lamp) => &lamp.common,
            Source::Board(board) => &board.common,
        }
    }

    /// Mass on the support, kg.
    pub fn mass_kg(&self) -> f64 {
        self.common().mass_kg
    }

    /// What people call it.
    pub fn label(&self) -> &str {
        &self.common().label
    }
}

impl LightAt<'_> {
    /// In words: `key`, `back light`.
    pub fn words(&self) -> String {
        ThingId::Light(self.id.clone()).words()
    }

    /// What it is called, with what it is where it is no lamp.
    pub fn called(&self) -> String {
        match self.source {
            Source::Board(_) => format!("{} (board)", self.words()),
            Source::Lamp(_) => self.words(),
        }
    }
}
