//! Photos of trial fits: the picture alone, drawn anew as it was shown.
//!
//! A phone's file holds more than a picture: where it was taken and by what, a thumbnail, a film, a second picture behind
//! the end of the first. Cutting these out one by one misses the next one; so the pixels are read, turned the way the
//! file says they are to be shown, and written as a new file that has nothing else in it.

use std::io::Cursor;

use image::codecs::jpeg::JpegEncoder;
use image::imageops::FilterType;
use image::{DynamicImage, ImageDecoder, ImageFormat, ImageReader, Limits};
use serde::{Deserialize, Serialize};

/// Most pixels: more than any phone's camera takes at its usual setting.
pub const MOST_PIXELS: u64 = 50_000_000;
/// A kept photo's longer side at most, in pixels: enough to see a scratch on a lip.
pub const LONGEST_SIDE: u32 = 2560;
/// Of a JPEG, by the encoder's own scale of 1 to 100.
const QUALITY: u8 = 88;

/// A picture's file, with its media type.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Picture {
    /// `image/jpeg` or `image/png`.
    pub media_type: String,
    /// The file.
    pub bytes: Vec<u8>,
}

/// Why bytes are no photo.
#[derive(Debug, Clone, PartialEq, Eq, thiserror::Error)]
pub enum NoPhoto {
    /// None of the formats.
    #[error("a photo is a JPEG, a PNG or a WebP")]
    Format,
    /// The format of many phones, which no reader here knows.
    #[error(
        "this is an HEIC photo, which is not read: set the phone to \"most compatible\", or save it as JPEG"
    )]
    Heic,
    /// Too many pixels.
    #[error("the photo has {0} × {1} pixels; at most 50 million are read: save it smaller")]
    TooLarge(u32, u32),
    /// Its end is missing.
    #[error("the photo breaks off: its end did not arrive; send it again")]
    CutOff,
    /// It breaks off, or is damaged.
    #[error("the photo cannot be read: {0}")]
    Broken(String),
}

/// The picture in a file, and nothing else of it.
///
/// # Errors
/// What is no photo, and why.
pub fn drawn_anew(bytes: &[u8]) -> Result<Picture, NoPhoto> {
    let broken = |error: image::ImageError| NoPhoto::Broken(error.to_string());
    if is_heic(bytes) {
        return Err(NoPhoto::Heic);
    }
    let mut reader = ImageReader::new(Cursor::new(bytes));
    reader = reader.with_guessed_format().map_err(|_| NoPhoto::Format)?;
    let format = reader.format().ok_or(NoPhoto::Format)?;
    if !matches!(format, ImageFormat::Jpeg | ImageFormat::Png | ImageFormat::WebP) {
        return Err(NoPhoto::Format);
    }
    let mut limits = Limits::default();
    limits.max_alloc = Some(8 * MOST_PIXELS);
    reader.limits(limits);
    let mut decoder = reader.into_decoder().map_err(broken)?;
    let (width, height) = decoder.dimensions();
    if u64::from(width) * u64::from(height) > MOST_PIXELS {
        return Err(NoPhoto::TooLarge(width, height));
    }
    if format == ImageFormat::Jpeg && is_cut_off(bytes) {
        // Its reader fills what is missing with grey, and says nothing.
        return Err(NoPhoto::CutOff);
    }
    let orientation = decoder.orientation().map_err(broken)?;
    let profile = decoder.icc_profile().ok().flatten();
    let mut picture = DynamicImage::from_decoder(decoder).map_err(broken)?;
    if width.max(height) > LONGEST_SIDE {
        picture = picture.resize(LONGEST_SIDE, LONGEST_SIDE, FilterType::Triangle);
    }
    picture.apply_orientation(orientation);
    if let Some(profile) = profile {
        picture = in_srgb(picture, &profile);
    }
    let mut bytes = Vec::new();
    if format == ImageFormat::Png {
        // Screenshots and drawings: few colours and sharp edges.
        let plain = if picture.color().has_alpha() {
            DynamicImage::from(picture.to_rgba8())
        } else {
            DynamicImage::from(picture.to_rgb8())
        };
        plain.write_to(&mut Cursor::new(&mut bytes), ImageFormat::Png).map_err(broken)?;
        return Ok(Picture { media_type: "image/png".to_owned(), bytes });
    }
    let encoder = JpegEncoder::new_with_quality(&mut bytes, QUALITY);
    picture.to_rgb8().write_with_encoder(encoder).map_err(broken)?;
    Ok(Picture { media_type: "image/jpeg".to_owned(), bytes })
}

/// Whether a JPEG ends before its end (ITU-T T.81, annex B: segments from marker to marker, until EOI).
fn is_cut_off(bytes: &[u8]) -> bool {
    const EOI: u8 = 0xd9;
    const SOS: u8 = 0xda;
    let mut at = 2;
    loop {
        // Between segments there may be bytes that fill.
        while bytes.get(at).is_some_and(|byte| *byte != 0xff) || bytes.get(at + 1) == Some(&0xff) {
            at += 1;
        }
        let Some(marker) = bytes.get(at + 1) else { return true };
        at += 2;
        match *marker {
            EOI => return false,
            // Alone: a restart, the start again, and what stands for a byte of the picture.
            0x00 | 0x01 | 0xd0..=0xd8 => continue,
            _ => {}
        }
        let Some(length) = bytes.get(at..at + 2) else { return true };
        at += usize::from(u16::from_be_bytes([length[0], length[1]])).max(2);
        if *marker == SOS {
            // The picture itself goes on to the next marker that is none of its own.
            while let Some(rest) = bytes.get(at..).filter(|rest| rest.len() >= 2) {
                if rest[0] == 0xff && !matches!(rest[1], 0x00 | 0xd0..=0xd7 | 0xff) {
                    break;
                }
                at += 1;
            }
        }
    }
}

/// A picture with the colours that its own profile means, as every screen shows them: phones take wider ones than sRGB.
/// What has no profile for red, green and blue is left as it is.
fn in_srgb(picture: DynamicImage, profile: &[u8]) -> DynamicImage {
    use moxcms::{ColorProfile, DataColorSpace, Layout, TransformOptions};
    let Ok(profile) = ColorProfile::new_from_slice(profile) else { return picture };
    if profile.color_space != DataColorSpace::Rgb {
        return picture;
    }
    let layout = if picture.color().has_alpha() { Layout::Rgba } else { Layout::Rgb };
    let options = TransformOptions::default();
    let Ok(transform) = profile.create_transform_8bit(layout, &ColorProfile::new_srgb(), layout, options)
    else {
        return picture;
    };
    let (width, height) = (picture.width(), picture.height());
    let has_alpha = picture.color().has_alpha();
    let from = if has_alpha { picture.to_rgba8().into_raw() } else { picture.to_rgb8().into_raw() };
    let mut to = vec![0; from.len()];
    if transform.transform(&from, &mut to).is_err() {
        return picture;
    }
    let made = if has_alpha {
        image::RgbaImage::from_raw(width, height, to).map(DynamicImage::from)
    } else {
        image::RgbImage::from_raw(width, height, to).map(DynamicImage::from)
    };
    made.unwrap_or(picture)
}

/// ISO 23008-12: a box `ftyp` of one of these brands.
fn is_heic(bytes: &[u8]) -> bool {
    bytes.get(4..8) == Some(b"ftyp")
        && bytes.get(8..12).is_some_and(|brand| {
            [b"heic", b"heix", b"hevc", b"heim", b"heis", b"mif1", b"msf1"].iter().any(|one| *one == brand)
        })
}

#[cfg(test)]
mod tests {
    use image::{Rgb, RgbImage};

    use super::*;

    /// A picture whose upper left quarter is red, taken by a phone that was held upright.
    fn from_a_phone() -> Vec<u8> {
        let picture =
            RgbImage::from_fn(
                64,
                32,
                |x, y| {
                    if x < 32 && y < 16 { Rgb([250, 10, 10]) } else { Rgb([10, 10, 250]) }
                },
            );
        let mut plain = Vec::new();
        picture.write_to(&mut Cursor::new(&mut plain), ImageFormat::Jpeg).unwrap();
        // TIFF in an APP1: little-endian, one entry, orientation (0x0112) 6: to be turned by a quarter clockwise.
        let tiff = [
            &b"II*\0\x08\0\0\0\x01\0"[..],
            &[0x12, 0x01, 3, 0, 1, 0, 0, 0, 6, 0, 0, 0],
            &[0, 0, 0, 0],
            b"GPSLatitude +47.6583 by the lake",
        ]
        .concat();
        let exif = [&b"Exif\0\0"[..], &tiff].concat();
        let mut file = plain[..2].to_vec();
        file.extend([0xff, 0xe1]);
        file.extend(u16::try_from(exif.len() + 2).unwrap().to_be_bytes());
        file.extend(&exif);
        // A second picture's worth of colour profile, and a comment.
        for (marker, body) in
            [(0xe2_u8, &b"MPF\0second picture"[..]), (0xed, b"APP13 by SN4711"), (0xfe, b"a comment")]
        {
            file.extend([0xff, marker]);
            file.extend(u16::try_from(body.len() + 2).unwrap().to_be_bytes());
            file.extend(body);
        }
        file.extend(&plain[2..]);
        // Behind its end: a film with its place, and the phone maker's trailer.
        file.extend(b"\0\0\0\x18ftypmp42 +47.6583+009.1750/ SEFT trailer");
        file.extend(&plain);
        file
    }

    #[test]
    fn nothing_but_the_picture_is_kept_and_it_stands_upright() {
        let kept = drawn_anew(&from_a_phone()).unwrap();
        assert_eq!(kept.media_type, "image/jpeg");
        for words in ["GPS", "lake", "MPF", "SN4711", "comment", "47.6583", "SEFT", "ftyp", "Exif"] {
            let has = kept.bytes.windows(words.len()).any(|window| window == words.as_bytes());
            assert!(!has, "{words} was kept");
        }
        let ends = kept.bytes.windows(2).filter(|two| *two == [0xff, 0xd9]).count();
        assert!(ends == 1 && kept.bytes.ends_with(&[0xff, 0xd9]), "one picture, and nothing behind its end");
        let shown = image::load_from_memory(&kept.bytes).unwrap().to_rgb8();
        assert_eq!(shown.dimensions(), (32, 64), "turned");
        let red = |x, y| shown.get_pixel(x, y).0[0] > 128;
        // A quarter clockwise: what was upper left is upper right.
        assert!(red(28, 4) && !red(4, 4) && !red(28, 60));
    }

    #[test]
    fn half_a_photo_is_said_to_be_half() {
        let whole = from_a_phone();
        let end = whole.windows(2).position(|two| two == [0xff, 0xd9]).unwrap();
        assert!(drawn_anew(&whole[..end + 2]).is_ok());
        for half in [end + 1, end, end - 40] {
            assert_eq!(drawn_anew(&whole[..half]), Err(NoPhoto::CutOff), "{half} of {end}");
        }
    }

    #[test]
    fn a_wide_gamut_becomes_srgb() {
        // The green of Display P3 that sRGB has not: (0, 255, 0) there is beyond it here, and its red is clipped to nothing;
        // a moderate one moves. By the primaries of SMPTE RP 431-2 and IEC 61966-2-1, linear, by hand: P3 (0.2, 0.5, 0.2)
        // is sRGB (0.1325, 0.5126, 0.1740).
        let linear = |value: f64| ((1.055 * value.powf(1.0 / 2.4) - 0.055) * 255.0).round() as u8;
        let p3 = [linear(0.2), linear(0.5), linear(0.2)];
        let picture = DynamicImage::from(RgbImage::from_pixel(4, 4, Rgb(p3)));
        let profile = moxcms::ColorProfile::new_display_p3().encode().unwrap();
        let shown = in_srgb(picture.clone(), &profile).to_rgb8();
        let wanted = [linear(0.1325), linear(0.5126), linear(0.1740)];
        for (is, wanted) in shown.get_pixel(1, 1).0.iter().zip(wanted) {
            assert!(is.abs_diff(wanted) <= 2, "{:?} for {wanted:?}", shown.get_pixel(1, 1));
        }
        assert_eq!(in_srgb(picture.clone(), b"no profile").to_rgb8(), picture.to_rgb8());
    }

    #[test]
    fn png_and_webp_are_taken_and_large_ones_made_smaller() {
        let picture = DynamicImage::from(RgbImage::from_pixel(3000, 200, Rgb([1, 2, 3])));
        for (format, kept_as) in [(ImageFormat::Png, "image/png"), (ImageFormat::WebP, "image/jpeg")] {
            let mut bytes = Vec::new();
            picture.write_to(&mut Cursor::new(&mut bytes), format).unwrap();
            let kept = drawn_anew(&bytes).unwrap();
            assert_eq!(kept.media_type, kept_as);
            let shown = image::load_from_memory(&kept.bytes).unwrap();
            assert_eq!((shown.width(), shown.height()), (2560, 171));
        }
    }

    #[test]
    fn what_is_no_photo_says_why() {
        let mut huge = Vec::new();
        RgbImage::new(1, 1).write_to(&mut Cursor::new(&mut huge), ImageFormat::Png).unwrap();
        // Its head says 50 000 × 50 000; the sum over it is set right.
        huge[16..24].copy_from_slice(&[0, 0, 0xc3, 0x50, 0, 0, 0xc3, 0x50]);
        let sum = crc(&huge[12..29]).to_be_bytes();
        huge[29..33].copy_from_slice(&sum);
        for (bytes, says) in [
            (&b"GIF89a"[..], "a JPEG, a PNG or a WebP"),
            (b"", "a JPEG, a PNG or a WebP"),
            (b"\0\0\0\x18ftypheic\0\0\0\0", "most compatible"),
            (&from_a_phone()[..300], "cannot be read"),
            (&huge, "50000 × 50000 pixels"),
        ] {
            let found = drawn_anew(bytes).unwrap_err().to_string();
            assert!(found.contains(says), "{found}");
        }
    }

    /// CRC-32 as PNG uses it (ISO 3309).
    fn crc(bytes: &[u8]) -> u32 {
        !bytes.iter().fold(!0_u32, |sum, byte| {
            (0..8).fold(sum ^ u32::from(*byte), |sum, _| {
                if sum & 1 == 1 { 0xedb8_8320 ^ (sum >> 1) } else { sum >> 1 }
            })
        })
    }
}
