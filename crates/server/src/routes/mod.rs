//! The API's paths, one list.

mod jobs;
mod judge;
mod read;

use axum::Router;
use store::Store;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Dimensione",
        description = "Wheel and tire fitment. Lengths in mm, rim codes in inches, speeds in km/h, as the names say. \
                       Errors are RFC 9457 problems.",
        license(name = "MIT", identifier = "MIT")
    ),
    components(schemas(crate::problem::Problem, crate::wire::bench::BenchAxle))
)]
struct Description;

fn paths() -> OpenApiRouter<Store> {
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
            .routes(routes!(jobs::journal)),
    )
}

/// The API's router and its description.
pub fn api() -> (Router<Store>, utoipa::openapi::OpenApi) {
    paths().split_for_parts()
}

/// The API's description.
pub fn openapi() -> utoipa::openapi::OpenApi {
    api().1
}
