//! The core from outside, as its users call it. One binary, one file per subject:
//! `advice` what is told can be done; `again` a corner laid out anew; `steps` the order of the work; `laws` what holds in any room; `by_hand` the legal rules from the document's definitions; `rules` every legal
//! rule broken on purpose; `doors` swings and ways out; `fixes` every finding that a move can mend; `bands` the table of bands and weights;
//! `view` the picture against an independent projection; `chart` the shot over distance; `seen` screens and what is behind; `ways` three layouts and their rigs;
//! `schools` what each choice changes; `framing` the shot solved and read back; `patches` changes; `search` proposals and obstacles; `space` geometry by brute force; `shapes` outlines and solids by hand; `picture` drawings against a projection
//! written out here; `lighting`, `sources`, `sound`, `treatment`, `room` and `card` numbers worked by a second route; `carriers` what carries things besides stands on the floor; `checks` published values;
//! `calculator` the contract of `calc`; `documents` good and bad files; `daylight` sun and sky; `day` the window by the hour; `money` moves and purchases; `friend` what a careful friend would never sell; `parts` every part of a layout;
//! `outlines` floors and panels against Shapely; `outside` places outside the room; `pairs` every two choices together; `ends` every figure as far as it goes; `kit` what gear needs; `measured` measured values; `judgement` what misleads a plain reckoning;
//! `floor` marks, steps on the phone, and how it was laid; `words` every sentence by rule; `names` ids, labels and units as words only; `units` numbers as people read them; `glossary` the words.

// A helper of a test fails by panicking, as the test does.
#![allow(clippy::unwrap_used)]

mod advice;
mod again;
mod bands;
mod blind;
mod by_hand;
mod calculator;
mod card;
mod carriers;
mod chart;
mod checks;
mod day;
mod daylight;
mod decided;
mod documents;
mod doors;
mod ends;
mod face;
mod fixes;
mod floor;
mod framing;
mod friend;
mod glossary;
mod hand;
mod judgement;
mod kit;
mod laws;
mod light_laws;
mod lighting;
mod locks;
mod measured;
mod money;
mod names;
mod outlines;
mod outside;
mod pairs;
mod parts;
mod patches;
mod picture;
mod ready;
mod room;
mod rules;
mod run;
mod schools;
mod search;
mod seen;
mod shape;
mod shapes;
mod sound;
mod sources;
mod space;
mod steps;
mod support;
mod take;
mod treatment;
mod units;
mod view;
mod ways;
mod words;
