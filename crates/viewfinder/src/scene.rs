//! Everything that a picture is made of: bodies in their places, what shines, the lens.
use std::sync::Arc;

use glam::{Affine3A, Vec3};

use crate::body::Body;
use crate::lens::Lens;
use crate::source::Source;
use crate::surface::{At, Finish, Material, Packed};
use crate::tree::{Ray, Walk};

/// Light groups at most: lamps beyond them share the last.
pub const GROUPS: usize = 4;

/// A body in its place.
#[derive(Debug, Clone)]
pub struct Placed {
    pub(crate) body: Arc<Body>,
    /// From the body's own space to the room's: turned, moved, scaled alike along all axes.
    pub(crate) to_room: Affine3A,
    to_body: Affine3A,
    is_moved: bool,
}

impl Placed {
    /// A body in a place.
    pub fn new(body: Arc<Body>, to_room: Affine3A) -> Self {
        Self { body, to_room, to_body: to_room.inverse(), is_moved: to_room != Affine3A::IDENTITY }
    }

    fn ray(&self, ray: &Ray) -> Ray {
        if !self.is_moved {
            return *ray;
        }
        Ray {
            origin: self.to_body.transform_point3(ray.origin),
            direction: self.to_body.transform_vector3(ray.direction),
            reach: ray.reach,
        }
    }

    fn turned(&self, direction: Vec3) -> Vec3 {
        if self.is_moved { self.to_room.transform_vector3(direction).normalize_or_zero() } else { direction }
    }

    /// A point of one of its patches and the direction outwards there, in the room.
    pub(crate) fn point(&self, patch: usize, number: usize) -> Option<(Vec3, Vec3)> {
        let points = &self.body.patches[patch].points;
        let (place, normal) = *points.get(number % points.len().max(1))?;
        Some((self.to_room.transform_point3(place), self.turned(normal)))
    }
}

/// What a picture is taken of.
#[derive(Debug, Clone)]
pub struct Scene {
    /// What stays when something is moved by hand (the room, the person), then what has been set up.
    pub(crate) bodies: Vec<Placed>,
    /// So many of them stay.
    pub(crate) staying: usize,
    /// Clear sheets that only a look through the lens meets.
    pub(crate) glass: Option<Placed>,
    pub(crate) sources: Vec<Source>,
    /// Number of light groups in use.
    pub(crate) groups: usize,
    pub(crate) lens: Lens,
    /// Number of the first patch of each body among all.
    pub(crate) first_patch: Vec<usize>,
    /// Patches of all bodies.
    pub(crate) patches: usize,
}

/// Where a ray meets a body.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Met {
    pub(crate) at: f32,
    pub(crate) body: usize,
    pub(crate) triangle: usize,
    pub(crate) u: f32,
    pub(crate) v: f32,
}

impl Scene {
    /// A scene; `staying` of the bodies stay when something is moved by hand.
    pub fn new(
        bodies: Vec<Placed>,
        staying: usize,
        glass: Option<Placed>,
        sources: Vec<Source>,
        groups: usize,
        lens: Lens,
    ) -> Self {
        let mut patches = 0;
        let mut first_patch = Vec::with_capacity(bodies.len());
        for placed in &bodies {
            first_patch.push(patches);
            patches += placed.body.patches.len();
        }
        Self { bodies, staying, glass, sources, groups: groups.min(GROUPS), lens, first_patch, patches }
    }

    /// The lens that it is seen by.
    pub fn lens(&self) -> &Lens {
        &self.lens
    }

    /// The same, seen by another lens.
    pub fn seen_by(&self, lens: Lens) -> Self {
        Self { lens, ..self.clone() }
    }

    /// The first of some bodies that a ray meets.
    #[inline]
    pub(crate) fn first_of(&self, bodies: usize, ray: &Ray, walk: Walk) -> Option<Met> {
        let mut reach = ray.reach;
        let mut met = None;
        for (number, placed) in self.bodies[..bodies].iter().enumerate() {
            if let Some(hit) = placed.body.tree.first(&Ray { reach, ..placed.ray(ray) }, walk) {
                reach = hit.at;
                let triangle = hit.triangle as usize;
                met = Some(Met { at: hit.at, body: number, triangle, u: hit.u, v: hit.v });
            }
        }
        met
    }

    /// The first thing that a ray meets.
    #[inline]
    pub(crate) fn first(&self, ray: &Ray, walk: Walk) -> Option<Met> {
        self.first_of(self.bodies.len(), ray, walk)
    }

    /// Whether anything stands in the way.
    #[inline]
    pub(crate) fn any(&self, ray: &Ray, walk: Walk) -> bool {
        self.bodies.iter().any(|placed| placed.body.tree.any(&placed.ray(ray), walk))
    }

    /// The clear sheet that a look meets first.
    pub(crate) fn first_glass(&self, ray: &Ray, walk: Walk) -> Option<(f32, Vec3, f32)> {
        let glass = self.glass.as_ref()?;
        let hit = glass.body.tree.first(&glass.ray(ray), walk)?;
        let packed = &glass.body.triangles[hit.triangle as usize];
        let Finish::Glass(coated) = glass.body.materials[packed.material()].finish else { return None };
        Some((hit.at, glass.turned(packed.at(hit.u, hit.v).normal), coated))
    }

    fn packed(&self, met: &Met) -> &Packed {
        &self.bodies[met.body].body.triangles[met.triangle]
    }

    pub(crate) fn material(&self, met: &Met) -> &Material {
        &self.bodies[met.body].body.materials[self.packed(met).material()]
    }

    /// The surface where a ray meets it, its directions towards where the ray comes from.
    #[inline]
    pub(crate) fn surface(&self, met: &Met, along: Vec3) -> At {
        let placed = &self.bodies[met.body];
        let at = self.packed(met).at(met.u, met.v);
        let towards = |direction: Vec3| if direction.dot(along) > 0.0 { -direction } else { direction };
        At { face: towards(placed.turned(at.face)), normal: towards(placed.turned(at.normal)), ..at }
    }

    /// The patch where a ray meets a body, by its number among all, with the reflectance at that very place.
    #[inline]
    pub(crate) fn patch(&self, met: &Met) -> (usize, Vec3) {
        let packed = self.packed(met);
        (self.first_patch[met.body] + packed.patch(met.u, met.v), packed.colour(met.u, met.v))
    }

    /// The body and the patch in it, of a patch's number among all.
    pub(crate) fn patch_of(&self, number: usize) -> (&Placed, usize) {
        let body = self.first_patch.partition_point(|first| *first <= number) - 1;
        (&self.bodies[body], number - self.first_patch[body])
    }

    /// Whether a ray that met a surface came from its front.
    pub(crate) fn is_front(&self, met: &Met, along: Vec3) -> bool {
        self.bodies[met.body].turned(self.packed(met).face()).dot(along) < 0.0
    }
}
