//! What is in a picture, by name: numbers that surfaces carry, and what each stands for.

/// What sort of thing it is: what is told of a place in the picture hangs on it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Sort {
    /// Face, neck, hands.
    Skin,
    /// The rest of the person.
    Person,
    /// Walls, floor, ceiling, doors, windows.
    Room,
    /// Furniture, and what stands or hangs about.
    Furniture,
    /// Lamps, stands, microphones.
    SetUp,
}

/// Chance for what stands in or on a thing, by its name: the same books stand there whatever was seen before.
pub(crate) fn seed_of(name: &str) -> u16 {
    name.bytes().fold(0, |seed: u16, byte| seed.wrapping_mul(31).wrapping_add(u16::from(byte)))
}

/// The things of a scene.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Things {
    known: Vec<(String, Sort)>,
}

impl Things {
    /// The number of a thing, new or known.
    pub(crate) fn number(&mut self, name: &str, sort: Sort) -> u16 {
        let found = self.known.iter().position(|(known, of)| known == name && *of == sort);
        found.unwrap_or_else(|| {
            self.known.push((name.to_owned(), sort));
            self.known.len() - 1
        }) as u16
    }

    /// Whether there is much to see in it: edges, hair, shadows that people look at.
    pub fn is_busy(&self, number: u16) -> bool {
        matches!(self.get(number), Some((_, Sort::Skin | Sort::Person)))
    }

    /// What it is called, and what sort it is.
    pub fn get(&self, number: u16) -> Option<(&str, Sort)> {
        self.known.get(usize::from(number)).map(|(name, sort)| (name.as_str(), *sort))
    }
}
