//! A thing in the corner: pieces of what it is made, and what it is.

use crate::geometry::{DVec2, Solid};
use crate::plan::ThingId;

/// What a thing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum Kind {
    Person,
    Furniture,
    Camera,
    Light,
    Microphone,
    Screen,
    Backdrop,
    Angle,
}

/// What one piece of a thing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
#[allow(missing_docs)]
pub enum What {
    Head,
    Body,
    Torso,
    Legs,
    Chair,
    Top,
    Leg,
    Sheet,
    Column,
    Feet,
    Tripod,
    Boom,
}

impl What {
    /// In words.
    pub fn word(self) -> &'static str {
        match self {
            What::Head => "head",
            What::Body => "body",
            What::Torso => "torso",
            What::Legs => "legs",
            What::Chair => "chair",
            What::Top => "top",
            What::Leg => "leg",
            What::Sheet => "sheet",
            What::Column => "column",
            What::Feet => "feet",
            What::Tripod => "leg",
            What::Boom => "arm",
        }
    }

    /// Part of a stand.
    pub fn is_of_stand(self) -> bool {
        match self {
            What::Column | What::Feet | What::Tripod | What::Boom => true,
            What::Head
            | What::Body
            | What::Torso
            | What::Legs
            | What::Chair
            | What::Top
            | What::Leg
            | What::Sheet => false,
        }
    }

    /// So thin that neither sound nor a tape along the floor is kept back.
    pub fn is_thin(self) -> bool {
        self.is_of_stand() || self == What::Leg
    }
}

/// A stand, to tell whether two things are on one.
pub type Stand = (crate::plan::Id, [i64; 2]);

/// One convex piece of a thing.
#[derive(Debug, Clone)]
pub struct Piece {
    /// What it is.
    pub what: What,
    /// Its shape.
    pub solid: Solid,
}

/// A thing made of solids.
#[derive(Debug, Clone)]
pub struct Thing {
    /// Which thing.
    pub id: ThingId,
    /// In words.
    pub label: String,
    /// What it is.
    pub kind: Kind,
    /// The floor stand that carries it: things on one stand have the same.
    pub stand: Option<Stand>,
    /// The furniture, the door or (as the camera) the camera's stand that it stands on or is clamped to.
    pub on: Option<ThingId>,
    /// The lens looks through it.
    pub glass: bool,
    /// May be moved by a layout.
    pub moved: bool,
    /// Its pieces.
    pub pieces: Vec<Piece>,
}

impl Thing {
    /// A thing that a layout places and no stand carries.
    pub(super) fn new(id: ThingId, kind: Kind, label: String, pieces: Vec<Piece>) -> Self {
        Self { id, label, kind, stand: None, on: None, glass: false, moved: true, pieces }
    }

    /// One of its pieces in words: `the arm of Boom, long`, `your head`.
    pub fn piece_words(&self, what: What) -> String {
        match self.kind {
            Kind::Person => format!("your {}", what.word()),
            _ => format!("the {} of {}", what.word(), self.label),
        }
    }
}

pub(super) fn upright_box(
    middle: DVec2,
    facing: DVec2,
    half_width: f64,
    half_depth: f64,
    from_z: f64,
    to_z: f64,
) -> Solid {
    let across = DVec2::new(facing.y, -facing.x) * half_width;
    let along = facing * half_depth;
    let outline =
        [middle - across - along, middle + across - along, middle + across + along, middle - across + along];
    Solid::prism(&outline, from_z, to_z)
}
