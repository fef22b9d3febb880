//! A still, PNG or JPEG, within bounds: its pixels alone; what else the file tells (place, time, owner) is dropped here.

use std::io::Cursor;

use image::metadata::Orientation;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};
use thiserror::Error;

/// Largest still that is read, bytes and pixels along a side.
pub const MOST_STILL_BYTES: usize = 30_000_000;
const MOST_SIDE_PX: u32 = 12_000;
const MOST_PX: u64 = 60_000_000;
/// Smallest that tells anything, pixels along a side.
const LEAST_SIDE_PX: u32 = 160;
/// What is finer is made so coarse, pixels along the longer side: no mark is set more finely.
const COARSE_PX: u32 = 1920;
/// What decoding may take of memory, bytes.
const MEMORY_BYTES: u64 = 400_000_000;

/// A still as 8 bits of red, green and blue for each pixel, row by row, the right way up.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Still {
    /// Pixels across.
    pub width: usize,
    /// Pixels down.
    pub height: usize,
    /// Red, green, blue of each.
    pub rgb: Vec<u8>,
}

/// Why a file is no still that can be used.
#[derive(Debug, Clone, PartialEq, Error)]
pub enum NoStill {
    /// Too many bytes.
    #[error("the picture has {0} bytes: give at most {MOST_STILL_BYTES}")]
    TooLarge(usize),
    /// Neither PNG nor JPEG.
    #[error("the file is no PNG or JPEG picture")]
    Format,
    /// Its size.
    #[error(
        "the picture has {width} x {height} pixels: give {LEAST_SIDE_PX} to {MOST_SIDE_PX} along a side, 60 million in all"
    )]
    Size {
        /// Pixels across.
        width: u32,
        /// Pixels down.
        height: u32,
    },
    /// Broken within.
    #[error("the picture cannot be read: {0}")]
    Broken(String),
}

/// Reads a still.
///
/// # Errors
/// See [`NoStill`].
pub fn read_still(bytes: &[u8]) -> Result<Still, NoStill> {
    if bytes.len() > MOST_STILL_BYTES {
        return Err(NoStill::TooLarge(bytes.len()));
    }
    // The decoders of hostile bytes may break down; that is the file's fault, and stays with it.
    std::panic::catch_unwind(|| decoded(bytes))
        .unwrap_or_else(|_| Err(NoStill::Broken("its parts contradict each other".into())))
}

fn decoded(bytes: &[u8]) -> Result<Still, NoStill> {
    let broken = |error: image::ImageError| NoStill::Broken(error.to_string());
    let mut reader = ImageReader::new(Cursor::new(bytes))
        .with_guessed_format()
        .map_err(|error| NoStill::Broken(error.to_string()))?;
    if !matches!(reader.format(), Some(ImageFormat::Png | ImageFormat::Jpeg)) {
        return Err(NoStill::Format);
    }
    let mut limits = Limits::default();
    limits.max_alloc = Some(MEMORY_BYTES);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(broken)?;
    let (width, height) = decoder.dimensions();
    let sides = LEAST_SIDE_PX..=MOST_SIDE_PX;
    if !sides.contains(&width) || !sides.contains(&height) || u64::from(width) * u64::from(height) > MOST_PX {
        return Err(NoStill::Size { width, height });
    }
    let turned = decoder.orientation().unwrap_or(Orientation::NoTransforms);
    let mut picture = DynamicImage::from_decoder(decoder).map_err(broken)?;
    if width.max(height) > COARSE_PX {
        picture = picture.thumbnail(COARSE_PX, COARSE_PX);
    }
    picture.apply_orientation(turned);
    let picture = picture.into_rgb8();
    Ok(Still { width: picture.width() as usize, height: picture.height() as usize, rgb: picture.into_raw() })
}
