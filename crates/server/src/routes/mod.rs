//! The API's paths, one list.

mod bay;
mod catalogue;
mod choose;
mod clubs;
mod description;
mod finder;
mod fit;
mod house;
mod jobs;
mod judge;
mod motion;
mod proven;
mod read;
mod recalibration;
mod road;
mod workshop;

use axum::Router;
use axum::middleware::from_fn_with_state;
use tower_http::limit::RequestBodyLimitLayer;
use utoipa::OpenApi;
use utoipa_axum::router::OpenApiRouter;
use utoipa_axum::routes;

use crate::time_limit::answered_in_time;
use crate::{AppState, BODY_LIMIT, FILE_LIMIT, FILE_TIME, LIST_LIMIT, LIST_TIME, TIME_LIMIT};

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
        crate::wire::club::ClassBoxView,
        crate::wire::sets::HeatWidthView,
        crate::wire::plan_on_road::CoveredView,
        crate::wire::plan_on_road::WingSheet,
        crate::wire::measured::WantedView
    ))
)]
struct Description;

fn paths() -> OpenApiRouter<AppState> {
    OpenApiRouter::with_openapi(Description::openapi()).nest(
        "/api/v1",
        OpenApiRouter::new()
            .routes(routes!(read::describe_tire))
            .routes(routes!(read::describe_wheel))
            .routes(routes!(read::read_line))
            .routes(routes!(judge::compare))
            .routes(routes!(judge::bench))
            .routes(routes!(judge::bench_brief))
            .routes(routes!(jobs::list, jobs::open))
            .routes(routes!(jobs::get, jobs::put))
            .routes(routes!(jobs::take_off_unreadable))
            .routes(routes!(jobs::undo))
            .routes(routes!(jobs::redo))
            .routes(routes!(jobs::keep))
            .routes(routes!(jobs::side_by_side))
            .routes(routes!(jobs::journal))
            .routes(routes!(jobs::changes))
            .routes(routes!(jobs::standing))
            .routes(routes!(jobs::mend))
            .routes(routes!(road::road))
            .routes(routes!(road::sheet))
            .routes(routes!(road::tread_log_out))
            .routes(routes!(road::tread_log_in))
            .routes(routes!(clubs::list, clubs::put, clubs::remove))
            .routes(routes!(clubs::file))
            .routes(routes!(clubs::schema))
            .routes(routes!(road::loads))
            .routes(routes!(road::hot_pressure))
            .routes(routes!(road::judge_class))
            .routes(routes!(road::tread_wear))
            .routes(routes!(recalibration::log))
            .routes(routes!(fit::fit))
            .routes(routes!(fit::window))
            .routes(routes!(bay::registry))
            .routes(routes!(bay::gauge))
            .routes(routes!(bay::cars))
            .routes(routes!(bay::add))
            .routes(routes!(bay::remove))
            .routes(routes!(bay::copy))
            .routes(routes!(choose::pressure))
            .routes(routes!(choose::stagger))
            .routes(routes!(choose::fasteners))
            .routes(routes!(catalogue::progress))
            .routes(routes!(catalogue::lists))
            .routes(routes!(catalogue::list))
            .routes(routes!(catalogue::rows))
            .routes(routes!(finder::supply))
            .routes(routes!(workshop::brakes))
            .routes(routes!(workshop::job_brakes))
            .routes(routes!(motion::looks_of))
            .routes(routes!(motion::motion))
            .routes(routes!(motion::motion_stretches))
            .routes(routes!(motion::motion_remedies))
            .routes(routes!(motion::motion_window))
            .routes(routes!(motion::motion_lift))
            .routes(routes!(motion::likelihood))
            .routes(routes!(workshop::write_profile))
            .routes(routes!(workshop::wheel_templates, workshop::put_wheel_template))
            .routes(routes!(workshop::trials))
            .routes(routes!(workshop::get_photo, workshop::remove_photo))
            .routes(routes!(proven::find))
            .routes(routes!(proven::from_job))
            .routes(routes!(proven::remove_proven))
            .routes(routes!(proven::remove_import))
            .routes(routes!(house::get, house::put))
            .routes(routes!(house::storage))
            .layer(RequestBodyLimitLayer::new(BODY_LIMIT))
            .layer(from_fn_with_state(TIME_LIMIT, answered_in_time))
            .merge(
                // What may go through all rows of all lists first: it is answered when it is done, on a slow machine too.
                OpenApiRouter::new()
                    .routes(routes!(choose::ladder))
                    .routes(routes!(catalogue::undo_list))
                    .routes(routes!(catalogue::remove_file))
                    .routes(routes!(finder::finder))
                    .routes(routes!(road::next_step))
                    .layer(RequestBodyLimitLayer::new(BODY_LIMIT))
                    .layer(from_fn_with_state(LIST_TIME, answered_in_time)),
            )
            .merge(
                // A photo, a drawing, a part as many places, or a module that is told and read back.
                OpenApiRouter::new()
                    .routes(routes!(recalibration::read))
                    .routes(routes!(recalibration::tell))
                    .routes(routes!(fit::sweep))
                    .routes(routes!(workshop::read_profile))
                    .routes(routes!(workshop::add_photo))
                    .routes(routes!(proven::bring_proven))
                    .layer(RequestBodyLimitLayer::new(FILE_LIMIT))
                    .layer(from_fn_with_state(FILE_TIME, answered_in_time)),
            )
            .merge(
                // A price list is larger than anything else that is sent here, and what goes through all rows of all
                // lists takes its time.
                OpenApiRouter::new()
                    .routes(routes!(catalogue::bring))
                    .routes(routes!(catalogue::try_list))
                    .routes(routes!(catalogue::take))
                    .routes(routes!(catalogue::export))
                    .routes(routes!(proven::export_proven))
                    .routes(routes!(workshop::brake_wheels))
                    .routes(routes!(house::remove_unnamed))
                    .layer(RequestBodyLimitLayer::new(LIST_LIMIT))
                    .layer(from_fn_with_state(LIST_TIME, answered_in_time)),
            ),
    )
}

/// The API's router and its description.
pub fn api() -> (Router<AppState>, utoipa::openapi::OpenApi) {
    let (router, described) = paths().split_for_parts();
    (router, description::completed(described))
}

/// The API's description.
pub fn openapi() -> utoipa::openapi::OpenApi {
    api().1
}
