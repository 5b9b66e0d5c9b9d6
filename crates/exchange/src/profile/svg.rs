//! Profiles as SVG: paths, lines, polylines and polygons, by group or id.

use kurbo::{BezPath, PathEl};

use super::{Contour, Layer, MOST_POINTS, Sheet, SheetError, TOLERANCE_MM, Unit};

fn broken(error: impl ToString) -> SheetError {
    SheetError::Broken { format: "SVG", why: error.to_string() }
}

pub(super) fn read(text: &str) -> Result<Sheet, SheetError> {
    let document = roxmltree::Document::parse(text).map_err(broken)?;
    let root = document.root_element();
    if root.tag_name().name() != "svg" {
        return Err(SheetError::UnknownFormat);
    }
    let scale = scale_to_mm(&root);
    let mut notes = Vec::new();
    let mut layers: Vec<Layer> = Vec::new();
    let mut points = 0;
    for node in root.descendants().filter(roxmltree::Node::is_element) {
        if node.ancestors().any(|one| ["defs", "symbol", "clipPath", "mask"].contains(&one.tag_name().name()))
        {
            continue;
        }
        if node.attribute("transform").is_some() {
            let note =
                "a transform was found and is not applied: flatten transforms before exporting".to_owned();
            if !notes.contains(&note) {
                notes.push(note);
            }
        }
        let Some(path) = path_of(&node)? else { continue };
        let name = layer_name(&node);
        for contour in contours(&path, TOLERANCE_MM / scale.unwrap_or(1.0)) {
            points += contour.points.len();
            if points > MOST_POINTS {
                return Err(SheetError::TooManyPoints);
            }
            if contour.points.len() < 2 {
                continue;
            }
            match layers.iter_mut().find(|layer| layer.name == name) {
                Some(layer) => layer.contours.push(contour),
                None => layers.push(Layer { name: name.clone(), contours: vec![contour] }),
            }
        }
    }
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
fn scale_to_mm(root: &roxmltree::Node<'_, '_>) -> Option<f64> {
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

/// The nearest group's or the element's own id.
fn layer_name(node: &roxmltree::Node<'_, '_>) -> String {
    let group =
        node.ancestors().skip(1).find(|one| one.tag_name().name() == "g" && one.attribute("id").is_some());
    let label = |one: roxmltree::Node<'_, '_>| {
        let named = one.attributes().find(|attribute| attribute.name() == "label");
        named.map(|attribute| attribute.value().to_owned()).or(one.attribute("id").map(str::to_owned))
    };
    group.and_then(label).or_else(|| label(*node)).unwrap_or_else(|| "drawing".to_owned())
}

fn path_of(node: &roxmltree::Node<'_, '_>) -> Result<Option<BezPath>, SheetError> {
    let number =
        |name: &str| node.attribute(name).and_then(|text| text.trim().parse::<f64>().ok()).unwrap_or(0.0);
    let points = || {
        let text = node.attribute("points").unwrap_or_default();
        let numbers: Vec<f64> =
            text.split([' ', ',', '\n', '\t']).filter_map(|word| word.trim().parse().ok()).collect();
        numbers.chunks_exact(2).map(|two| (two[0], two[1])).collect::<Vec<_>>()
    };
    let line = |points: Vec<(f64, f64)>, is_closed: bool| {
        let mut path = BezPath::new();
        for (at, point) in points.into_iter().enumerate() {
            if at == 0 { path.move_to(point) } else { path.line_to(point) }
        }
        if is_closed && !path.is_empty() {
            path.close_path();
        }
        path
    };
    Ok(match node.tag_name().name() {
        "path" => Some(BezPath::from_svg(node.attribute("d").unwrap_or_default()).map_err(broken)?),
        "line" => Some(line(vec![(number("x1"), number("y1")), (number("x2"), number("y2"))], false)),
        "polyline" => Some(line(points(), false)),
        "polygon" => Some(line(points(), true)),
        _ => None,
    })
}

fn contours(path: &BezPath, tolerance: f64) -> Vec<Contour> {
    let mut all: Vec<Contour> = Vec::new();
    kurbo::flatten(path, tolerance, |element| match element {
        PathEl::MoveTo(point) => all.push(Contour { points: vec![(point.x, point.y)], is_closed: false }),
        PathEl::LineTo(point) => {
            if let Some(contour) = all.last_mut() {
                contour.points.push((point.x, point.y));
            }
        }
        PathEl::ClosePath => {
            if let Some(contour) = all.last_mut() {
                contour.is_closed = true;
            }
        }
        PathEl::QuadTo(..) | PathEl::CurveTo(..) => {}
    });
    all.retain(|contour| contour.points.iter().all(|(x, y)| x.is_finite() && y.is_finite()));
    all
}

pub(super) fn write(profiles: &[(&str, &[(f64, f64)])]) -> String {
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
