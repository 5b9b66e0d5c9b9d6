//! Profiles as SVG: paths, lines, polylines and polygons, by group or id.

use kurbo::{BezPath, PathEl, Point};
use roxmltree::{Document, Node, ParsingOptions};

use super::budget::{Budget, near};
use super::{Contour, Layers, MOST_PIECES, Sheet, SheetError, TOLERANCE_MM, Unit};

fn broken(error: impl ToString) -> SheetError {
    SheetError::Broken { format: "SVG", why: error.to_string() }
}

/// What is drawn below an element of one of these is a stamp, not a drawing.
const NOT_DRAWN: [&str; 4] = ["defs", "symbol", "clipPath", "mask"];

/// Millimetres that a user unit may come to.
const SCALES: std::ops::RangeInclusive<f64> = 1e-4..=1e4;

pub(super) fn read(text: &str) -> Result<Sheet, SheetError> {
    let options = ParsingOptions { nodes_limit: 2 * MOST_PIECES as u32, ..ParsingOptions::default() };
    let document = Document::parse_with_options(text, options).map_err(|error| match error {
        roxmltree::Error::NodesLimitReached => SheetError::TooManyPieces,
        other => broken(other),
    })?;
    let root = document.root_element();
    if root.tag_name().name() != "svg" {
        return Err(SheetError::UnknownFormat);
    }
    let scale = scale_to_mm(&root);
    if let Some(scale) = scale.filter(|scale| !SCALES.contains(scale)) {
        return Err(broken(format!("its width and view box make a unit of {scale} mm")));
    }
    let mut notes = Vec::new();
    let mut layers = Layers::default();
    let mut budget = Budget::new();
    // Elements in the order of the file, each with the nearest group above it that has a name.
    let mut to_see = vec![(root, None)];
    while let Some((node, group)) = to_see.pop() {
        let tag = node.tag_name().name();
        if NOT_DRAWN.contains(&tag) {
            continue;
        }
        let group_below = if tag == "g" && node.attribute("id").is_some() { Some(node) } else { group };
        to_see.extend(node.children().rev().filter(Node::is_element).map(|child| (child, group_below)));
        if node.attribute("transform").is_some() && notes.is_empty() {
            notes.push(
                "a transform was found and is not applied: flatten transforms before exporting".to_owned(),
            );
        }
        let Some(path) = path_of(&node, &budget)? else { continue };
        let contours = contours(&path, TOLERANCE_MM / scale.unwrap_or(1.0), &mut budget)?;
        if contours.iter().any(|contour| contour.points.len() > 1) {
            let name = group.and_then(label).or_else(|| label(node)).unwrap_or("drawing");
            let drawn = contours.into_iter().filter(|contour| contour.points.len() > 1);
            layers.of(name)?.contours.extend(drawn);
        }
    }
    let mut layers = layers.all;
    let all = || layers.iter().flat_map(|layer| &layer.contours).flat_map(|contour| &contour.points);
    let is_up = all().all(|(_, y)| *y >= 0.0);
    if is_up && all().next().is_some() {
        notes.push("r was taken as it stands: all of it lies below the origin".to_owned());
    }
    let sign = if is_up { 1.0 } else { -1.0 };
    let factor = scale.unwrap_or(1.0);
    for contour in layers.iter_mut().flat_map(|layer| &mut layer.contours) {
        for point in &mut contour.points {
            *point = (point.0 * factor, point.1 * sign * factor);
        }
    }
    Ok(Sheet { layers, unit: scale.map(|_| Unit::Millimetres), notes })
}

/// Millimetres in a user unit, when width and view box say.
fn scale_to_mm(root: &Node<'_, '_>) -> Option<f64> {
    let width = root.attribute("width")?.trim();
    let digits = width.trim_end_matches(|sign: char| sign.is_ascii_alphabetic());
    let unit = Unit::from_code(&width[digits.len()..])?;
    let width_mm = digits.trim().parse::<f64>().ok()? * unit.in_mm();
    let in_units = match root.attribute("viewBox") {
        Some(view) => view.split([' ', ',']).filter(|word| !word.is_empty()).nth(2)?.parse::<f64>().ok()?,
        // Without a view box a user unit is a pixel: 96 of them are an inch (CSS).
        None => return Some(25.4 / 96.0),
    };
    let scale = width_mm / in_units;
    (scale.is_finite() && scale > 0.0).then_some(scale)
}

/// What an element is called: a drawing program's label, else its id.
fn label<'a>(node: Node<'a, '_>) -> Option<&'a str> {
    let named = node.attributes().find(|attribute| attribute.name() == "label");
    named.map(|attribute| attribute.value()).or(node.attribute("id"))
}

/// The figures in a text of path data, or of points; what is none is passed over.
fn figures(text: &str) -> impl Iterator<Item = f64> + '_ {
    let bytes = text.as_bytes();
    let mut at = 0;
    std::iter::from_fn(move || {
        while at < bytes.len() && !(bytes[at].is_ascii_digit() || b"+-.".contains(&bytes[at])) {
            at += 1;
        }
        let start = at;
        let (mut has_point, mut has_exponent) = (false, false);
        while at < bytes.len() {
            let is_part = match bytes[at] {
                b'0'..=b'9' => true,
                b'+' | b'-' => at == start || matches!(bytes[at - 1], b'e' | b'E'),
                b'.' => !std::mem::replace(&mut has_point, true) && !has_exponent,
                b'e' | b'E' => at > start && !std::mem::replace(&mut has_exponent, true),
                _ => false,
            };
            if !is_part {
                break;
            }
            at += 1;
        }
        (at > start).then(|| text[start..at].parse().unwrap_or(0.0))
    })
}

/// Looks at the figures before a path is made of them: no more than there may be points, none further out than drawings
/// go. A piece of a path has six of them at most.
fn within_bounds(text: &str, budget: &Budget) -> Result<(), SheetError> {
    let most = budget.left().saturating_mul(7);
    for (count, figure) in figures(text).enumerate() {
        if count > most {
            return Err(SheetError::TooManyPoints);
        }
        near(&[figure])?;
    }
    Ok(())
}

fn path_of(node: &Node<'_, '_>, budget: &Budget) -> Result<Option<BezPath>, SheetError> {
    let text = |name: &str| node.attribute(name).unwrap_or_default();
    let number = |name: &str| text(name).trim().parse::<f64>().unwrap_or(0.0);
    let line = |points: &[(f64, f64)], is_closed: bool| {
        let mut path = BezPath::new();
        for (at, point) in points.iter().enumerate() {
            if at == 0 { path.move_to(*point) } else { path.line_to(*point) }
        }
        if is_closed && !path.is_empty() {
            path.close_path();
        }
        Ok(Some(path))
    };
    let points = || {
        within_bounds(text("points"), budget)?;
        let numbers: Vec<f64> = text("points")
            .split([' ', ',', '\n', '\t'])
            .filter_map(|word| word.trim().parse().ok())
            .filter(|number: &f64| number.is_finite())
            .collect();
        Ok(numbers.chunks_exact(2).map(|two| (two[0], two[1])).collect::<Vec<_>>())
    };
    match node.tag_name().name() {
        "path" => {
            within_bounds(text("d"), budget)?;
            Ok(Some(BezPath::from_svg(text("d")).map_err(broken)?))
        }
        "line" => line(&[(number("x1"), number("y1")), (number("x2"), number("y2"))], false),
        "polyline" => line(&points()?, false),
        "polygon" => line(&points()?, true),
        _ => Ok(None),
    }
}

/// A path's pieces as lines. Each piece by itself, so that the budget is asked before the next one.
fn contours(path: &BezPath, tolerance: f64, budget: &mut Budget) -> Result<Vec<Contour>, SheetError> {
    let mut all: Vec<Contour> = Vec::new();
    let mut at = Point::ZERO;
    for element in path.elements() {
        let to = match element {
            PathEl::MoveTo(to) => {
                near(&[to.x, to.y])?;
                budget.take(1)?;
                all.push(Contour { points: vec![(to.x, to.y)], is_closed: false });
                at = *to;
                continue;
            }
            PathEl::ClosePath => {
                if let Some(contour) = all.last_mut() {
                    contour.is_closed = true;
                    at = contour.points.first().map_or(at, |first| Point::new(first.0, first.1));
                }
                continue;
            }
            PathEl::LineTo(to) => {
                near(&[to.x, to.y])?;
                to
            }
            PathEl::QuadTo(by, to) => {
                near(&[by.x, by.y, to.x, to.y])?;
                to
            }
            PathEl::CurveTo(by, and_by, to) => {
                near(&[by.x, by.y, and_by.x, and_by.y, to.x, to.y])?;
                to
            }
        };
        let (mut points, left) = (Vec::new(), budget.left());
        kurbo::flatten([PathEl::MoveTo(at), *element], tolerance, |element| {
            if let PathEl::LineTo(point) = element
                && points.len() <= left
            {
                points.push((point.x, point.y));
            }
        });
        budget.take(points.len())?;
        at = *to;
        if let Some(contour) = all.last_mut() {
            contour.points.extend(points);
        }
    }
    all.retain(|contour| contour.points.iter().all(|(x, y)| x.is_finite() && y.is_finite()));
    Ok(all)
}

pub(super) fn write(profiles: &[(String, &[(f64, f64)])]) -> String {
    let all = || profiles.iter().flat_map(|(_, points)| points.iter());
    let least = all().map(|point| point.0).fold(0.0, f64::min) - 5.0;
    let most = all().map(|point| point.0).fold(0.0, f64::max) + 5.0;
    let high = all().map(|point| point.1).fold(0.0, f64::max) + 5.0;
    let (width, height) = (most - least, high + 5.0);
    let mut text = format!(
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width}mm\" height=\"{height}mm\" \
         viewBox=\"{least} {} {width} {height}\">\n",
        -high
    );
    for (name, points) in profiles {
        let place: Vec<String> = points.iter().map(|(y, r)| format!("{y},{}", -r)).collect();
        let name: String = name.chars().filter(|sign| !"<>&\"'".contains(*sign)).collect();
        text.push_str(&format!(
            "  <path id=\"{name}\" d=\"M{}\" fill=\"none\" stroke=\"black\" stroke-width=\"0.25\"/>\n",
            place.join(" L")
        ));
    }
    text.push_str("</svg>\n");
    text
}
