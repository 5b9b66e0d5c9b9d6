//! What every operation's description has in common: problems by their media type, and the statuses that guards, limits
//! and extractors answer with before a handler is asked.

use utoipa::openapi::path::{Operation, Parameter, ParameterIn};
use utoipa::openapi::{Content, OpenApi, Ref, RefOr, Response, ResponseBuilder};

const PROBLEM: &str = "application/problem+json";

/// The description with what each operation can answer besides its own.
pub(super) fn completed(mut api: OpenApi) -> OpenApi {
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
    let common = [
        ("400", "a query, body or header that cannot be read", in_query || has_body || in_header),
        ("403", "asked from another site or by another name", true),
        ("404", "nothing is there", in_path),
        ("408", "the body did not arrive in time", has_body),
        ("413", "the body is too large", has_body),
        ("415", "the body is declared as something else", has_body),
        ("422", "understood, but wrong", is_json || in_query),
        ("500", "the program failed, or a row is damaged", true),
        ("503", "it took too long, the file is held or gone, or the program is stopping", true),
        ("507", "no room is left on the disk", changes),
    ];
    let responses = &mut operation.responses.responses;
    for (status, words, can_be) in common {
        if can_be && !responses.contains_key(status) {
            responses.insert(status.to_owned(), RefOr::T(problem(words)));
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
