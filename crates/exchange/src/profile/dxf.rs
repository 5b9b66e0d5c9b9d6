//! Profiles as DXF: LINE, LWPOLYLINE, POLYLINE, ARC, CIRCLE and SPLINE, by layer.

use std::collections::BTreeMap;

use dxf::entities::{Entity, EntityType, LwPolyline};
use dxf::enums::{AcadVersion, Units};
use dxf::{Drawing, LwPolylineVertex};

use super::flatten::{Spline, arc, bulge};
use super::{Contour, Layer, MOST_POINTS, Sheet, SheetError, TOLERANCE_MM, Unit};

fn broken(error: impl ToString) -> SheetError {
    SheetError::Broken { format: "DXF", why: error.to_string() }
}

pub(super) fn read(mut bytes: &[u8]) -> Result<Sheet, SheetError> {
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
    let mut points = 0;
    for entity in drawing.entities() {
        match contour(&entity.specific, tolerance) {
            Some(contour) => {
                points += contour.points.len();
                if points > MOST_POINTS {
                    return Err(SheetError::TooManyPoints);
                }
                let is_finite = contour.points.iter().all(|(x, y)| x.is_finite() && y.is_finite());
                if is_finite && contour.points.len() > 1 {
                    layers.entry(entity.common.layer.clone()).or_default().push(contour);
                }
            }
            None => *unread.entry(name(&entity.specific)).or_default() += 1,
        }
    }
    let notes = unread.into_iter().map(|(name, count)| format!("{count} × {name} left aside")).collect();
    let layers = layers.into_iter().map(|(name, contours)| Layer { name, contours }).collect();
    Ok(Sheet { layers, unit, notes })
}

/// `None` for what cannot be part of a profile.
fn contour(entity: &EntityType, tolerance: f64) -> Option<Contour> {
    let open = |points| Some(Contour { points, is_closed: false });
    match entity {
        EntityType::Line(line) => open(vec![(line.p1.x, line.p1.y), (line.p2.x, line.p2.y)]),
        EntityType::Arc(of) => {
            let to = if of.end_angle <= of.start_angle { of.end_angle + 360.0 } else { of.end_angle };
            open(arc((of.center.x, of.center.y), of.radius, of.start_angle, to, tolerance))
        }
        EntityType::Circle(of) => Some(Contour {
            points: arc((of.center.x, of.center.y), of.radius, 0.0, 360.0, tolerance),
            is_closed: true,
        }),
        EntityType::LwPolyline(line) => {
            let vertices = line.vertices.iter().map(|v| ((v.x, v.y), v.bulge)).collect::<Vec<_>>();
            Some(polyline(&vertices, line.is_closed(), tolerance))
        }
        EntityType::Polyline(line) => {
            let vertices =
                line.vertices().map(|v| ((v.location.x, v.location.y), v.bulge)).collect::<Vec<_>>();
            Some(polyline(&vertices, line.is_closed(), tolerance))
        }
        EntityType::Spline(of) => {
            let control: Vec<(f64, f64)> = of.control_points.iter().map(|point| (point.x, point.y)).collect();
            let spline = Spline {
                degree: usize::try_from(of.degree_of_curve).ok()?,
                knots: &of.knot_values,
                control: &control,
                weights: &of.weight_values,
            };
            open(spline.points(tolerance)?)
        }
        _ => None,
    }
}

fn polyline(vertices: &[((f64, f64), f64)], is_closed: bool, tolerance: f64) -> Contour {
    let mut points: Vec<(f64, f64)> = vertices.first().map(|(first, _)| *first).into_iter().collect();
    for two in vertices.windows(2) {
        points.extend(bulge(two[0].0, two[1].0, two[0].1, tolerance));
    }
    if let (true, Some((first, _)), Some((last, turn))) = (is_closed, vertices.first(), vertices.last()) {
        points.extend(bulge(*last, *first, *turn, tolerance));
    }
    Contour { points, is_closed }
}

fn name(entity: &EntityType) -> String {
    let text = format!("{entity:?}");
    text.split(['(', ' ', '{']).next().unwrap_or_default().to_uppercase()
}

pub(super) fn write(profiles: &[(&str, &[(f64, f64)])]) -> Result<Vec<u8>, SheetError> {
    let mut drawing = Drawing::new();
    drawing.header.version = AcadVersion::R2000;
    drawing.header.default_drawing_units = Units::Millimeters;
    for (name, points) in profiles {
        let vertex = |(x, y): &(f64, f64)| LwPolylineVertex { x: *x, y: *y, ..LwPolylineVertex::default() };
        let line = LwPolyline { vertices: points.iter().map(vertex).collect(), ..LwPolyline::default() };
        let mut entity = Entity::new(EntityType::LwPolyline(line));
        entity.common.layer = (*name).to_owned();
        drawing.add_entity(entity);
    }
    let mut bytes = Vec::new();
    drawing.save(&mut bytes).map_err(broken)?;
    Ok(bytes)
}
