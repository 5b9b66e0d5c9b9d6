//! The API's paths, one list.

mod bay;
mod catalogue;
mod choose;
mod finder;
mod fit;
mod house;
mod jobs;
mod judge;
mod proven;
mod read;
mod workshop;

use axum::Router;
use tower_http::limit::RequestBodyLimitLayer;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::{BODY_LIMIT, FILE_LIMIT, LIST_LIMIT, Shop};

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Dimensione",
        description = "Wheel and tire fitment. Lengths in mm, rim codes in inches, speeds in km/h, as the names say. \
                       Errors are RFC 9457 problems.",
        license(name = "MIT", identifier = "MIT")
    ),
    components(schemas(
        crate::problem::Problem,
        crate::wire::bench::BenchAxle,
        crate::wire::bench::ColumnFit,
        crate::wire::measured::WantedView
    ))
)]
struct Description;

fn paths() -> OpenApiRouter<Shop> {
    OpenApiRouter::with_openapi(Description::openapi()).nest(
        "/api/v1",
        OpenApiRouter::new()
            .routes(routes!(read::describe_tire))
            .routes(routes!(read::describe_wheel))
            .routes(routes!(read::read_line))
            .routes(routes!(judge::compare))
            .routes(routes!(judge::bench))
            .routes(routes!(jobs::list, jobs::open))
            .routes(routes!(jobs::get, jobs::put))
            .routes(routes!(jobs::undo))
            .routes(routes!(jobs::redo))
            .routes(routes!(jobs::keep))
            .routes(routes!(jobs::side_by_side))
            .routes(routes!(jobs::journal))
            .routes(routes!(fit::fit))
            .routes(routes!(fit::window))
            .routes(routes!(bay::registry))
            .routes(routes!(bay::gauge))
            .routes(routes!(bay::cars))
            .routes(routes!(bay::add))
            .routes(routes!(bay::remove))
            .routes(routes!(bay::copy))
            .routes(routes!(choose::ladder))
            .routes(routes!(choose::pressure))
            .routes(routes!(choose::stagger))
            .routes(routes!(choose::fasteners))
            .routes(routes!(catalogue::try_list))
            .routes(routes!(catalogue::progress))
            .routes(routes!(catalogue::take))
            .routes(routes!(catalogue::undo_list))
            .routes(routes!(catalogue::lists))
            .routes(routes!(catalogue::rows))
            .routes(routes!(catalogue::export))
            .routes(routes!(finder::finder))
            .routes(routes!(finder::supply))
            .routes(routes!(workshop::brakes))
            .routes(routes!(workshop::job_brakes))
            .routes(routes!(workshop::brake_wheels))
            .routes(routes!(workshop::write_profile))
            .routes(routes!(workshop::wheel_templates, workshop::put_wheel_template))
            .routes(routes!(workshop::trials))
            .routes(routes!(workshop::get_photo))
            .routes(routes!(proven::find))
            .routes(routes!(proven::from_job))
            .routes(routes!(proven::remove_proven))
            .routes(routes!(proven::export_proven))
            .routes(routes!(house::get, house::put))
            .layer(RequestBodyLimitLayer::new(BODY_LIMIT))
            .merge(
                // A photo or a drawing.
                OpenApiRouter::new()
                    .routes(routes!(workshop::read_profile))
                    .routes(routes!(workshop::add_photo))
                    .routes(routes!(proven::bring_proven))
                    .layer(RequestBodyLimitLayer::new(FILE_LIMIT)),
            )
            .merge(
                // A price list is larger than anything else that is sent here.
                OpenApiRouter::new()
                    .routes(routes!(catalogue::bring))
                    .layer(RequestBodyLimitLayer::new(LIST_LIMIT)),
            ),
    )
}

/// The API's router and its description.
pub fn api() -> (Router<Shop>, utoipa::openapi::OpenApi) {
    paths().split_for_parts()
}

/// The API's description.
pub fn openapi() -> utoipa::openapi::OpenApi {
    api().1
}
