//! What every operation's description has in common: problems by their media type, and the statuses that guards, limits
//! and extractors answer with before a handler is asked.

use utoipa::openapi::header::HeaderBuilder;
use utoipa::openapi::path::{Operation, Parameter, ParameterBuilder, ParameterIn};
use utoipa::openapi::schema::{ArrayItems, Type};
use utoipa::openapi::{Content, ObjectBuilder, OpenApi, Ref, RefOr, Response, ResponseBuilder, Schema};

const PROBLEM: &str = "application/problem+json";

/// Answers that guards, limits and extractors give: status, name among the description's components, words.
const COMMON: [(&str, &str, &str); 11] = [
    ("400", "Malformed", "a query, body or header that cannot be read"),
    ("403", "NotFromHere", "asked from another site or by another name"),
    ("404", "NotThere", "nothing is there"),
    ("408", "BodyLate", "the body did not arrive in time"),
    (
        "412",
        "OtherState",
        "this was for another file, another job or another state: `ETag` says the present one",
    ),
    ("413", "TooLarge", "the body is too large"),
    ("415", "OtherKind", "the body is declared as something else"),
    ("422", "Wrong", "understood, but wrong"),
    ("500", "Failed", "the program failed, or a row is damaged"),
    ("503", "NotNow", "it took too long, the file is held or gone, or the program is stopping"),
    ("507", "NoRoom", "no room is left on the disk"),
];

/// The description with what each operation can answer besides its own.
pub(super) fn completed(mut api: OpenApi) -> OpenApi {
    let components = api.components.get_or_insert_default();
    for (_, name, words) in COMMON {
        components.responses.insert(name.to_owned(), RefOr::T(problem(words)));
    }
    for (path, item) in &mut api.paths.paths {
        let operations = [
            (&mut item.get, false),
            (&mut item.put, true),
            (&mut item.post, true),
            (&mut item.delete, true),
            (&mut item.patch, true),
        ];
        for (operation, changes) in operations {
            if let Some(operation) = operation {
                complete(operation, changes);
                if changes && TAKES_IF_MATCH.contains(&path.trim_start_matches("/api/v1")) {
                    operation.parameters.get_or_insert_default().push(RefOr::T(if_match()));
                }
            }
        }
    }
    api
}

fn complete(operation: &mut Operation, changes: bool) {
    let has = |kind: ParameterIn| {
        let parameters: &[RefOr<Parameter>] = operation.parameters.as_deref().unwrap_or_default();
        parameters.iter().any(|one| matches!(one, RefOr::T(one) if one.parameter_in == kind))
    };
    let (in_path, in_query, in_header) =
        (has(ParameterIn::Path), has(ParameterIn::Query), has(ParameterIn::Header));
    let has_body = operation.request_body.is_some();
    let is_json = operation
        .request_body
        .as_ref()
        .is_some_and(|body| matches!(body, RefOr::T(body) if body.content.contains_key("application/json")));
    let responses = &mut operation.responses.responses;
    for (status, name, _) in COMMON {
        let can_be = match status {
            "400" => in_query || has_body || in_header,
            "404" => in_path,
            "408" | "413" | "415" => has_body,
            "412" => changes,
            "422" => is_json || in_query,
            "507" => changes,
            _ => true,
        };
        if can_be && !responses.contains_key(status) {
            responses.insert(status.to_owned(), RefOr::Ref(Ref::from_response_name(name)));
        }
    }
    for (status, response) in responses.iter_mut() {
        if let RefOr::T(response) = response
            && status.starts_with('2')
            && matches!(response.content.get("application/json"), Some(RefOr::T(content)) if is_tagged(content))
        {
            let header =
                HeaderBuilder::new().description(Some("the state that this is: `\"<uid>.<token>\"`"));
            response.headers.insert("etag".to_owned(), RefOr::T(header.build()));
        }
        if let RefOr::T(response) = response
            && status.starts_with(['4', '5'])
            && let Some(content) = response.content.shift_remove("application/json")
        {
            response.content.insert(PROBLEM.to_owned(), content);
        }
    }
}

/// Where `If-Match` is looked at: changes of a job, of the house, of its lists and its clubs.
const TAKES_IF_MATCH: [&str; 18] = [
    "/jobs/{id}",
    "/jobs/{id}/undo",
    "/jobs/{id}/redo",
    "/jobs/{id}/candidates",
    "/jobs/{id}/mend",
    "/jobs/{id}/readings",
    "/jobs/{id}/readings/{reading}",
    "/jobs/{id}/readings/copy",
    "/jobs/{id}/unreadable/{what}",
    "/jobs/{id}/photos",
    "/jobs/{id}/photos/{photo}",
    "/jobs/{id}/proven",
    "/jobs/{id}/module/tell",
    "/house",
    "/clubs",
    "/catalogue/lists/{id}/take",
    "/catalogue/lists/{id}/undo",
    "/catalogue/lists/{id}/file",
];

fn if_match() -> Parameter {
    ParameterBuilder::new()
        .name("if-match")
        .parameter_in(ParameterIn::Header)
        .description(Some("the `ETag` that this is for, `\"<uid>.<token>\"`; refused with 412 when it is not the present one"))
        .schema(Some(ObjectBuilder::new().schema_type(Type::String)))
        .build()
}

/// What goes out with its state.
const TAGGED: [&str; 4] = ["JobView", "HouseView", "ListView", "KeptClubView"];

/// Whether an answer is one that carries its state as `ETag`.
fn is_tagged(content: &Content) -> bool {
    let named = |schema: &RefOr<Schema>| match schema {
        RefOr::Ref(one) => TAGGED.iter().any(|name| one.ref_location.ends_with(&format!("/{name}"))),
        RefOr::T(_) => false,
    };
    match &content.schema {
        Some(RefOr::T(Schema::Array(list))) => match &list.items {
            ArrayItems::RefOrSchema(items) => {
                matches!(&**items, RefOr::Ref(one) if one.ref_location.ends_with("/KeptClubView"))
            }
            ArrayItems::False => false,
        },
        Some(schema) => named(schema),
        None => false,
    }
}

fn problem(words: &str) -> Response {
    let body = Content::new(Some(Ref::from_schema_name("Problem")));
    ResponseBuilder::new().description(words).content(PROBLEM, body).build()
}
