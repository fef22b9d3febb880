//! The sun in a corner: through which window its beam comes, what it lies on, and what light the windows give a place under any sky.

use std::f64::consts::PI;

use crate::corner::{Bound, Corner, Kind, Pane, Thing, bounds, is_blocked, things};
use crate::geometry::{DVec2, DVec3, bearing_vector, triangles};
use crate::photometry::{Blockers, sky, sunlit};
use crate::plan::{Id, ThingId};

use super::Sun;
use super::outdoors::SkyDome;

/// A window is summed over so many pieces along each side.
const PIECES: usize = 6;
/// Points of the picture that stand for what is behind the person, along its width and height.
const SAMPLES: (usize, usize) = (8, 5);

/// A place on a surface is looked at from so far before it, so that the surface itself does not stand in its light, m.
const OFF_M: f64 = 1e-3;

/// A window with what the light has to pass to come through it.
struct Window<'a> {
    id: &'a Id,
    pane: Pane,
    horizon_deg: f64,
    /// The part of the light that passes what hangs before it; less than 1 scatters it all.
    lets_through: f64,
    /// What bounds the room, without the slope that the window lies in.
    shell: Vec<Bound>,
    blockers: Blockers,
}

/// A place where the sun lies.
#[derive(Debug, Clone, PartialEq)]
pub struct Patch {
    /// `floor`, `wall-1`, or the name of a thing.
    pub on: String,
    /// The window through which it comes.
    pub window: Id,
    /// Its corners, m.
    pub outline_m: Vec<DVec3>,
}

/// A corner and its windows, ready to be asked where the sun lies.
pub struct Sunlight<'a> {
    corner: &'a Corner<'a>,
    windows: Vec<Window<'a>>,
    things: Vec<Thing>,
    /// Seen behind the person: points of walls, floor and things, and which way they face.
    behind: Vec<(DVec3, DVec3)>,
    north_deg: f64,
}

impl<'a> Sunlight<'a> {
    /// A corner whose room looks north in a known direction; none where nobody told it.
    pub fn of(corner: &'a Corner<'a>) -> Option<Self> {
        let room = &corner.brief.room;
        let north_deg = room.north_deg?;
        let things = things(corner);
        let mut of_things = Blockers::default();
        for (owner, thing) in things.iter().enumerate().filter(|(_, thing)| !thing.glass) {
            thing.pieces.iter().for_each(|piece| of_things.add(&piece.solid, owner));
        }
        let windows = corner.clear_windows().map(|(id, opening, pane)| {
            let mut around = room.clone();
            if let Some(slope) = &opening.slope {
                around.slopes.remove(slope);
            }
            let shell = bounds(&around, 0.0);
            let mut blockers = of_things.clone();
            shell.iter().for_each(|bound| blockers.add(&bound.solid, usize::MAX));
            let horizon_deg = opening.horizon_deg.unwrap_or(0.0);
            let lets_through = opening.curtain_lets_through();
            Window { id, pane, horizon_deg, lets_through, shell, blockers }
        });
        let windows = windows.collect();
        let mut found = Self { corner, windows, things, behind: Vec::new(), north_deg };
        found.behind = found.behind();
        Some(found)
    }

    /// Towards the sun, in the room.
    pub fn to_sun(&self, sun: Sun) -> DVec3 {
        let (sin, cos) = sun.elevation_deg.to_radians().sin_cos();
        bearing_vector(sun.azimuth_deg + self.north_deg) * cos + DVec3::Z * sin
    }

    /// Whether the beam comes into the room at all.
    pub fn comes_in(&self, to_sun: DVec3) -> bool {
        self.windows.iter().any(|window| window.beam(to_sun).is_some())
    }

    /// The window through which the sun reaches a point past everything that stands in its way but one thing.
    pub fn reaches(&self, point: DVec3, to_sun: DVec3, but: Option<&ThingId>) -> Option<&'a Id> {
        let from = self.windows.iter().find(|window| {
            !window.scatters() && window.sees(to_sun) && window.pane.lets_in(point, to_sun) && {
                let way = window.pane.out.dot(window.pane.middle_m - point) / window.pane.leaves(to_sun);
                let end = point + to_sun * way;
                let others = self.things.iter().filter(|thing| !thing.glass && Some(&thing.id) != but);
                let stands =
                    others.flat_map(|thing| &thing.pieces).any(|piece| piece.solid.blocks(point, end));
                !stands && !is_blocked(&window.shell, point, end)
            }
        });
        from.map(|window| window.id)
    }

    /// The sun shines into the eyes.
    pub fn on_face(&self, to_sun: DVec3) -> bool {
        self.reaches(self.corner.eyes_m, to_sun, Some(&ThingId::Person)).is_some()
    }

    /// The sun shines on the front of the lens.
    pub fn in_lens(&self, to_sun: DVec3) -> bool {
        let view = &self.corner.view;
        view.forward.dot(to_sun) > 0.0
            && self.reaches(view.position_m, to_sun, Some(&ThingId::Camera)).is_some()
    }

    /// A patch of sun shows in the picture behind the person.
    pub fn behind_the_person(&self, to_sun: DVec3) -> bool {
        self.comes_in(to_sun)
            && self.behind.iter().any(|(point, normal)| {
                normal.dot(to_sun) > 0.0 && self.reaches(*point + *normal * OFF_M, to_sun, None).is_some()
            })
    }

    /// Everything that the sun lies on: the floor, walls, things.
    pub fn patches(&self, to_sun: DVec3) -> Vec<Patch> {
        let mut all = Vec::new();
        for window in &self.windows {
            let Some(opening) = window.beam(to_sun) else { continue };
            let mut put = |on: &str, outline: &[DVec3], normal: DVec3| {
                let lit = sunlit(outline, normal, to_sun, &opening, &window.blockers);
                all.extend(lit.into_iter().map(|outline_m| Patch {
                    on: on.to_owned(),
                    window: window.id.clone(),
                    outline_m,
                }));
            };
            for (name, outline, normal) in self.shell() {
                put(&name, &outline, normal);
            }
            for thing in self.things.iter().filter(|thing| is_surface(thing.kind)) {
                let name = self.corner.name(&thing.id);
                for (normal, outline) in thing.pieces.iter().flat_map(|piece| piece.solid.faces()) {
                    put(&name, &outline, normal);
                }
            }
        }
        all
    }

    /// Floor and walls as convex faces with their normals into the room.
    fn shell(&self) -> Vec<(String, Vec<DVec3>, DVec3)> {
        let room = &self.corner.brief.room;
        let outline = room.outline();
        let floor: Vec<Vec<DVec2>> = if room.is_rectangle() {
            vec![outline.clone()]
        } else {
            triangles(&outline).iter().map(|piece| piece.to_vec()).collect()
        };
        let mut all: Vec<(String, Vec<DVec3>, DVec3)> = floor
            .into_iter()
            .map(|piece| ("floor".to_owned(), piece.iter().map(|p| p.extend(0.0)).collect(), DVec3::Z))
            .collect();
        for wall in 0..outline.len() {
            let Some((start, end)) = room.wall_m(wall) else { continue };
            let top = DVec3::Z * room.height_m;
            let (a, b) = (start.extend(0.0), end.extend(0.0));
            let inward = (end - start).normalize_or_zero().perp().extend(0.0);
            all.push((format!("wall-{wall}"), vec![a, b, b + top, a + top], inward));
        }
        all
    }

    /// Points that the picture shows beside the person: where lines from the lens first meet something else.
    fn behind(&self) -> Vec<(DVec3, DVec3)> {
        let view = &self.corner.view;
        let shell = self.shell();
        let of_things: Vec<(bool, DVec3, Vec<DVec3>)> = self
            .things
            .iter()
            .filter(|thing| !matches!(thing.id, ThingId::Camera) && !thing.glass)
            .flat_map(|thing| {
                let is_person = thing.kind == Kind::Person;
                thing.pieces.iter().flat_map(move |piece| {
                    piece.solid.faces().into_iter().map(move |(normal, outline)| (is_person, normal, outline))
                })
            })
            .collect();
        let mut found = Vec::new();
        for row in 0..SAMPLES.1 {
            for column in 0..SAMPLES.0 {
                let x = ((column as f64 + 0.5) / SAMPLES.0 as f64 - 0.5) * view.width_ratio;
                let y = (0.5 - (row as f64 + 0.5) / SAMPLES.1 as f64) * view.height_ratio;
                let ray = (view.forward + view.right * x + view.up * y).normalize();
                let walls = shell.iter().map(|(_, outline, normal)| (false, *normal, outline));
                let met = walls
                    .chain(of_things.iter().map(|(person, normal, outline)| (*person, *normal, outline)))
                    .filter_map(|(person, normal, outline)| {
                        let far_m = meets(view.position_m, ray, outline, normal)?;
                        Some((far_m, person, normal))
                    })
                    .min_by(|a, b| a.0.total_cmp(&b.0));
                if let Some((far_m, false, normal)) = met {
                    found.push((view.position_m + ray * far_m, normal));
                }
            }
        }
        found
    }

    /// Points of the picture behind the person, each with the direction that its surface faces.
    pub fn shown_behind(&self) -> &[(DVec3, DVec3)] {
        &self.behind
    }

    /// Straight from sky, ground and what stands opposite through the windows, past nothing but their reveals, on a surface of a unit
    /// normal, lx. The sun's own beam is left out where no curtain scatters it.
    pub fn window_lx(&self, point: DVec3, normal: DVec3, dome: &SkyDome) -> f64 {
        let mut sum = 0.0;
        self.each_piece(point, dome, &mut |direction, lx| sum += normal.dot(direction).max(0.0) * lx);
        sum
    }

    /// The same as a vector towards where most of it comes from, as long as a surface that faces it gets lx.
    pub fn light_vector_lx(&self, point: DVec3, dome: &SkyDome) -> DVec3 {
        let mut sum = DVec3::ZERO;
        self.each_piece(point, dome, &mut |direction, lx| sum += direction * lx);
        sum
    }

    /// Directions to pieces of the windows, each with what it gives a surface that faces it, lx.
    fn each_piece(&self, point: DVec3, dome: &SkyDome, take: &mut dyn FnMut(DVec3, f64)) {
        self.windows.iter().for_each(|window| window.each_piece(point, dome, take));
    }

    /// Light that comes through the windows into the room, lm: the sky's, the ground's and the sun's.
    pub fn flux_lm(&self, dome: &SkyDome) -> f64 {
        self.windows.iter().map(|window| window.lets_in_lx(dome) * window.pane.area_m2()).sum()
    }

    /// Each window with the mean luminance of what is seen through it from a point, cd/m2.
    pub fn luminances_cd_m2(&self, point: DVec3, dome: &SkyDome) -> impl Iterator<Item = (&'a Id, f64)> {
        self.windows.iter().map(move |window| {
            let (mut seen, mut whole) = (0.0, 0.0);
            window.each_piece(point, dome, &mut |_, lx| seen += lx);
            window.each_solid_angle(point, &mut |_, steradians| whole += steradians);
            // From where its reveal hides it, as a matt sheet that lets in as much.
            (window.id, if whole > 0.0 { seen / whole } else { window.lets_in_lx(dome) / PI })
        })
    }

    /// Each window through which the beam comes unscattered, with the part of it that lets it in.
    pub fn beams(&self, to_sun: DVec3) -> impl Iterator<Item = Pane> {
        self.windows.iter().filter(move |window| window.beam(to_sun).is_some()).map(|window| window.pane)
    }
}

impl Window<'_> {
    /// A curtain makes one even light of sun and sky.
    fn scatters(&self) -> bool {
        self.lets_through < 1.0
    }

    /// The sun stands over what is opposite.
    fn sees(&self, to_sun: DVec3) -> bool {
        to_sun.z > self.horizon_deg.to_radians().sin().max(0.0)
    }

    /// The part of it through which the beam comes.
    fn beam(&self, to_sun: DVec3) -> Option<[DVec3; 4]> {
        (!self.scatters() && self.sees(to_sun)).then(|| self.pane.open_to(to_sun)).flatten()
    }

    /// Directions from a point to pieces of the window that are seen past its reveal, each with its solid angle, sr.
    fn each_solid_angle(&self, point: DVec3, take: &mut dyn FnMut(DVec3, f64)) {
        let pane = &self.pane;
        let (half, parts) = (pane.half_m, PIECES as f64);
        // Cut where sky and ground meet, so that no piece has both.
        let level = ((point.z - pane.middle_m.z) / pane.up.z.max(1e-9)).clamp(-half.y, half.y);
        for (low, high) in [(-half.y, level), (level, half.y)] {
            let cell_m2 = 2.0 * half.x / parts * (high - low) / parts;
            if cell_m2 <= 0.0 {
                continue;
            }
            for i in 0..PIECES {
                let x = ((2 * i + 1) as f64 / parts - 1.0) * half.x;
                for j in 0..PIECES {
                    let y = low + (high - low) * (j as f64 + 0.5) / parts;
                    let way = pane.middle_m + pane.along * x + pane.up * y - point;
                    let far2 = way.length_squared().max(1e-6);
                    let direction = way / far2.sqrt();
                    let leaves = pane.leaves(direction);
                    // A curtain hangs before the reveal.
                    if leaves > 0.0 && (self.scatters() || pane.lets_in(point, direction)) {
                        take(direction, leaves * cell_m2 / far2);
                    }
                }
            }
        }
    }

    /// Directions from a point to pieces of the window, each with what it gives a surface that faces it, lx.
    fn each_piece(&self, point: DVec3, dome: &SkyDome, take: &mut dyn FnMut(DVec3, f64)) {
        if self.scatters() {
            let luminance = self.lets_in_lx(dome) / PI;
            self.each_solid_angle(point, &mut |direction, steradians| {
                take(direction, luminance * steradians)
            });
        } else {
            self.each_solid_angle(point, &mut |direction, steradians| {
                let luminance = sky::PANE * dome.luminance_cd_m2(direction, self.horizon_deg);
                take(direction, luminance * steradians);
            });
        }
    }

    /// Light that leaves the window into the room, lx.
    fn lets_in_lx(&self, dome: &SkyDome) -> f64 {
        let pane = &self.pane;
        // On the pane from outside: sums over the half space that it looks into, in rings about its normal.
        let mut outside_lx = 0.0;
        for ring in 0..PIECES {
            let sin2 = (ring as f64 + 0.5) / PIECES as f64;
            let (sin, cos) = (sin2.sqrt(), (1.0 - sin2).sqrt());
            for sector in 0..2 * PIECES {
                let (y, x) = (PI * (sector as f64 + 0.5) / PIECES as f64).sin_cos();
                let direction = pane.out * cos + (pane.along * x + pane.up * y) * sin;
                outside_lx += dome.luminance_cd_m2(direction, self.horizon_deg);
            }
        }
        outside_lx *= PI / (2 * PIECES * PIECES) as f64;
        let to_sun = dome.to_sun();
        let beam = if self.sees(to_sun) { dome.direct_lx() * pane.leaves(to_sun).max(0.0) } else { 0.0 };
        sky::PANE * self.lets_through * (outside_lx + beam)
    }
}

/// Things on which a patch of sun is told.
fn is_surface(kind: Kind) -> bool {
    match kind {
        Kind::Furniture | Kind::Backdrop => true,
        Kind::Person | Kind::Camera | Kind::Light | Kind::Microphone | Kind::Screen | Kind::Angle => false,
    }
}

/// How far along a ray a convex face is met from its front, m.
fn meets(from: DVec3, ray: DVec3, outline: &[DVec3], normal: DVec3) -> Option<f64> {
    let steep = -normal.dot(ray);
    let far_m = normal.dot(from - *outline.first()?) / steep;
    if steep <= 1e-9 || far_m <= 1e-6 {
        return None;
    }
    let at = from + ray * far_m;
    let mut sides =
        outline.iter().zip(outline.iter().cycle().skip(1)).map(|(a, b)| (*b - *a).cross(at - *a).dot(normal));
    let first = sides.next()?;
    sides.all(|side| side * first >= -1e-12).then_some(far_m)
}
