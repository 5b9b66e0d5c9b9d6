//! A wheel and tire supplier that says what is in stock, simulated.
//!
//! # Protocol
//! HTTP on loopback, described in `docs/supplier-protocol.md`: `POST /v1/stock` with the items asked for, an answer
//! for each in order, `null` for what is not known here.
//!
//! What it has follows from each item's own text, so that the same question gets the same answer on every machine.
//! It can be told to be slow, to fail, and to know nothing.

use std::sync::{Arc, Mutex, PoisonError};
use std::time::Duration;

use axum::extract::State;
use axum::http::StatusCode;
use axum::response::{IntoResponse, Response};
use axum::routing::post;
use axum::{Json, Router};
use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use serde::{Deserialize, Serialize};
use tokio::net::TcpListener;
use tokio::task::JoinHandle;

/// How the supplier behaves.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Settings {
    /// How long an answer takes.
    pub delay: Duration,
    /// Share of questions that are refused with 503, 0 to 1.
    pub fail_share: f64,
    /// Share of items that are not known, 0 to 1.
    pub unknown_share: f64,
}

impl Default for Settings {
    fn default() -> Self {
        Self { delay: Duration::from_millis(120), fail_share: 0.0, unknown_share: 0.0 }
    }
}

/// An item asked for.
#[derive(Debug, Clone, Deserialize)]
struct Item {
    kind: String,
    #[serde(default)]
    article: Option<String>,
    line: String,
    size: String,
    #[serde(default)]
    finish: String,
    #[serde(default)]
    listed_price: Option<f64>,
}

#[derive(Debug, Deserialize)]
struct Question {
    items: Vec<Item>,
}

/// What is said of an item.
#[derive(Debug, Clone, PartialEq, Serialize)]
struct Answer {
    stock: u32,
    lead_days: u32,
    price: f64,
    discontinued: bool,
}

#[derive(Debug, Serialize)]
struct Reply {
    items: Vec<Option<Answer>>,
}

/// A running supplier; stops when dropped.
#[derive(Debug)]
pub struct Supplier {
    settings: Arc<Mutex<Settings>>,
    task: JoinHandle<()>,
}

impl Supplier {
    /// Runs a supplier on a listener, until it is dropped.
    pub fn run(listener: TcpListener, settings: Settings) -> Self {
        let settings = Arc::new(Mutex::new(settings));
        let router = Router::new().route("/v1/stock", post(stock)).with_state(Arc::clone(&settings));
        let task = tokio::spawn(async move {
            let _ = axum::serve(listener, router).await;
        });
        Self { settings, task }
    }

    /// Changes how it behaves from now on.
    pub fn set(&self, change: impl FnOnce(&mut Settings)) {
        change(&mut self.settings.lock().unwrap_or_else(PoisonError::into_inner));
    }

    /// Waits until it ends, which it does not by itself.
    pub async fn wait(mut self) {
        let _ = (&mut self.task).await;
    }
}

impl Drop for Supplier {
    fn drop(&mut self) {
        self.task.abort();
    }
}

async fn stock(State(settings): State<Arc<Mutex<Settings>>>, Json(question): Json<Question>) -> Response {
    let settings = *settings.lock().unwrap_or_else(PoisonError::into_inner);
    tokio::time::sleep(settings.delay).await;
    if rand::rng().random::<f64>() < settings.fail_share {
        return StatusCode::SERVICE_UNAVAILABLE.into_response();
    }
    let items = question.items.iter().map(|item| answer(item, settings.unknown_share)).collect();
    Json(Reply { items }).into_response()
}

/// Most items are there within a week, odd ones are made to order, a few are made no more.
fn answer(item: &Item, unknown_share: f64) -> Option<Answer> {
    let text = format!(
        "{}|{}|{}|{}|{}",
        item.kind,
        item.article.as_deref().unwrap_or_default(),
        item.line,
        item.size,
        item.finish
    );
    let mut rng = StdRng::seed_from_u64(fnv(&text));
    if rng.random::<f64>() < unknown_share {
        return None;
    }
    let discontinued = rng.random::<f64>() < 0.04;
    let stock = if rng.random::<f64>() < 0.7 { rng.random_range(4..=20) } else { rng.random_range(0..4) };
    let lead_days = match (stock, discontinued) {
        (4.., _) => rng.random_range(1..=5),
        (_, true) => 0,
        (_, false) => rng.random_range(10..=45),
    };
    let drift = rng.random_range(0.97..=1.05);
    let price = (item.listed_price.unwrap_or(180.0) * drift * 2.0).round() / 2.0;
    Some(Answer { stock, lead_days, price, discontinued })
}

/// FNV-1a: small, and the same on every machine and in every release.
fn fnv(text: &str) -> u64 {
    text.bytes()
        .fold(0xcbf2_9ce4_8422_2325, |hash, byte| (hash ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3))
}

#[cfg(test)]
mod tests {
    use super::*;

    fn item(size: &str) -> Item {
        Item {
            kind: "wheels".into(),
            article: None,
            line: "Arc".into(),
            size: size.into(),
            finish: "silver".into(),
            listed_price: Some(200.0),
        }
    }

    #[test]
    fn the_same_question_gets_the_same_answer() {
        let sizes: Vec<String> = (0..300).map(|offset| format!("18x8.5 ET{offset}")).collect();
        let mut kinds = [0_usize; 3];
        for size in &sizes {
            let said = answer(&item(size), 0.02);
            assert_eq!(said, answer(&item(size), 0.02), "{size}");
            let Some(said) = said else {
                kinds[0] += 1;
                continue;
            };
            kinds[1] += usize::from(said.discontinued);
            kinds[2] += usize::from(said.stock >= 4);
            assert!((194.0..=210.0).contains(&said.price), "within 3 % under and 5 % over the list");
        }
        assert!(kinds[0] > 0 && kinds[1] > 2 && kinds[2] > 150, "every case occurs: {kinds:?}");
        assert_eq!(answer(&item("18x8"), 1.0), None, "told to know nothing");
    }

    #[test]
    fn the_hash_is_the_published_one() {
        // FNV-1a 64 of the empty text and of "a": the algorithm's own published vectors (from memory).
        assert_eq!((fnv(""), fnv("a")), (0xcbf2_9ce4_8422_2325, 0xaf63_dc4c_8601_ec8c));
    }
}
