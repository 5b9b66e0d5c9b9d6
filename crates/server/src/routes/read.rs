//! Reading notations.

use axum::Json;
use fitment::RimWidth;
use fitment::setup::line;

use crate::extract::{Body, Params};
use crate::problem::{ApiError, FieldError, Problem};
use crate::wire::describe::{TireQuery, TireView, WheelQuery, WheelView};
use crate::wire::read::{LineText, LineView};

/// Describe a tire: everything that follows from its size.
#[utoipa::path(get, path = "/tires/describe", params(TireQuery), tag = "sizes", responses(
    (status = 200, description = "the tire", body = TireView),
    (status = 422, description = "a size that could not be read", body = Problem)
))]
pub(super) async fn describe_tire(Params(query): Params<TireQuery>) -> Result<Json<TireView>, ApiError> {
    let tire = line::read_tire(&query.size).map_err(|error| ApiError::notation("size", &error))?;
    let rim = query.rim_width_in.map(rim_width).transpose()?;
    Ok(Json(TireView::new(tire, rim)))
}

fn rim_width(code: f64) -> Result<RimWidth, ApiError> {
    RimWidth::from_code(code).ok_or_else(|| {
        let detail = format!("rim width {code} is not one from 3 to 16 in");
        ApiError::Unprocessable(vec![FieldError::new("rim_width_in", detail)])
    })
}

/// Describe a wheel: offset, backspacing, bolt circle, bore.
#[utoipa::path(get, path = "/wheels/describe", params(WheelQuery), tag = "sizes", responses(
    (status = 200, description = "the wheel", body = WheelView),
    (status = 422, description = "a wheel that could not be read", body = Problem)
))]
pub(super) async fn describe_wheel(Params(query): Params<WheelQuery>) -> Result<Json<WheelView>, ApiError> {
    let wheel = line::read_wheel(&query.spec).map_err(|error| ApiError::notation("spec", &error))?;
    Ok(Json(WheelView::from(wheel)))
}

/// Read a setup line as typed or pasted, piece by piece.
#[utoipa::path(post, path = "/setups/read", request_body = LineText, tag = "sizes", responses(
    (status = 200, description = "the line, stretch by stretch; faults stand in the stretches", body = LineView),
    (status = 422, description = "a text too long to be a setup", body = Problem)
))]
pub(super) async fn read_line(Body(request): Body<LineText>) -> Result<Json<LineView>, ApiError> {
    let reading = line::read(&request.text).map_err(|error| ApiError::notation("/text", &error))?;
    Ok(Json(LineView::new(&request.text, &reading)))
}
