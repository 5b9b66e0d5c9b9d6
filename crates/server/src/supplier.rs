//! The port through which a supplier is asked what is in stock, and the HTTP supplier behind it.
//!
//! The protocol is described in `docs/supplier-protocol.md`. A real supplier's bridge or the simulated one can stand
//! there. What was answered is kept with its time: it is shown with its age, and still there when the supplier is
//! away.

use std::collections::HashMap;
use std::future::Future;
use std::net::SocketAddr;
use std::pin::Pin;
use std::sync::{Arc, Mutex, PoisonError};
use std::time::{Duration, Instant};

use jiff::Timestamp;
use serde::{Deserialize, Serialize};

/// What is asked for.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct Item {
    /// `wheels` or `tires`.
    pub kind: &'static str,
    /// The supplier's own number, where its list had one.
    pub article: Option<String>,
    /// Line or design.
    pub line: String,
    /// Size as marked.
    pub size: String,
    /// Finish, of wheels.
    pub finish: String,
    /// Price of one by the list, to be confirmed.
    pub listed_price: Option<f64>,
}

impl Item {
    /// What tells it from every other.
    fn key(&self) -> String {
        let article = self.article.as_deref().unwrap_or_default();
        format!("{}|{article}|{}|{}|{}", self.kind, self.line, self.size, self.finish)
    }
}

/// What the supplier says of an item.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
pub struct Answer {
    /// How many are in stock.
    pub stock: u32,
    /// Days until they are here.
    pub lead_days: u32,
    /// Price of one today.
    pub price: f64,
    /// Whether it is made no more: what is in stock is all there is.
    pub discontinued: bool,
}

impl Answer {
    /// Whether anybody could mean it: a price that is paid, a number that is stored, a time that is waited.
    fn makes_sense(&self) -> bool {
        (0.0..=1e6).contains(&self.price) && self.stock <= 1_000_000 && self.lead_days <= 3650
    }

    /// As anybody would write it: nothing is no less than nothing.
    fn plain(self) -> Self {
        Self { price: self.price + 0.0, ..self }
    }
}

/// An answer for each item in order; `None` for what the supplier does not know.
pub type Answers = Vec<Option<Answer>>;

/// Somebody who can be asked what is in stock.
pub trait SupplierPort: std::fmt::Debug + Send + Sync {
    /// Asks for each item. An error says in a sentence's middle why there is no answer.
    fn ask<'a>(
        &'a self,
        items: &'a [Item],
    ) -> Pin<Box<dyn Future<Output = Result<Answers, String>> + Send + 'a>>;
}

/// A supplier that speaks HTTP on this machine.
#[derive(Debug)]
pub struct HttpSupplier {
    client: reqwest::Client,
    url: String,
}

/// Longest answer read, in bytes: hundreds of items with room to spare.
const LONGEST_ANSWER: usize = 1024 * 1024;
/// Longest wait for an answer.
pub const PATIENCE: Duration = Duration::from_secs(3);

#[derive(Serialize)]
struct Question<'a> {
    items: &'a [Item],
}

#[derive(Deserialize)]
struct Reply {
    items: Answers,
}

impl HttpSupplier {
    /// One at an address.
    ///
    /// # Errors
    /// When no client can be made.
    pub fn at(address: SocketAddr) -> Result<Self, reqwest::Error> {
        // It goes where it was told, and nowhere else: who answers there does not say where the question goes next.
        let nowhere_else = reqwest::redirect::Policy::none();
        let client =
            reqwest::Client::builder().timeout(PATIENCE).no_proxy().redirect(nowhere_else).build()?;
        Ok(Self { client, url: format!("http://{address}/v1/stock") })
    }

    async fn answers(&self, items: &[Item]) -> Result<Answers, String> {
        let failed = |error: reqwest::Error| {
            if error.is_timeout() {
                format!("it did not answer within {} seconds", PATIENCE.as_secs())
            } else if error.is_decode() {
                "its answer could not be read".to_owned()
            } else {
                "it cannot be reached".to_owned()
            }
        };
        let sent = self.client.post(&self.url).json(&Question { items }).send().await;
        let mut response = sent.map_err(failed)?;
        if response.status().is_redirection() {
            return Err("it sends us elsewhere, where nobody told us to go".to_owned());
        }
        if !response.status().is_success() {
            return Err(format!("it answered with status {}", response.status().as_u16()));
        }
        let mut body = Vec::new();
        while let Some(part) = response.chunk().await.map_err(failed)? {
            if body.len() + part.len() > LONGEST_ANSWER {
                return Err("its answer does not end".to_owned());
            }
            body.extend_from_slice(&part);
        }
        let reply: Reply =
            serde_json::from_slice(&body).map_err(|_| "its answer could not be read".to_owned())?;
        if reply.items.len() == items.len() {
            // One answer that makes no sense costs that item: it counts as not known.
            Ok(reply
                .items
                .into_iter()
                .map(|item| item.filter(Answer::makes_sense).map(Answer::plain))
                .collect())
        } else {
            Err("its answer has another count of items than were asked for".to_owned())
        }
    }
}

impl SupplierPort for HttpSupplier {
    fn ask<'a>(
        &'a self,
        items: &'a [Item],
    ) -> Pin<Box<dyn Future<Output = Result<Answers, String>> + Send + 'a>> {
        Box::pin(self.answers(items))
    }
}

/// An answer with its time.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Known {
    /// What was said; `None`: the supplier does not know the item.
    pub answer: Option<Answer>,
    /// When, by the clock on the wall.
    pub at: Timestamp,
    /// When, by a clock that nobody sets.
    heard: Instant,
}

/// How the supplier stands.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum State {
    /// There is none.
    None,
    /// It answers.
    Answers,
    /// It does not, and why.
    Away(String),
}

/// The supplier with what it said so far.
#[derive(Debug, Clone, Default)]
pub struct SupplierClient {
    port: Option<Arc<dyn SupplierPort>>,
    known: Arc<Mutex<HashMap<String, Known>>>,
}

/// An answer younger than this is not asked for again.
const FRESH: Duration = Duration::from_secs(60);
/// Answers kept at most; when there are more the old ones are forgotten.
const MOST_KNOWN: usize = 20_000;

impl SupplierClient {
    /// With a supplier.
    pub fn with(port: impl SupplierPort + 'static) -> Self {
        Self { port: Some(Arc::new(port)), known: Arc::default() }
    }

    /// What is known of each item, asked anew where it is not fresh; and how the supplier stands.
    pub async fn ask(&self, items: &[Item]) -> (Vec<Option<Known>>, State) {
        let Some(port) = &self.port else { return (vec![None; items.len()], State::None) };
        let is_fresh = |known: &Known| known.heard.elapsed() < FRESH;
        let (mut wanted, mut seen) = (Vec::new(), std::collections::HashSet::new());
        {
            let known = self.known.lock().unwrap_or_else(PoisonError::into_inner);
            for item in items {
                let key = item.key();
                if !known.get(&key).is_some_and(is_fresh) && seen.insert(key) {
                    wanted.push(item.clone());
                }
            }
        }
        let mut state = State::Answers;
        if !wanted.is_empty() {
            match port.ask(&wanted).await {
                Ok(answers) => {
                    let mut known = self.known.lock().unwrap_or_else(PoisonError::into_inner);
                    if known.len() > MOST_KNOWN {
                        known.retain(|_, one| is_fresh(one));
                    }
                    let (at, heard) = (Timestamp::now(), Instant::now());
                    let known_now = |answer| Known { answer, at, heard };
                    known.extend(
                        wanted.iter().zip(answers).map(|(item, answer)| (item.key(), known_now(answer))),
                    );
                }
                Err(why) => state = State::Away(why),
            }
        }
        let known = self.known.lock().unwrap_or_else(PoisonError::into_inner);
        (items.iter().map(|item| known.get(&item.key()).copied()).collect(), state)
    }
}
