//! The car's module: read, told, read back, restored.

use axum::Json;
use axum::extract::State;
use fitment::Length;
use fitment::road::recalibration::{ModuleReply, ModuleState};
use jiff::Timestamp;
use store::{Patience, Store, identity, jobs, module_log};

use super::workshop::in_context;
use crate::AppState;
use crate::car_module::{CarModule, ModulePort, NotTold};
use crate::extract::{Body, Id};
use crate::problem::{ApiError, FieldError, Problem};
use crate::tagged::IfMatch;
use crate::wire::recalibration::{ModuleView, TellRequest, against, held_before};

/// What the car's module was told for this job, and whether one is plugged in. It is not called.
#[utoipa::path(get, path = "/jobs/{id}/module", operation_id = "module_log", params(("id" = i64, Path)), tag = "road", responses(
    (status = 200, description = "the log", body = ModuleView),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn log(
    State(store): State<Store>,
    State(module): State<CarModule>,
    Id(id): Id,
) -> Result<Json<ModuleView>, ApiError> {
    let read = move |c: &_| {
        jobs::get(c, id)?;
        module_log::list(c, id)
    };
    let log = module.as_known(store.read(read).await?);
    Ok(Json(ModuleView::unread(module.is_there(), None, log)))
}

/// Reads the car's module: what it holds, what the plan asks for, what it was told before.
#[utoipa::path(post, path = "/jobs/{id}/module/read", operation_id = "read_module", params(("id" = i64, Path)), tag = "road", responses(
    (status = 200, description = "the module, or why it could not be read", body = ModuleView),
    (status = 404, description = "no such job", body = Problem)
))]
pub(super) async fn read(
    State(store): State<Store>,
    State(module): State<CarModule>,
    Id(id): Id,
) -> Result<Json<ModuleView>, ApiError> {
    let tires = tires(&store, id).await?;
    let Some((_turn, port)) = module.taken().await else {
        let log = module.as_known(store.read(move |c| module_log::list(c, id)).await?);
        return Ok(Json(ModuleView::unread(false, None, log)));
    };
    let read = port.read().await;
    let log = module.as_known(store.read(move |c| module_log::list(c, id)).await?);
    Ok(Json(match read {
        Ok(state) => ModuleView::read(&state, tires, log),
        Err(why) => ModuleView::unread(true, Some(why), log),
    }))
}

/// Tells the car's module what the person saw and said yes to, reads it back, and notes both.
#[utoipa::path(post, path = "/jobs/{id}/module/tell", operation_id = "tell_module", params(("id" = i64, Path)), request_body = TellRequest, tag = "road", responses(
    (status = 200, description = "how it came out, in `told`", body = ModuleView),
    (status = 404, description = "no such job", body = Problem),
    (status = 422, description = "what stands against it: nothing was told", body = Problem)
))]
pub(super) async fn tell(
    State(shop): State<AppState>,
    Id(id): Id,
    of: IfMatch,
    Body(request): Body<TellRequest>,
) -> Result<Json<ModuleView>, ApiError> {
    // To its end also when whoever asked has gone: what was told must be read back and noted. Whoever still waits shares
    // their patience with it: it is given up for certain before the row stands that precedes the telling, or not at all.
    let patience = Patience::here();
    let work = tokio::spawn(async move { patience.with(told(&shop, id, of, &request)).await.map(Json) });
    work.await.map_err(|error| ApiError::Internal(error.to_string()))?
}

/// Overall diameters of reference and plan on the axle that the dial follows.
async fn tires(store: &Store, id: i64) -> Result<Option<(Length, Length)>, ApiError> {
    let (job, context) = in_context(store, id).await?;
    let tires = crate::off_thread(move || {
        let content = &job.content;
        fitment::road::dial::diameters(&context.case(&content.fitted, &content.planned, content.drive))
    })
    .await?;
    Ok(tires.map(|(_, reference, planned)| (reference, planned)))
}

async fn told(shop: &AppState, id: i64, of: IfMatch, request: &TellRequest) -> Result<ModuleView, ApiError> {
    let (store, module) = (&shop.store, &shop.module);
    let tires = tires(store, id).await?;
    let Some((_turn, port)) = module.taken().await else {
        return Err(refused("", "no module is plugged in"));
    };
    let log = module.as_known(store.read(move |c| module_log::list(c, id)).await?);
    let before = port.read().await.map_err(|why| refused("", format!("{why}: nothing was told")))?;
    check(request, &before, tires, &log)?;
    let (telling, who) = (request.telling(), request.who());
    let now = Timestamp::now();
    let begun = {
        let (telling, who) = (telling.clone(), who.clone());
        store.write(move |tx| {
            identity::expect(tx, id, of.tags())?;
            module_log::begin(tx, id, &telling, &who, now)
        })
    };
    let entry = begun.await?;
    module.begin(entry);
    let outcome = tell_and_read_back(port, &before, request.to_mm).await;
    let (code, says) = (outcome.told.code(), outcome.told.says(request.to_mm));
    module.ended(store, entry, code, says.clone()).await;
    // From here on it was told: no error of the file's hides that.
    let log = match store.read(move |c| module_log::list(c, id)).await {
        Ok(log) => module.as_known(log),
        Err(_) => {
            let told = module_log::Entry { id: entry, telling, at: now, who, outcome: code.to_owned(), says };
            std::iter::once(told).chain(log).collect()
        }
    };
    let mut view = match outcome.after {
        Some(after) => ModuleView::read(&after, tires, log),
        None => ModuleView::unread(true, None, log),
    };
    view.told = (!view.log.is_empty()).then(|| view.log[0].clone());
    Ok(view)
}

fn refused(pointer: &str, says: impl Into<String>) -> ApiError {
    ApiError::Unprocessable(vec![FieldError::new(pointer, says)])
}

/// Whether the module still is what the person saw, and what they said yes to still is what the job asks for.
fn check(
    request: &TellRequest,
    before: &ModuleState,
    tires: Option<(Length, Length)>,
    log: &[module_log::Entry],
) -> Result<(), ApiError> {
    if request.vehicle != before.vehicle {
        let says =
            format!("the module now says it sits in {}: read it again; nothing was told", before.vehicle);
        return Err(refused("/vehicle", says));
    }
    if request.was_mm != before.stored_mm {
        let says = format!("the module now holds {} mm: read it again; nothing was told", before.stored_mm);
        return Err(refused("/was_mm", says));
    }
    let (asked, reference) = if request.restore {
        (held_before(log, before), None)
    } else {
        (tires.map(|(reference, planned)| before.told_for(reference, planned)), tires.map(|tires| tires.0))
    };
    if asked != Some(request.to_mm) {
        let says = match asked {
            Some(asked) => format!("the job now asks for {asked} mm: read it again; nothing was told"),
            None if request.restore => "there is nothing to restore".to_owned(),
            None => "state the fitted and the planned tire first".to_owned(),
        };
        return Err(refused("/to_mm", says));
    }
    let blocked = against(before, request.to_mm, reference, log);
    if blocked.is_empty() {
        return Ok(());
    }
    Err(ApiError::Unprocessable(blocked.into_iter().map(|says| FieldError::new("", says)).collect()))
}

/// How it came out, and what the module then held, as far as it could be read.
struct Outcome {
    told: ModuleReply,
    after: Option<ModuleState>,
}

/// A module is believed by its read-back alone, whatever it says to being told.
async fn tell_and_read_back(port: &dyn ModulePort, before: &ModuleState, to_mm: u32) -> Outcome {
    let answered = port.tell(before.stored_mm, to_mm).await;
    let after = port.read().await;
    let told = match (&answered, &after) {
        (Err(NotTold::Refused(why) | NotTold::NotReached(why)), Ok(after))
            if after.stored_mm == before.stored_mm =>
        {
            ModuleReply::Refused(why.clone())
        }
        (Err(NotTold::Late(why)), Ok(after)) if after.stored_mm == before.stored_mm => {
            ModuleReply::Unknown(format!("{why}, and still held {} mm just then", after.stored_mm))
        }
        (_, Ok(after)) => ModuleReply::of(before, after, to_mm),
        (
            Err(NotTold::Late(why) | NotTold::Cut(why) | NotTold::NotReached(why) | NotTold::Refused(why)),
            Err(_),
        )
        | (Ok(()), Err(why)) => ModuleReply::Unknown(why.clone()),
    };
    Outcome { told, after: after.ok() }
}
