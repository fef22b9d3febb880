//! What the surfaces of a lit room send back.

use crate::geometry::DVec3;

/// What the patches of a room send back.
#[derive(Debug, Clone, PartialEq)]
pub struct Glow {
    /// Luminance of every patch, cd/m2; 0 where its pieces stand below.
    pub luminances_cd_m2: Vec<f64>,
    /// Pieces of patches that a face stands close to.
    pub fine: Vec<PatchPiece>,
}

/// A piece of a patch.
#[derive(Debug, Clone, PartialEq)]
pub struct PatchPiece {
    /// Number of the patch.
    pub of: usize,
    /// Corners, m.
    pub outline: Vec<DVec3>,
    /// Luminance, cd/m2.
    pub luminance_cd_m2: f64,
}
