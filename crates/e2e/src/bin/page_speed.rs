//! How fast the page is, in headless Chromium, against a program that is running: the time to the first usable
//! page, from an answer to the redrawn corner while dragging, and between two redraws of the fit window while a lever
//! is pulled. Prints `name median_ms p99_ms`.
//!
//! Usage: `page_speed URL`, the sample shop behind it.
#![allow(clippy::print_stdout, reason = "it prints its figures")]

use anyhow::Context;
use e2e::Browser;
use e2e::thirtyfour::Key;
use serde_json::json;

/// Runs before the page: notes when the jobs are there, and how long after each answer the drawing changed.
const WATCH: &str = "
  window.usable = null;
  window.redraws = [];
  let answered = null;
  const ask = window.fetch;
  window.fetch = async (...call) => {
    const answer = await ask(...call);
    const url = call[0] instanceof Request ? call[0].url : String(call[0]);
    if (url.endsWith('/bench')) answered = performance.now();
    return answer;
  };
  new MutationObserver(() => {
    if (window.usable === null && document.querySelector('main ul a')) window.usable = performance.now();
  }).observe(document, { childList: true, subtree: true });
  new MutationObserver((changes) => {
    if (answered !== null && changes.some((change) => change.target.closest?.('[data-corner]'))) {
      window.redraws.push(performance.now() - answered);
      answered = null;
    }
  }).observe(document, { attributes: true, subtree: true, attributeFilter: ['d'] });
";

/// Pulls a lever at every frame for three seconds, and notes the time between redraws of the window's edges.
const PULL: &str = "
  const done = arguments[0];
  const lever = document.querySelector('[data-lever=fender_pulled] input[aria-label$=rear]');
  lever.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  const between = [];
  let last = null;
  new MutationObserver(() => {
    const now = performance.now();
    if (last !== null) between.push(now - last);
    last = now;
  }).observe(document.querySelector('[data-window=rear]'),
    { attributes: true, subtree: true, attributeFilter: ['d'] });
  const start = performance.now();
  let at = 0;
  const pull = () => {
    set.call(lever, String((at += 1) % 20));
    lever.dispatchEvent(new Event('input', { bubbles: true }));
    if (performance.now() - start < 3000) requestAnimationFrame(pull);
    else done(between);
  };
  requestAnimationFrame(pull);
";

const LOADS: usize = 9;
const STEPS: usize = 120;

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let url = std::env::args().nth(1).context("usage: page_speed URL")?;
    let browser = Browser::start(1280, 800).await?;
    browser.cdp("Page.enable", json!({})).await?;
    browser.cdp("Page.addScriptToEvaluateOnNewDocument", json!({ "source": WATCH })).await?;
    let mut usable = Vec::new();
    for _ in 0..LOADS {
        browser.cdp("Network.clearBrowserCache", json!({})).await?;
        browser.driver.goto(format!("{url}/")).await?;
        browser.until("return window.usable !== null").await?;
        usable.push(browser.script("return window.usable").await?.as_f64().context("a time")?);
    }
    print("first_page_usable", usable);
    browser.driver.goto(format!("{url}/jobs/6/bench")).await?;
    browser.see("[data-dimension=offset]").await?;
    for step in 0..STEPS {
        let key = if step % 40 < 20 { Key::Right } else { Key::Left };
        browser.type_on(key + "").await?;
    }
    tokio::time::sleep(std::time::Duration::from_millis(500)).await;
    let redraws: Vec<f64> = serde_json::from_value(browser.script("return window.redraws").await?)?;
    print("redraw_after_answer", redraws);
    browser.driver.goto(format!("{url}/jobs/4/bench?beside=window")).await?;
    browser.see("[data-lever=fender_pulled] input[aria-label$=rear]").await?;
    browser.see("[data-window=rear]").await?;
    let between: Vec<f64> = browser.driver.execute_async(PULL, Vec::new()).await?.convert()?;
    print("window_redraws_apart", between);
    browser.quit().await
}

fn print(name: &str, mut figures: Vec<f64>) {
    figures.sort_by(f64::total_cmp);
    let at = |share: f64| {
        figures.get(((figures.len().max(1) - 1) as f64 * share) as usize).copied().unwrap_or(f64::NAN)
    };
    println!("{name} {:.1} {:.1}", at(0.5), at(0.99));
}
