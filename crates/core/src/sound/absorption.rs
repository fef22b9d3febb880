//! What takes sound out of a corner's room, part by part: surfaces, what covers them, openings, furniture, the person, air.

use std::collections::BTreeMap;
use std::sync::OnceLock;

use super::air::{self, ROOM_AIR};
use super::decay::{UNKNOWN_S, absorption_for_m2, eyring_s, sabine_s};
use super::field::room_constant_m2;
use super::voice::{SPEECH_HZ, SpeechBands};
use crate::corner::Corner;
use crate::geometry::{DVec2, DVec3, area_beyond_m2};
use crate::material::{Bands, MATERIALS, Material, PERSON_M2, material};
use crate::plan::{FurnitureKind, GearTreatment, Id, Opening, OpeningKind, Room, Treatment, WALL_NAMES};
use crate::reading::{Origin, Quantity};
use crate::units::lower_first;

/// No surface counts as open as a hole, and no room as open air.
const MOST: f64 = 0.99;

/// One thing that absorbs.
#[derive(Debug, Clone, PartialEq)]
pub struct Absorber {
    /// What it is, in words.
    pub what: String,
    /// Id of the opening, the hung thing or the piece of furniture.
    pub id: Option<Id>,
    /// The surface of the room that it is or lies on, by name.
    pub surface: Option<String>,
    /// Area, m2, where the figure rests on one.
    pub area_m2: Option<f64>,
    /// Absorption area by band, m2.
    pub absorption_m2: Bands,
    /// How its figures were come by.
    pub from: Origin,
    /// It hangs or lies there as treatment.
    pub is_hung: bool,
}

/// Everything that absorbs in a room.
#[derive(Debug, Clone, PartialEq)]
pub struct Absorption {
    /// Part by part; what an unknown room must hold beside them last.
    pub parts: Vec<Absorber>,
    /// Air, m3.
    pub volume_m3: f64,
    /// Walls, floor and ceiling, m2.
    pub surface_m2: f64,
    /// Not every surface is known, nor the time it rings measured: calibrated to a furnished room of 0.5 s.
    pub assumed: bool,
}

impl Absorption {
    /// Of a corner's room with everything in it, brought to agree with a time that was measured.
    pub fn of(corner: &Corner<'_>) -> Self {
        let measured = corner.brief.measured_value(Quantity::SoundRoomRtMidS).filter(|s| *s > 0.0);
        let mut all = Self::computed(corner);
        match (measured, &corner.brief.clap) {
            (Some(measured_s), _) => all.add(&all.beyond(measured_s)),
            // What that time showed beside what hung then is there whatever hangs now.
            (None, Some(clap)) => all.add(&Self::hung_with(corner, &clap.treatment).beyond(clap.rt_mid_s)),
            (None, None) => return all,
        }
        all.assumed = false;
        all
    }

    /// The same as computed, whatever was measured.
    pub fn computed(corner: &Corner<'_>) -> Self {
        Self::hung_with(corner, &corner.layout.treatment)
    }

    fn hung_with(corner: &Corner<'_>, treatment: &BTreeMap<Id, Treatment>) -> Self {
        let room = &corner.brief.room;
        let (volume_m3, surface_m2) =
            (room.volume_m3(), room.surfaces_m2().iter().map(|(_, area)| area).sum::<f64>());
        let (mut parts, assumed) = parts(corner, Some(treatment));
        // What a furnished room must hold beyond hard surfaces to ring so long stays in, whatever is known of it.
        let furnished = match corner.brief.room.furnishing {
            _ if !assumed => None,
            None => Some(UNKNOWN_S),
            Some(furnishing) => furnishing.rings_s(),
        };
        if let Some(rings_s) = furnished {
            let bare = sum(self::parts(corner, None).0.iter());
            let more = std::array::from_fn(|band| {
                let air = air_m()[band];
                (absorption_for_m2(volume_m3, surface_m2, rings_s, air) - bare[band]).max(0.0)
            });
            parts.push(rest("what else a furnished room holds", more));
        }
        // Who told what is in the room has told how it rings.
        let assumed = assumed && corner.brief.room.furnishing.is_none();
        Self { parts, volume_m3, surface_m2, assumed }
    }

    /// The same room, if it rang so long, s.
    #[must_use]
    pub fn ringing(&self, mid_s: f64) -> Self {
        let mut other = self.clone();
        other.add(&other.beyond(mid_s));
        other
    }

    /// What a measured time shows beyond the parts, alike in all bands (residual absorption).
    fn beyond(&self, measured_s: f64) -> Beyond {
        let modelled = mid(self.total_m2());
        let air = (air_m()[2] + air_m()[3]) / 2.0;
        let wanted = absorption_for_m2(self.volume_m3, self.surface_m2, measured_s, air);
        let scale = wanted / modelled;
        if scale >= 1.0 {
            return Beyond::More(self.total_m2().map(|m2| m2 * (scale - 1.0)));
        }
        // The room was taken for too soft; what hangs is known.
        let hung = mid(sum(self.parts.iter().filter(|part| part.is_hung)));
        if wanted > hung {
            Beyond::RoomTimes((wanted - hung) / (modelled - hung))
        } else {
            Beyond::Times(scale)
        }
    }

    fn add(&mut self, beyond: &Beyond) {
        match beyond {
            Beyond::More(more) => self.parts.push(Absorber {
                from: Origin::Measured,
                ..rest("what the measured time shows beside", *more)
            }),
            Beyond::Times(scale) => self.times(*scale, |_| true),
            Beyond::RoomTimes(scale) => self.times(*scale, |part| !part.is_hung),
        }
    }

    fn times(&mut self, scale: f64, of: impl Fn(&Absorber) -> bool) {
        for part in self.parts.iter_mut().filter(|part| of(part)) {
            part.absorption_m2 = part.absorption_m2.map(|m2| m2 * scale);
        }
    }

    /// Absorption area by band, m2, held below what the surface allows; without air.
    pub fn total_m2(&self) -> Bands {
        sum(self.parts.iter()).map(|m2| m2.min(MOST * self.surface_m2))
    }

    /// Reverberation time by band, Eyring with air, s.
    pub fn rt60_s(&self) -> Bands {
        self.by_band(|m2, air| eyring_s(self.volume_m3, self.surface_m2, m2, air))
    }

    /// The same by Sabine.
    pub fn sabine_s(&self) -> Bands {
        self.by_band(|m2, air| sabine_s(self.volume_m3, m2, air))
    }

    fn by_band(&self, time: impl Fn(f64, f64) -> f64) -> Bands {
        let total = self.total_m2();
        std::array::from_fn(|band| time(total[band], air_m()[band]))
    }

    /// Reverberation time in the bands of speech, s: 8 kHz with the surfaces of 4 kHz and its own air.
    pub fn speech_rt60_s(&self) -> SpeechBands {
        let total = self.total_m2();
        std::array::from_fn(|band| {
            eyring_s(self.volume_m3, self.surface_m2, total[band.min(5)], air_m()[band])
        })
    }

    /// Room constant in the bands of speech, m2, air counted as absorption.
    pub fn room_constants_m2(&self) -> SpeechBands {
        let total = self.total_m2();
        std::array::from_fn(|band| {
            let with_air = total[band.min(5)] + 4.0 * air_m()[band] * self.volume_m3;
            room_constant_m2(with_air.min(MOST * self.surface_m2), self.surface_m2)
        })
    }

    /// Mean of 500 Hz and 1 kHz, s.
    pub fn rt_mid_s(&self) -> f64 {
        mid(self.rt60_s())
    }

    /// Absorption coefficients of a surface as a whole, with what covers it and what hangs there.
    pub fn of_surface(&self, name: &str, area_m2: f64) -> Bands {
        let on = self.parts.iter().filter(|part| part.surface.as_deref() == Some(name));
        let sum = on.fold([0.0; 6], |sum: Bands, part| add(sum, part.absorption_m2));
        sum.map(|m2| (m2 / area_m2.max(0.01)).clamp(0.0, MOST))
    }

    /// Absorption coefficients at one place of a surface: of what hangs there, else of the door or window, else of the
    /// rest of the surface.
    pub fn at(&self, corner: &Corner<'_>, surface: &str, point_m: DVec3) -> Bands {
        let room = &corner.brief.room;
        let hung = corner.layout.treatment.iter().find(|(_, hung)| {
            hung.on.0 == surface
                && corner.brief.gear.get(&hung.gear).and_then(|g| g.treatment()).is_some_and(|gear| {
                    let size = hung.size_m(gear);
                    let off = point_m - DVec3::from(hung.position_m);
                    room.surface(surface).is_some_and(|plane| {
                        plane.axes.iter().zip(size).all(|(axis, side)| off.dot(*axis).abs() <= side / 2.0)
                    })
                })
        });
        let opening = || room.opening_at(point_m.truncate(), point_m.z);
        let id = hung.map(|(id, _)| id).or_else(opening);
        let on: Vec<&Absorber> =
            self.parts.iter().filter(|p| p.surface.as_deref() == Some(surface)).collect();
        let one = id.and_then(|id| on.iter().find(|part| part.id.as_ref() == Some(id)));
        let of: Vec<&Absorber> = match one {
            Some(part) => vec![part],
            None => on.into_iter().filter(|part| part.id.is_none()).collect(),
        };
        let area: f64 = of.iter().filter_map(|part| part.area_m2).sum();
        let m2 = of.iter().fold([0.0; 6], |sum: Bands, part| add(sum, part.absorption_m2));
        m2.map(|m2| if area > 1e-9 { (m2 / area).clamp(0.0, MOST) } else { 0.0 })
    }

    /// What lies on no surface, m2 by band: furniture, the person, what an unknown room holds.
    pub fn loose_m2(&self) -> Bands {
        let loose = self.parts.iter().filter(|part| part.surface.is_none());
        loose.fold([0.0; 6], |sum: Bands, part| add(sum, part.absorption_m2))
    }
}

/// What the air of a heated room takes in the bands of speech, 1/m; the first six are the room's.
pub fn air_m() -> &'static SpeechBands {
    static TABLE: OnceLock<SpeechBands> = OnceLock::new();
    TABLE.get_or_init(|| SPEECH_HZ.map(|hz| air::coefficient_m(hz, ROOM_AIR.0, ROOM_AIR.1)))
}

/// Mid-frequency mean of a band row: 500 Hz and 1 kHz.
pub fn mid(bands: Bands) -> f64 {
    (bands[2] + bands[3]) / 2.0
}

fn add(a: Bands, b: Bands) -> Bands {
    std::array::from_fn(|band| a[band] + b[band])
}

fn sum<'a>(parts: impl Iterator<Item = &'a Absorber>) -> Bands {
    parts.fold([0.0; 6], |all, part| add(all, part.absorption_m2))
}

fn rest(what: &str, absorption_m2: Bands) -> Absorber {
    Absorber {
        what: what.into(),
        id: None,
        surface: None,
        area_m2: None,
        absorption_m2,
        from: Origin::Assumed,
        is_hung: false,
    }
}

/// Absorption of an area of a material, m2.
fn over(row: Bands, area_m2: f64) -> Bands {
    row.map(|alpha| alpha.min(MOST) * area_m2)
}

/// Finish of an opening.
fn opening_row(opening: &Opening) -> &'static Material {
    let name = match opening.kind {
        OpeningKind::Door => "door_solid",
        OpeningKind::Window => opening.glazing.map_or("window_double_10mm", |g| g.material()),
    };
    material(name).unwrap_or(&MATERIALS[0])
}

/// What a measured time shows beyond what is computed: more absorption by band, m2, or less of everything.
enum Beyond {
    More(Bands),
    RoomTimes(f64),
    Times(f64),
}

/// Everything known with these things hung, and whether a surface is not; without them every surface is taken as hard.
fn parts(corner: &Corner<'_>, given: Option<&BTreeMap<Id, Treatment>>) -> (Vec<Absorber>, bool) {
    let unknown = material("hard_average").unwrap_or(&MATERIALS[0]);
    let room = &corner.brief.room;
    let mut areas = room.surfaces_m2();
    let mut all: Vec<Absorber> = Vec::new();
    let mut assumed = false;
    for (id, opening) in &room.openings {
        let Some((name, left)) = areas.get_mut(usize::from(opening.wall)) else { continue };
        let area = (opening.width_m * opening.height_or_usual_m()).min(*left);
        *left -= area;
        all.push(Absorber {
            what: id.words(),
            id: Some(id.clone()),
            surface: Some((*name).into()),
            area_m2: Some(area),
            absorption_m2: over(opening_row(opening).absorption, area),
            from: if opening.glazing.is_some() { Origin::Typed } else { Origin::Assumed },
            is_hung: false,
        });
    }
    if let Some(treatment) = given {
        let mut covered: Vec<(&Id, Vec<DVec2>)> = Vec::new();
        for (id, hung) in treatment {
            let gear = corner.brief.gear.get(&hung.gear).and_then(|g| g.treatment());
            let left = areas.iter_mut().find(|(name, _)| *name == hung.on.0.as_str());
            let plane = room.surface(&hung.on.0);
            let (Some(gear), Some((name, left)), Some(plane)) = (gear, left, plane) else { continue };
            // Where two hang over each other the front one counts.
            let outline = hung.outline_m(gear, &plane);
            let others: Vec<&[DVec2]> =
                covered.iter().filter(|(on, _)| **on == hung.on).map(|(_, other)| other.as_slice()).collect();
            let area = area_beyond_m2(&outline, &others).min(*left);
            covered.push((&hung.on, outline));
            *left -= area;
            all.push(Absorber {
                what: id.words(),
                id: Some(id.clone()),
                surface: Some((*name).into()),
                area_m2: Some(area),
                absorption_m2: over(of_treatment(gear), area),
                from: gear.common.figures_from(),
                is_hung: true,
            });
        }
    }
    for (name, mut area) in areas {
        let told = room.surfaces.get(name);
        if let Some((cover, part)) = told.filter(|_| given.is_some()).and_then(|s| s.cover()) {
            let covered = area * part;
            area -= covered;
            let floor = told.and_then(|s| s.material.as_deref()).and_then(material);
            all.push(Absorber {
                what: format!("{} on the {}", lower_first(cover.label), surface_words(room, name)),
                id: None,
                surface: Some(name.into()),
                area_m2: Some(covered),
                absorption_m2: over(never_less(cover, floor), covered),
                from: Origin::Typed,
                is_hung: false,
            });
        }
        let row = told.and_then(|s| s.material.as_deref()).and_then(material);
        assumed |= row.is_none();
        let row = row.filter(|_| given.is_some()).unwrap_or(unknown);
        all.push(Absorber {
            what: surface_words(room, name),
            id: None,
            surface: Some(name.into()),
            area_m2: Some(area),
            absorption_m2: over(row.absorption, area),
            from: if told.is_some_and(|s| s.material.is_some()) { Origin::Typed } else { Origin::Assumed },
            is_hung: false,
        });
    }
    for (id, piece) in &room.furniture {
        let absorption_m2 = furniture_m2(piece.kind, piece.size_m.0);
        if absorption_m2.iter().any(|m2| *m2 > 0.0) {
            let words = id.words();
            all.push(Absorber { id: Some(id.clone()), from: Origin::Typed, ..rest(&words, absorption_m2) });
        }
    }
    all.push(Absorber { from: Origin::Computed, ..rest("you", PERSON_M2) });
    (all, assumed)
}

/// A rug never makes a springy floor worse at low tones: there the floor still gives (Fogon's own rule).
fn never_less(cover: &Material, under: Option<&'static Material>) -> Bands {
    let under = under.map_or([0.0; 6], |row| row.absorption);
    std::array::from_fn(|band| cover.absorption[band].max(if band < 2 { under[band] } else { 0.0 }))
}

/// A surface in words.
pub fn surface_words(room: &Room, name: &str) -> String {
    let wall = WALL_NAMES.iter().position(|n| *n == name);
    wall.map_or_else(|| name.to_owned(), |wall| room.wall_name(wall).trim_start_matches("the ").to_owned())
}

/// Absorption coefficients of a thing against the echo: of its row, or worked out from its thickness.
pub fn of_treatment(gear: &GearTreatment) -> Bands {
    match (gear.thickness_m, gear.flow_resistivity_pa_s_m2) {
        (Some(thickness), Some(resistivity)) => {
            let gap = gear.air_gap_m.unwrap_or(0.0);
            super::porous::absorption(resistivity, thickness, gap, super::decay::SPEED_M_S)
        }
        _ => material(&gear.material).map_or([0.0; 6], |row| row.absorption),
    }
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
