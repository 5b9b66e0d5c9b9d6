//! Another file at the address: what was sent for a job, a reading, a list of one file changes nothing in another.

use std::path::{Path, PathBuf};

use rand::rngs::StdRng;
use rand::{RngExt, SeedableRng};
use reqwest::Method;
use reqwest::header::{ETAG, IF_MATCH};
use serde_json::{Value, json};

use crate::{Outcome, Program};

/// Files that are swapped: two sample shops, and an earlier state of the first.
const FILES: usize = 3;

/// Stops, swaps and starts so many times; each time somebody who worked on the file of before goes on.
///
/// # Errors
/// When the program cannot be started.
pub async fn run(program: &Path, rounds: usize, seed: u64) -> anyhow::Result<Outcome> {
    let folder = tempfile::tempdir()?;
    let at = |name: String| folder.path().join(name);
    let file = at("shop.sqlite".to_owned());
    let kept: Vec<PathBuf> = (0..FILES).map(|count| at(format!("kept-{count}.sqlite"))).collect();
    for (count, kept_as) in kept.iter().enumerate() {
        if count == FILES - 1 {
            // A backup of the first, which the first has since gone on from.
            std::fs::copy(&kept[0], kept_as)?;
            let first = Program::start(program, &kept[0], false).await?;
            change(&first, 1, &sheet(&first, 1).await, "gone on").await;
            first.stop().await?;
        } else {
            Program::start(program, kept_as, true).await?.stop().await?;
        }
    }
    let mut rng = StdRng::seed_from_u64(seed);
    let (mut sent, mut foreign, mut own) = (0, Vec::new(), 0);
    for round in 0..rounds {
        let from = rng.random_range(0..FILES);
        let to = (from + rng.random_range(1..FILES)) % FILES;
        std::fs::copy(&kept[from], &file)?;
        let before = Program::start(program, &file, false).await?;
        let job = rng.random_range(1..=8);
        // Every other time something is saved first: the page is then ahead of the file that comes.
        let mut page = sheet(&before, job).await;
        if rng.random_bool(0.5)
            && let Some(saved) = change(&before, job, &page, &format!("saved {round}")).await
        {
            page = saved;
        }
        before.stop().await?;
        // Put in its place as it is, or as a kill leaves it.
        std::fs::copy(&kept[to], &file)?;
        let after = Program::start(program, &file, false).await?;
        let was = sheet(&after, job).await;
        let is_same = was.tag == page.tag;
        // What the page still has goes on: what was typed, a reading, a step.
        change(&after, job, &page, &format!("foreign {round}")).await;
        let reading = json!({ "readings": [{ "id": format!("f{round}"), "axle": "front", "what": "strut", "value": 12,
            "unit": "mm", "instrument": "feeler" }] });
        ask(&after, Method::POST, &format!("/jobs/{job}/readings"), &page.tag, &reading).await;
        let step = json!({ "based_on_revision": page.body["revision"] });
        ask(&after, Method::POST, &format!("/jobs/{job}/undo"), &page.tag, &step).await;
        sent += 3;
        let now = sheet(&after, job).await;
        if is_same {
            own += 1;
        } else if now.body != was.body {
            foreign.push(format!("round {round}, file {from} to {to}, job {job}"));
        }
        after.stop().await?;
    }
    for one in foreign.iter().take(5) {
        eprintln!("changed: {one}");
    }
    Ok(Outcome {
        what: format!(
            "{rounds} rounds of stop, swap of files and start, {sent} changes sent on, {own} rounds of them the same job in \
             the same revision"
        ),
        wanted: "0 changes in a foreign job",
        found: format!("{} foreign jobs changed", foreign.len()),
        is_held: foreign.is_empty() && own < rounds,
    })
}

/// A job as a page has it.
struct Sheet {
    tag: String,
    body: Value,
}

async fn sheet(running: &Program, job: usize) -> Sheet {
    let Ok(response) = running.client.get(running.url(&format!("/jobs/{job}"))).send().await else {
        return Sheet { tag: String::new(), body: Value::Null };
    };
    let tag = response.headers().get(ETAG).and_then(|tag| tag.to_str().ok()).unwrap_or_default().to_owned();
    Sheet { tag, body: response.json().await.unwrap_or_default() }
}

async fn change(running: &Program, job: usize, page: &Sheet, wish: &str) -> Option<Sheet> {
    let mut body = page.body.clone();
    body["based_on_revision"] = page.body["revision"].clone();
    body["wish"] = json!(wish);
    ask(running, Method::PUT, &format!("/jobs/{job}"), &page.tag, &body).await
}

async fn ask(running: &Program, method: Method, path: &str, tag: &str, body: &Value) -> Option<Sheet> {
    let request = running.client.request(method, running.url(path)).header(IF_MATCH, tag).json(body);
    let response = request.send().await.ok().filter(|response| response.status() == 200)?;
    let tag = response.headers().get(ETAG)?.to_str().ok()?.to_owned();
    Some(Sheet { tag, body: response.json().await.ok()? })
}
