//! Free lines from lens to face, key to face, microphone to mouth and eyes to screen.

use super::{Breach, Rules};
use crate::corner::{Kind, Thing, is_worn};
use crate::finding::Rule;
use crate::geometry::DVec3;
use crate::plan::{Role, ScreenType, ThingId};
use crate::units::{Amount, capital};

impl Rules<'_> {
    /// Free lines from lens to face, key to face and microphone to mouth; one breach for each thing in the way, so
    /// that moving the first does not bring the second to light.
    pub(super) fn sight(&self, things: &[Thing], found: &mut Vec<Breach>) {
        let corner = self.corner;
        let mut lines: Vec<(String, DVec3, DVec3, ThingId)> = self
            .landmarks
            .iter()
            .map(|(name, mark)| {
                (format!("the lens and the {name}"), corner.view.position_m, *mark, ThingId::Camera)
            })
            .collect();
        for key in corner.role(Role::Key) {
            let own = ThingId::Light(key.id.clone());
            lines.push(("the key and the face".into(), key.position_m, corner.eyes_m, own));
        }
        if let Some((gear, capsule)) = corner.microphone
            && !is_worn(gear.mounting)
        {
            let words = "the microphone and the mouth".into();
            lines.push((words, capsule, corner.mouth_m, ThingId::Microphone));
        }
        if let Some((screen, at)) = corner.screen
            && screen.screen != ScreenType::Script
        {
            lines.push(("the eyes and the screen".into(), at, corner.eyes_m, ThingId::Screen));
        }
        let mut say = |thing: &ThingId, what: &str, line: &str, frees: &str| {
            let sentence = format!("{} stands between {line}.", capital(what));
            found.push(Breach::new(Rule::Sight, thing.clone(), Amount::Unmeasured, sentence, frees));
        };
        for (line, from, to, own) in &lines {
            if let Some(bound) = self.bounds.iter().find(|bound| bound.solid.blocks(*from, *to)) {
                say(own, &bound.what, line, "Move it to where the line is free.");
            }
        }
        for thing in things.iter().filter(|t| t.kind != Kind::Person && !t.glass) {
            let cut = lines.iter().find(|(_, from, to, own)| {
                // A screen stands behind the camera, seen past it.
                let past = *own == ThingId::Screen && thing.kind == Kind::Camera;
                thing.id != *own && !past && thing.pieces.iter().any(|p| p.solid.blocks(*from, *to))
            });
            if let Some((line, ..)) = cut {
                say(&thing.id, &thing.label, line, "Move it out of the line.");
            }
        }
    }
}
