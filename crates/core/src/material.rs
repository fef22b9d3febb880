//! Absorption by surface and by thing, one table. Random-incidence coefficients in octave bands 125 Hz to
//! 4 kHz. Sources: V = Vorlander, Auralization (Springer 2008), annex; H = handbook value from memory (Harris;
//! Everest; Kuttruff); E = estimate, no single source, +-40 %.

/// Octave-band centres of the tables, Hz.
pub const BANDS_HZ: [u32; 6] = [125, 250, 500, 1000, 2000, 4000];

/// One value for each octave band.
pub type Bands = [f64; 6];

/// A surface finish.
#[derive(Debug, Clone, Copy)]
pub struct Material {
    /// Id, as in `brief.room.surfaces`.
    pub id: &'static str,
    /// In words.
    pub label: &'static str,
    /// Absorption coefficients.
    pub absorption: Bands,
    /// V, H or E.
    pub source: char,
    /// What it is used as.
    pub kind: Use,
}

/// What a finish is used as.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, utoipa::ToSchema)]
#[serde(rename_all = "kebab-case")]
pub enum Use {
    /// A wall, floor or ceiling is made of it.
    Surface,
    /// It lies on a floor, on a part of it or all.
    Floor,
    /// It hangs or stands before a surface, on a part of it or all.
    Cover,
    /// It stands or hangs before a part of a surface, never all.
    Piece,
    /// A door or a window.
    Opening,
}

const fn row(id: &'static str, label: &'static str, absorption: Bands, source: char, kind: Use) -> Material {
    Material { id, label, absorption, source, kind }
}

/// All finishes that a room's surfaces can have.
#[rustfmt::skip]
pub const MATERIALS: &[Material] = &[
    row("rendered_brick", "Brick, rendered/plastered", [0.01, 0.02, 0.02, 0.03, 0.03, 0.04], 'V', Use::Surface),
    row("hard_average", "Hard wall, average (plaster, concrete, tile)", [0.02, 0.02, 0.03, 0.03, 0.04, 0.05], 'V', Use::Surface),
    row("plasterboard_studs", "Plasterboard 13 mm on studs, painted", [0.29, 0.1, 0.05, 0.04, 0.07, 0.09], 'H', Use::Surface),
    row("plasterboard_cavity", "Plasterboard 2x13 mm, 50 mm wool in cavity, painted", [0.15, 0.1, 0.06, 0.04, 0.04, 0.05], 'V', Use::Surface),
    row("plasterboard_ceiling", "Plasterboard ceiling on battens, large air space", [0.2, 0.15, 0.1, 0.08, 0.04, 0.02], 'V', Use::Surface),
    row("concrete_smooth", "Concrete, smooth unpainted", [0.01, 0.01, 0.02, 0.02, 0.02, 0.05], 'V', Use::Surface),
    row("tile", "Ceramic tile", [0.01, 0.01, 0.01, 0.02, 0.02, 0.02], 'V', Use::Surface),
    row("wood_floor", "Wood floor on joists", [0.15, 0.11, 0.1, 0.07, 0.06, 0.07], 'H', Use::Surface),
    row("parquet_glued", "Parquet/laminate on concrete", [0.04, 0.04, 0.07, 0.06, 0.06, 0.07], 'H', Use::Surface),
    row("wood_panelling", "Wood lining 12 mm on frame; hollow door", [0.27, 0.23, 0.22, 0.15, 0.1, 0.07], 'V', Use::Surface),
    row("carpet_on_felt", "Carpet 9 mm pile on felt underlay", [0.08, 0.08, 0.3, 0.6, 0.75, 0.8], 'V', Use::Floor),
    row("carpet_thin", "Thin carpet glued to concrete", [0.02, 0.04, 0.08, 0.2, 0.35, 0.4], 'V', Use::Floor),
    row("rug", "Rug, 6 mm pile on foam", [0.03, 0.09, 0.25, 0.31, 0.33, 0.44], 'V', Use::Floor),
    row("curtain_heavy", "Heavy cotton curtain 0.5 kg/m2, draped to 3/4, 130 mm from wall", [0.3, 0.45, 0.65, 0.56, 0.59, 0.71], 'V', Use::Cover),
    row("curtain_velour", "Heavy velour 0.6 kg/m2, draped to half, at wall", [0.14, 0.35, 0.55, 0.72, 0.7, 0.65], 'H', Use::Cover),
    row("curtain_light", "Curtain 0.2 kg/m2, 90 mm from wall", [0.05, 0.06, 0.39, 0.63, 0.7, 0.73], 'V', Use::Cover),
    row("blanket_flat", "Packing blanket hung flat, 100 mm air gap", [0.08, 0.2, 0.5, 0.7, 0.6, 0.65], 'E', Use::Piece),
    row("blanket_pleated", "Packing blanket pleated 2:1, 100 mm air gap", [0.1, 0.25, 0.55, 0.75, 0.8, 0.8], 'E', Use::Piece),
    row("window_single", "Window, single 3 mm", [0.08, 0.04, 0.03, 0.03, 0.02, 0.02], 'V', Use::Opening),
    row("window_double_10mm", "Window, double, 10 mm gap", [0.1, 0.07, 0.05, 0.03, 0.02, 0.02], 'V', Use::Opening),
    row("door_solid", "Door, solid wood", [0.14, 0.1, 0.06, 0.08, 0.1, 0.1], 'V', Use::Opening),
    row("bookcase", "Bookcase, full and uneven", [0.2, 0.3, 0.4, 0.4, 0.35, 0.3], 'E', Use::Piece),
    row("panel_50mm", "Porous panel 50 mm (wool 80 kg/m3) at wall", [0.22, 0.6, 0.92, 0.9, 0.88, 0.88], 'V', Use::Cover),
    row("panel_100mm", "Porous panel 100 mm at wall", [0.46, 0.93, 1.0, 1.0, 1.0, 1.0], 'E', Use::Cover),
    row("foam_25", "Open-cell foam 25 mm", [0.1, 0.13, 0.3, 0.68, 0.94, 1.0], 'H', Use::Cover),
    row("foam_50", "Foam 50 mm (melamine wedge)", [0.12, 0.33, 0.83, 0.97, 0.98, 0.95], 'V', Use::Cover),
    row("ceiling_tile", "Suspended fissured ceiling tile", [0.49, 0.53, 0.53, 0.75, 0.92, 0.99], 'V', Use::Surface),
    row("open", "Open doorway/window", [1.0, 1.0, 1.0, 1.0, 1.0, 1.0], 'H', Use::Surface),
];

/// Absorption of one standing person, m2 Sabine (Kath and Kuhl 1964 in Kuttruff; H).
pub const PERSON_M2: Bands = [0.12, 0.24, 0.59, 0.98, 1.13, 1.12];

/// The finish with this id.
pub fn material(id: &str) -> Option<&'static Material> {
    MATERIALS.iter().find(|m| m.id == id)
}

/// All ids, for messages.
pub fn material_names() -> String {
    MATERIALS.iter().map(|m| m.id).collect::<Vec<_>>().join(", ")
}
