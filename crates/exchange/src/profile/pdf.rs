//! The card template: a profile at 1:1 with a check bar, to be printed, cut out and held in a wheel.

use krilla::Document;
use krilla::color::rgb;
use krilla::geom::{PathBuilder, Point};
use krilla::page::PageSettings;
use krilla::paint::{Fill, Stroke, StrokeDash};
use krilla::surface::Surface;
use krilla::text::{Font, TextDirection};

use super::SheetError;

/// Length of the bar that is measured on the print: anything else than this says that it was scaled.
pub const CHECK_BAR_MM: f64 = 100.0;

/// IBM Plex Sans Condensed, SIL Open Font License: see fonts/LICENSE.txt.
const FONT: &[u8] = include_bytes!("../../fonts/IBMPlexSansCondensed-Regular.ttf");

/// Sheets in the order they are tried, in millimetres: ISO 216 A4 and A3, upright and lying, then larger ones.
const SHEETS: [(f64, f64); 8] = [
    (210.0, 297.0),
    (297.0, 210.0),
    (297.0, 420.0),
    (420.0, 297.0),
    (420.0, 594.0),
    (594.0, 420.0),
    (841.0, 1189.0),
    (1189.0, 841.0),
];
const MARGIN: f64 = 12.0;
/// Room for title and check bar.
const FOOT: f64 = 34.0;

fn pt(mm: f64) -> f32 {
    (mm * 72.0 / 25.4) as f32
}

/// A profile as a page at true scale: its line to cut along, the hub face, a line of equal radius to lay it by, and the
/// check bar.
///
/// # Errors
/// What the writer says.
pub fn card_template(title: &str, notes: &[String], profile: &[(f64, f64)]) -> Result<Vec<u8>, SheetError> {
    let broken = |why: &str| SheetError::Broken { format: "PDF", why: why.to_owned() };
    let font = Font::new(FONT.to_vec().into(), 0).ok_or_else(|| broken("no font"))?;
    let extent = |pick: fn(&(f64, f64)) -> f64| {
        profile.iter().map(pick).fold((f64::MAX, f64::MIN), |(low, high), at| (low.min(at), high.max(at)))
    };
    let (y, r) = (extent(|point| point.0), extent(|point| point.1));
    let (left, right) = (y.0.min(0.0) - 6.0, y.1.max(0.0) + 6.0);
    // The card's foot: a round radius under everything, by which it is laid to the axis.
    let foot_r = ((r.0 - 8.0) / 10.0).floor().max(0.0) * 10.0;
    let (wide, high) = (right - left, r.1 + 6.0 - foot_r);
    let fits = |(w, h): &&(f64, f64)| {
        wide.max(CHECK_BAR_MM + 4.0) + 2.0 * MARGIN <= *w && high + 2.0 * MARGIN + FOOT <= *h
    };
    let (width, height) = *SHEETS.iter().find(fits).ok_or_else(|| broken("it is larger than any sheet"))?;

    let mut document = Document::new();
    let settings = PageSettings::from_wh(pt(width), pt(height)).ok_or_else(|| broken("no page"))?;
    let mut page = document.start_page_with(settings);
    let mut surface = page.surface();
    // Page coordinates of a place of the profile; y of the page points down.
    let at = |y: f64, r: f64| (MARGIN + y - left, MARGIN + (r.max(foot_r) - foot_r).mul_add(-1.0, high));
    let cut: Vec<(f64, f64)> = profile.iter().map(|(y, r)| at(*y, *r)).collect();
    line(&mut surface, &cut, 0.25, None);
    // Cutting marks: from both ends of the line to the card's edge at the foot.
    for end in [cut.first(), cut.last()].into_iter().flatten() {
        line(&mut surface, &[*end, (end.0, at(0.0, foot_r).1)], 0.15, Some([2.0, 1.5]));
    }
    line(&mut surface, &[at(left, foot_r), at(right, foot_r)], 0.25, None);
    line(&mut surface, &[at(0.0, foot_r), at(0.0, r.1 + 5.0)], 0.15, Some([6.0, 1.5]));
    let say = |surface: &mut Surface<'_>, place: (f64, f64), size: f64, text: &str| {
        surface.set_stroke(None);
        surface.set_fill(Some(Fill { paint: rgb::Color::new(0, 0, 0).into(), ..Fill::default() }));
        let start = Point::from_xy(pt(place.0), pt(place.1));
        surface.draw_text(start, font.clone(), size as f32, text, false, TextDirection::LeftToRight);
    };
    let face = at(0.0, foot_r);
    say(&mut surface, (face.0 + 1.0, face.1 - 1.5), 7.0, "hub face, y = 0");
    say(
        &mut surface,
        (at(left, 0.0).0 + 1.0, face.1 + 3.5),
        7.0,
        &format!("this edge lies {foot_r:.0} mm from the spin axis"),
    );
    let foot = height - MARGIN - FOOT + 14.0;
    say(&mut surface, (MARGIN, foot), 12.0, title);
    for (count, note) in notes.iter().take(2).enumerate() {
        say(&mut surface, (MARGIN, foot + 5.0 + 4.0 * count as f64), 8.0, note);
    }
    let bar = height - MARGIN;
    line(&mut surface, &[(MARGIN, bar), (MARGIN + CHECK_BAR_MM, bar)], 0.5, None);
    // The marks lie inside: from outer edge to outer edge it is the bar's length.
    for end in [MARGIN + 0.1, MARGIN + CHECK_BAR_MM - 0.1] {
        line(&mut surface, &[(end, bar - 2.5), (end, bar + 2.5)], 0.2, None);
    }
    let warning = "100 mm: measure it. Print at 100 %, without fitting to the page.";
    say(&mut surface, (MARGIN + 2.0, bar - 3.5), 8.0, warning);
    surface.finish();
    page.finish();
    document.finish().map_err(|error| broken(&format!("{error:?}")))
}

fn line(surface: &mut Surface<'_>, points: &[(f64, f64)], width_mm: f64, dash_mm: Option<[f64; 2]>) {
    let mut builder = PathBuilder::new();
    for (at, (x, y)) in points.iter().enumerate() {
        if at == 0 { builder.move_to(pt(*x), pt(*y)) } else { builder.line_to(pt(*x), pt(*y)) }
    }
    let Some(path) = builder.finish() else { return };
    surface.set_fill(None);
    surface.set_stroke(Some(Stroke {
        paint: rgb::Color::new(0, 0, 0).into(),
        width: pt(width_mm),
        dash: dash_mm.map(|dash| StrokeDash { array: dash.map(pt).to_vec(), offset: 0.0 }),
        ..Stroke::default()
    }));
    surface.draw_path(&path);
}
