//! Who may ask. A page on the internet must not reach the program through the advisor's browser.

use axum::extract::Request;
use axum::http::uri::Authority;
use axum::http::{HeaderMap, HeaderName, HeaderValue, StatusCode, header};
use axum::middleware::Next;
use axum::response::{IntoResponse, Response};

use crate::problem::Problem;

/// Lets a request through when its Host names this machine and its Origin, if any, is that same host; what a browser
/// fetches for another site, also where it sends no Origin (a picture, a script), is refused by its fetch metadata.
///
/// Against DNS rebinding (a foreign name that resolves to 127.0.0.1) and cross-site requests.
pub async fn only_this_machine(request: Request, next: Next) -> Response {
    let is_page = !request.uri().path().starts_with("/api");
    match refusal(request.headers(), request.uri().authority(), is_page) {
        None => next.run(request).await,
        Some(detail) => Problem {
            kind: "forbidden",
            title: "Not from here",
            status: StatusCode::FORBIDDEN.as_u16(),
            detail: detail.to_owned(),
            errors: Vec::new(),
            current: None,
            tag: None,
        }
        .into_response(),
    }
}

fn refusal(headers: &HeaderMap, authority: Option<&Authority>, is_page: bool) -> Option<&'static str> {
    // Which of two counts is read differently by different programs.
    for name in [header::HOST, header::ORIGIN, HeaderName::from_static("sec-fetch-site")] {
        if headers.get_all(&name).iter().nth(1).is_some() {
            return Some("the request names its host or its origin twice");
        }
    }
    let host = headers.get(header::HOST).and_then(|host| host.to_str().ok());
    let Some(host) = host.or(authority.map(Authority::as_str)) else {
        return Some("the request names no host");
    };
    let is_here = host.parse::<Authority>().is_ok_and(|authority| {
        let name = authority.host();
        name == "127.0.0.1" || name == "[::1]" || name.eq_ignore_ascii_case("localhost")
    });
    if !is_here {
        return Some("the request was sent to another host's name");
    }
    // Fetch Metadata (W3C): a browser says for whom it asks. Somebody may follow a link to the page, and nothing else.
    let said = |name: &'static str| headers.get(name).and_then(|value| value.to_str().ok());
    if let Some(site) = said("sec-fetch-site")
        && !["same-origin", "none"].contains(&site)
    {
        let follows_a_link =
            said("sec-fetch-mode") == Some("navigate") && said("sec-fetch-dest") == Some("document");
        if !(is_page && follows_a_link) {
            return Some("the request comes from another site");
        }
    }
    let origin = headers.get(header::ORIGIN)?;
    let same = origin.to_str().ok().and_then(|origin| origin.strip_prefix("http://")) == Some(host);
    (!same).then_some("the request comes from another site")
}

/// Puts the security headers on every response. What says nothing about being kept is not kept: it is the shop's data.
pub async fn security_headers(mut response: Response) -> Response {
    response.headers_mut().entry(header::CACHE_CONTROL).or_insert(HeaderValue::from_static("no-store"));
    const HEADERS: [(HeaderName, &str); 7] = [
        (
            header::CONTENT_SECURITY_POLICY,
            "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data:; \
             connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
        ),
        (header::X_CONTENT_TYPE_OPTIONS, "nosniff"),
        (header::X_FRAME_OPTIONS, "DENY"),
        (header::REFERRER_POLICY, "no-referrer"),
        (HeaderName::from_static("cross-origin-opener-policy"), "same-origin"),
        (HeaderName::from_static("cross-origin-resource-policy"), "same-origin"),
        (HeaderName::from_static("permissions-policy"), "camera=(), microphone=(), geolocation=()"),
    ];
    for (name, value) in HEADERS {
        response.headers_mut().insert(name, HeaderValue::from_static(value));
    }
    response
}

#[cfg(test)]
mod tests {
    use super::*;

    fn headers(host: &str, origin: Option<&str>) -> HeaderMap {
        let mut headers = HeaderMap::new();
        headers.insert(header::HOST, host.parse().unwrap());
        if let Some(origin) = origin {
            headers.insert(header::ORIGIN, origin.parse().unwrap());
        }
        headers
    }

    #[test]
    fn only_this_machines_names_and_its_own_page_are_let_in() {
        for (host, origin, let_in) in [
            ("127.0.0.1:7117", None, true),
            ("localhost:7117", Some("http://localhost:7117"), true),
            ("[::1]:7117", None, true),
            ("LOCALHOST", None, true),
            ("wheels.example", None, false),
            ("127.0.0.1.wheels.example:7117", None, false),
            ("127.0.0.1:7117", Some("http://wheels.example"), false),
            ("127.0.0.1:7117", Some("http://127.0.0.1:9999"), false),
            ("127.0.0.1:7117", Some("null"), false),
            ("", None, false),
        ] {
            assert_eq!(refusal(&headers(host, origin), None, false).is_none(), let_in, "{host} {origin:?}");
        }
        assert!(refusal(&HeaderMap::new(), None, true).is_some());
    }

    #[test]
    fn what_a_browser_fetches_for_another_site_is_refused() {
        for (site, mode, dest, is_page, let_in) in [
            ("same-origin", "cors", "empty", false, true),
            ("none", "navigate", "document", false, true),
            // An image or a script of another page sends no Origin.
            ("cross-site", "no-cors", "image", false, false),
            ("same-site", "no-cors", "script", false, false),
            ("cross-site", "no-cors", "image", true, false),
            // A link to the page may be followed; one to an export may not.
            ("cross-site", "navigate", "document", true, true),
            ("cross-site", "navigate", "iframe", true, false),
            ("cross-site", "navigate", "document", false, false),
        ] {
            let mut headers = headers("127.0.0.1:7117", None);
            for (name, value) in
                [("sec-fetch-site", site), ("sec-fetch-mode", mode), ("sec-fetch-dest", dest)]
            {
                headers.insert(name, value.parse().unwrap());
            }
            assert_eq!(refusal(&headers, None, is_page).is_none(), let_in, "{site} {mode} {dest} {is_page}");
        }
    }

    #[test]
    fn a_header_that_stands_twice_decides_nothing() {
        let mut two = headers("127.0.0.1:7117", None);
        two.append(header::HOST, "127.0.0.1:7117".parse().unwrap());
        assert!(refusal(&two, None, false).is_some());
        let mut two = headers("127.0.0.1:7117", Some("http://127.0.0.1:7117"));
        two.append(header::ORIGIN, "http://wheels.example".parse().unwrap());
        assert!(refusal(&two, None, false).is_some());
    }
}
