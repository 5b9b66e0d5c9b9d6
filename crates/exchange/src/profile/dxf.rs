//! Profiles as DXF: LINE, LWPOLYLINE, POLYLINE, ARC, CIRCLE and SPLINE, by layer.

use std::collections::BTreeMap;

use dxf::entities::{Entity, EntityType, LwPolyline};
use dxf::enums::{AcadVersion, Units};
use dxf::{Drawing, LwPolylineVertex};

use super::budget::{Budget, near};
use super::flatten::{Spline, arc, bulge};
use super::{Contour, Layer, MOST_LAYERS, MOST_PIECES, Sheet, SheetError, TOLERANCE_MM, Unit};

fn broken(error: impl ToString) -> SheetError {
    SheetError::Broken { format: "DXF", why: error.to_string() }
}

pub(super) fn read(mut bytes: &[u8]) -> Result<Sheet, SheetError> {
    pieces_within_bounds(bytes)?;
    let drawing = Drawing::load(&mut bytes).map_err(broken)?;
    let unit = match drawing.header.default_drawing_units {
        Units::Millimeters => Some(Unit::Millimetres),
        Units::Centimeters => Some(Unit::Centimetres),
        Units::Inches => Some(Unit::Inches),
        _ => None,
    };
    // Without a unit the finer of the usual two decides how finely curves are cut.
    let tolerance = TOLERANCE_MM / unit.map_or(25.4, Unit::in_mm);
    let mut layers: BTreeMap<String, Vec<Contour>> = BTreeMap::new();
    let mut unread: BTreeMap<String, usize> = BTreeMap::new();
    let mut budget = Budget::new();
    for entity in drawing.entities() {
        match contour(&entity.specific, tolerance, &mut budget)? {
            Some(contour) => {
                let is_finite = contour.points.iter().all(|(x, y)| x.is_finite() && y.is_finite());
                if is_finite && contour.points.len() > 1 {
                    layers.entry(entity.common.layer.clone()).or_default().push(contour);
                    if layers.len() > MOST_LAYERS {
                        return Err(SheetError::TooManyLayers);
                    }
                }
            }
            None => *unread.entry(name(&entity.specific)).or_default() += 1,
        }
    }
    let notes = unread.into_iter().map(|(name, count)| format!("{count} × {name} left aside")).collect();
    let layers = layers.into_iter().map(|(name, contours)| Layer { name, contours }).collect();
    Ok(Sheet { layers, unit, notes })
}

/// Counts what begins with a group code of 0 before anything is made of it: an entity takes a hundred times the room of
/// its few letters.
fn pieces_within_bounds(bytes: &[u8]) -> Result<(), SheetError> {
    if bytes.starts_with(b"AutoCAD Binary DXF") {
        // A code of 0 and a name of at least three letters with its end.
        let names =
            bytes.windows(3).filter(|three| three[0] == 0 && three[1..].iter().all(u8::is_ascii_uppercase));
        return if names.count() > MOST_PIECES { Err(SheetError::TooManyPieces) } else { Ok(()) };
    }
    let mut lines = bytes.split(|byte| *byte == b'\n');
    let mut pieces = 0;
    while let Some(code) = lines.next() {
        pieces += usize::from(code.trim_ascii() == b"0");
        if pieces > MOST_PIECES {
            return Err(SheetError::TooManyPieces);
        }
        lines.next();
    }
    Ok(())
}

/// `None` for what cannot be part of a profile.
fn contour(entity: &EntityType, tolerance: f64, budget: &mut Budget) -> Result<Option<Contour>, SheetError> {
    let open = |points| Ok(Some(Contour { points, is_closed: false }));
    match entity {
        EntityType::Line(line) => {
            near(&[line.p1.x, line.p1.y, line.p2.x, line.p2.y])?;
            budget.take(2)?;
            open(vec![(line.p1.x, line.p1.y), (line.p2.x, line.p2.y)])
        }
        EntityType::Arc(of) => {
            near(&[of.center.x, of.center.y, of.radius, of.start_angle, of.end_angle])?;
            let to = if of.end_angle <= of.start_angle { of.end_angle + 360.0 } else { of.end_angle };
            open(arc((of.center.x, of.center.y), of.radius, of.start_angle, to, tolerance, budget)?)
        }
        EntityType::Circle(of) => {
            near(&[of.center.x, of.center.y, of.radius])?;
            let points = arc((of.center.x, of.center.y), of.radius, 0.0, 360.0, tolerance, budget)?;
            Ok(Some(Contour { points, is_closed: true }))
        }
        EntityType::LwPolyline(line) => {
            let vertices = line.vertices.iter().map(|v| ((v.x, v.y), v.bulge));
            polyline(vertices, line.is_closed(), tolerance, budget).map(Some)
        }
        EntityType::Polyline(line) => {
            let vertices = line.vertices().map(|v| ((v.location.x, v.location.y), v.bulge));
            polyline(vertices, line.is_closed(), tolerance, budget).map(Some)
        }
        EntityType::Spline(of) => {
            let control: Vec<(f64, f64)> = of.control_points.iter().map(|point| (point.x, point.y)).collect();
            for point in &control {
                near(&[point.0, point.1])?;
            }
            let Ok(degree) = usize::try_from(of.degree_of_curve) else { return Ok(None) };
            let spline =
                Spline { degree, knots: &of.knot_values, control: &control, weights: &of.weight_values };
            let points = spline.points(tolerance, budget)?;
            Ok(points.map(|points| Contour { points, is_closed: false }))
        }
        _ => Ok(None),
    }
}

fn polyline(
    vertices: impl Iterator<Item = ((f64, f64), f64)>,
    is_closed: bool,
    tolerance: f64,
    budget: &mut Budget,
) -> Result<Contour, SheetError> {
    let mut points: Vec<(f64, f64)> = Vec::new();
    let mut last: Option<((f64, f64), f64)> = None;
    for (at, turn) in vertices {
        near(&[at.0, at.1])?;
        match last {
            None => {
                budget.take(1)?;
                points.push(at);
            }
            Some((from, turn)) => points.extend(bulge(from, at, turn, tolerance, budget)?),
        }
        last = Some((at, turn));
    }
    if let (true, Some(first), Some((last, turn))) = (is_closed, points.first().copied(), last) {
        points.extend(bulge(last, first, turn, tolerance, budget)?);
    }
    Ok(Contour { points, is_closed })
}

fn name(entity: &EntityType) -> String {
    let text = format!("{entity:?}");
    text.split(['(', ' ', '{']).next().unwrap_or_default().to_uppercase()
}

pub(super) fn write(profiles: &[(String, &[(f64, f64)])]) -> Result<Vec<u8>, SheetError> {
    let mut drawing = Drawing::new();
    drawing.header.version = AcadVersion::R2000;
    drawing.header.default_drawing_units = Units::Millimeters;
    for (name, points) in profiles {
        let vertex = |(x, y): &(f64, f64)| LwPolylineVertex { x: *x, y: *y, ..LwPolylineVertex::default() };
        let line = LwPolyline { vertices: points.iter().map(vertex).collect(), ..LwPolyline::default() };
        let mut entity = Entity::new(EntityType::LwPolyline(line));
        entity.common.layer.clone_from(name);
        drawing.add_entity(entity);
    }
    let mut bytes = Vec::new();
    drawing.save(&mut bytes).map_err(broken)?;
    Ok(bytes)
}
