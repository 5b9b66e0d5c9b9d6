//! Photos of trial fits: JPEG and PNG, without what a camera notes beside the picture.

use img_parts::ImageEXIF;
use img_parts::jpeg::{Jpeg, markers};
use img_parts::png::Png;

/// Why bytes are no photo.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error("a photo is a JPEG or a PNG")]
pub struct NoPhoto;

/// Chunks of a PNG that only say how it looks; all others can hold place, time and device.
const PNG_KEPT: [&[u8; 4]; 12] = [
    b"IHDR", b"PLTE", b"IDAT", b"IEND", b"tRNS", b"gAMA", b"cHRM", b"sRGB", b"iCCP", b"sBIT", b"pHYs",
    b"bKGD",
];

/// The picture alone, with its media type: place, time, device and comments are left out.
///
/// # Errors
/// Anything but a JPEG or a PNG.
pub fn stripped(bytes: &[u8]) -> Result<(&'static str, Vec<u8>), NoPhoto> {
    if let Ok(mut jpeg) = Jpeg::from_bytes(bytes.to_vec().into()) {
        jpeg.set_exif(None);
        // APP1 to APP15 but for the colours' APP2 and APP14, and comments.
        jpeg.segments_mut().retain(|segment| {
            let marker = segment.marker();
            let is_app = (markers::APP1..=markers::APP15).contains(&marker);
            let is_colour = [markers::APP2, markers::APP14].contains(&marker);
            (!is_app || is_colour) && marker != markers::COM
        });
        return Ok(("image/jpeg", jpeg.encoder().bytes().to_vec()));
    }
    if let Ok(mut png) = Png::from_bytes(bytes.to_vec().into()) {
        png.chunks_mut().retain(|chunk| PNG_KEPT.contains(&&chunk.kind()));
        return Ok(("image/png", png.encoder().bytes().to_vec()));
    }
    Err(NoPhoto)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A JPEG's skeleton: start, APP0, an APP1 with a place, a comment, a scan, end.
    fn jpeg() -> Vec<u8> {
        let mut bytes = vec![0xff, 0xd8];
        for (marker, body) in [
            (0xe0, &b"JFIF\0\x01\x01\0\0\x01\0\x01\0\0"[..]),
            (0xe1, b"Exif\0\0GPSLatitude"),
            (0xfe, b"by the lake"),
            (0xda, b"\x01\x01\0\0\x3f\0"),
        ] {
            bytes.extend([0xff, marker]);
            bytes.extend(u16::try_from(body.len() + 2).unwrap().to_be_bytes());
            bytes.extend(body);
        }
        bytes.extend([0x12, 0x34, 0xff, 0xd9]);
        bytes
    }

    #[test]
    fn where_it_was_taken_is_left_out() {
        let (kind, bytes) = stripped(&jpeg()).unwrap();
        let has = |words: &[u8]| bytes.windows(words.len()).any(|window| window == words);
        assert_eq!(kind, "image/jpeg");
        assert!(!has(b"GPSLatitude") && !has(b"by the lake") && has(b"JFIF") && has(&[0x12, 0x34]));
        assert_eq!(stripped(b"GIF89a"), Err(NoPhoto));
        assert_eq!(stripped(b""), Err(NoPhoto));
    }
}
