//! Things of a catalogue, with how many of each.

use std::collections::BTreeMap;

use super::catalogue::Catalogue;
use super::rows::Offer;
use crate::plan::Id;

/// What is taken out of a catalogue.
#[derive(Debug, Clone, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub(super) struct Goods(BTreeMap<Id, usize>);

impl Goods {
    /// One of a thing.
    pub(super) fn one(id: &Id) -> Self {
        Self(BTreeMap::from([(id.clone(), 1)]))
    }

    pub(super) fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    pub(super) fn has(&self, id: &Id) -> bool {
        self.0.contains_key(id)
    }

    pub(super) fn iter(&self) -> impl Iterator<Item = (&Id, usize)> {
        self.0.iter().map(|(id, count)| (id, *count))
    }

    /// With others put in.
    pub(super) fn plus(&self, others: &Goods) -> Self {
        let mut all = self.0.clone();
        for (id, count) in others.iter() {
            *all.entry(id.clone()).or_default() += count;
        }
        Self(all)
    }

    /// With others taken out, as far as they are in.
    pub(super) fn less(&self, others: &Goods) -> Self {
        let left = self.iter().map(|(id, count)| {
            let out = others.0.get(id).copied().unwrap_or(0);
            (id.clone(), count.saturating_sub(out))
        });
        Self(left.filter(|(_, count)| *count > 0).collect())
    }

    /// With no more of each than is used.
    pub(super) fn at_most(&self, used: impl Fn(&Id) -> usize) -> Self {
        let kept = self.iter().map(|(id, count)| (id.clone(), count.min(used(id))));
        Self(kept.filter(|(_, count)| *count > 0).collect())
    }

    /// Those that suit.
    pub(super) fn only(&self, catalogue: &Catalogue, suits: impl Fn(&Offer) -> bool) -> Self {
        let suiting = self.0.iter().filter(|(id, _)| catalogue.get(id).is_some_and(&suits));
        Self(suiting.map(|(id, count)| (id.clone(), *count)).collect())
    }

    /// What they cost together, cents.
    pub(super) fn cents(&self, catalogue: &Catalogue) -> i64 {
        self.iter().filter_map(|(id, count)| Some(catalogue.get(id)?.cents() * count as i64)).sum()
    }
}

impl FromIterator<Id> for Goods {
    fn from_iter<I: IntoIterator<Item = Id>>(ids: I) -> Self {
        let mut all = BTreeMap::new();
        ids.into_iter().for_each(|id| *all.entry(id).or_default() += 1);
        Self(all)
    }
}
