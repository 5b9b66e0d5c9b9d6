//! Takes the pictures in `docs/screenshots/` from the sample shop: one of each main view.
//!
//! Usage: `screenshots FOLDER [NAME]`.

use std::path::PathBuf;

use anyhow::Context;
use e2e::{Browser, Program};
use standins::supplier::{Settings, Supplier};
use tokio::net::TcpListener;

/// A view: name, path, page size, keys pressed before the picture.
const VIEWS: &[(&str, &str, (u32, u32), &str)] = &[
    ("counter", "/", (1280, 800), ""),
    ("car", "/jobs/4/car", (1280, 800), ""),
    ("bay", "/jobs/4/bay?axle=rear", (820, 1180), ""),
    ("bay-sheet", "/jobs/4/bay-sheet?axle=rear", (820, 1180), ""),
    ("bench", "/jobs/4/bench", (1280, 800), ""),
    ("bench-window", "/jobs/4/bench?beside=window", (1280, 800), ""),
    ("motion", "/jobs/2/motion", (1280, 800), ""),
    ("motion-lift", "/jobs/2/motion?below=lift", (1280, 800), ""),
    ("rack", "/jobs/4/rack", (1280, 800), ""),
    ("ladder", "/jobs/7/rack?view=ladder", (1280, 800), ""),
    ("price-lists", "/jobs/4/rack?view=lists", (1280, 800), ""),
    ("brakes", "/jobs/8/brakes", (1280, 800), ""),
    ("trial", "/jobs/1/trial", (1280, 800), ""),
    ("road", "/jobs/2/road", (1280, 800), ""),
    ("track", "/jobs/3/road?part=track", (1280, 800), ""),
    ("proven", "/jobs/4/trial?view=proven", (1280, 800), ""),
    ("compare", "/jobs/6/compare", (1280, 800), ""),
    ("house", "/house", (1280, 800), ""),
    ("print", "/jobs/4/sheet", (820, 1140), ""),
];

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let mut arguments = std::env::args().skip(1);
    let folder = PathBuf::from(arguments.next().context("usage: screenshots FOLDER [NAME]")?);
    let only = arguments.next();
    std::fs::create_dir_all(&folder)?;
    let listener = TcpListener::bind("127.0.0.1:0").await?;
    let address = listener.local_addr()?;
    let _supplier = Supplier::run(listener, Settings::default());
    let program = Program::sample_shop().await?.with_supplier(address).await?;
    let browser = Browser::start(1280, 800).await?;
    for (name, path, (width, height), keys) in VIEWS {
        if only.as_ref().is_some_and(|only| only != name) {
            continue;
        }
        browser.resize(*width, *height).await?;
        browser.driver.goto(program.url(path)).await?;
        browser.see("main h1, header h1").await?;
        browser.until("return document.fonts.status === 'loaded'").await?;
        tokio::time::sleep(std::time::Duration::from_millis(700)).await;
        browser.until("return document.querySelector('[data-loading]') === null").await?;
        if !keys.is_empty() {
            browser.press(keys.to_string()).await?;
            tokio::time::sleep(std::time::Duration::from_millis(300)).await;
        }
        browser.driver.screenshot(&folder.join(format!("{name}.png"))).await?;
        eprintln!("{name}");
    }
    browser.quit().await
}
