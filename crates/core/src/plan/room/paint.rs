//! How much light the room's surfaces throw back.

use super::Room;

/// Reflectances where none is given: matt white ceiling, light walls, wooden floor (common practice, no source).
const CEILING: f64 = 0.80;
const WALLS: f64 = 0.65;
const FLOOR: f64 = 0.30;

impl Room {
    /// Reflectance of a surface: as given, else the usual one; and whether it was given.
    pub fn reflectance(&self, surface: &str) -> (f64, bool) {
        let usual = match surface {
            "floor" => FLOOR,
            "ceiling" => CEILING,
            _ => WALLS,
        };
        let told = self.surfaces.get(surface).and_then(|surface| surface.reflectance);
        (told.unwrap_or(usual), told.is_some())
    }

    /// Area-weighted reflectance of its surfaces, and whether any of it had to be assumed.
    pub fn mean_reflectance(&self) -> (f64, bool) {
        let mut assumed = false;
        let (mut sum, mut whole) = (0.0, 0.0);
        for (name, area) in self.surfaces_m2() {
            let (reflectance, told) = self.reflectance(name);
            assumed |= !told;
            sum += area * reflectance;
            whole += area;
        }
        (sum / whole, assumed)
    }
}
