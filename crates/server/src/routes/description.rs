//! What every operation's description has in common: problems by their media type, and the statuses that guards, limits
//! and extractors answer with before a handler is asked.

use utoipa::openapi::path::{Operation, Parameter, ParameterIn};
use utoipa::openapi::{Content, OpenApi, Ref, RefOr, Response, ResponseBuilder};

const PROBLEM: &str = "application/problem+json";

/// Answers that guards, limits and extractors give: status, name among the description's components, words.
const COMMON: [(&str, &str, &str); 10] = [
    ("400", "Malformed", "a query, body or header that cannot be read"),
    ("403", "NotFromHere", "asked from another site or by another name"),
    ("404", "NotThere", "nothing is there"),
    ("408", "BodyLate", "the body did not arrive in time"),
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
    for item in api.paths.paths.values_mut() {
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
            && status.starts_with(['4', '5'])
            && let Some(content) = response.content.shift_remove("application/json")
        {
            response.content.insert(PROBLEM.to_owned(), content);
        }
    }
}

fn problem(words: &str) -> Response {
    let body = Content::new(Some(Ref::from_schema_name("Problem")));
    ResponseBuilder::new().description(words).content(PROBLEM, body).build()
}
