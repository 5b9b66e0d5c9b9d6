//! A real browser over a file that is swapped under it: types while the program is stopped, another file comes to the address,
//! and the page goes on. Prints a line of the table that `cargo xtask torture` makes; fails when a foreign job was changed.
//!
//! Usage: `swaps ROUNDS`
#![allow(clippy::print_stdout, reason = "it prints its line")]

use std::path::{Path, PathBuf};

use anyhow::{Context, bail};
use e2e::{Browser, Program};
use store::{Store, jobs};

const WISH: &str = "textarea[placeholder^='What does the owner']";

#[tokio::main]
async fn main() -> anyhow::Result<()> {
    let rounds: usize = std::env::args().nth(1).context("how many rounds?")?.parse()?;
    let folder = tempfile::tempdir()?;
    let mut program = Program::sample_shop().await?;
    program.kill().await;
    // The shop itself as it was, as it was a change later, and two others.
    let at = |name: &str| folder.path().join(name);
    std::fs::copy(program.file(), at("early"))?;
    for name in ["one", "two"] {
        let store = Store::open(&at(name))?;
        server::sample::fill(&store).await?;
        store.close()?;
    }
    let others = [at("one"), at("two"), at("early")];
    program.run().await?;
    let (mut changed, mut shown) = (0, 0);
    for round in 0..rounds {
        let job = round % 8 + 1;
        let screen = ["bench", "car", "bay", "compare"][round % 4];
        let browser = Browser::at(&program, &format!("/jobs/{job}/bench")).await?;
        browser.saved().await?;
        // Ahead of every other file by one change.
        browser.see(WISH).await?.send_keys(format!(" Kept {round}.")).await?;
        browser.saved().await?;
        browser.driver.goto(program.url(&format!("/jobs/{job}/{screen}"))).await?;
        browser.see(WISH).await?;
        program.kill().await;
        let field = browser.see(WISH).await?;
        field.send_keys(format!(" Foreign {round}.")).await?;
        browser.see("[data-save=away]").await?;
        let other = &others[round % others.len()];
        let mine = std::fs::read(program.file())?;
        let before = contents(other).await?;
        program.put(other)?;
        program.run().await?;
        // The page has found out, and says what it has of the other file.
        browser.see("[data-set-aside]").await?;
        browser.saved().await?;
        shown += 1;
        program.kill().await;
        changed += usize::from(contents(program.file()).await? != before);
        browser.quit().await?;
        std::fs::write(program.file(), mine)?;
        program.run().await?;
    }
    let mark = if changed == 0 && shown == rounds { "" } else { " **not held**" };
    println!(
        "| {rounds} of them in a real browser that had typed | 0 changes in a foreign job, each shown | {changed} foreign \
         jobs changed, {shown} shown{mark} |"
    );
    if changed > 0 {
        bail!("a foreign job was changed");
    }
    Ok(())
}

/// What every job of a file holds.
async fn contents(file: &Path) -> anyhow::Result<Vec<String>> {
    let copy: PathBuf = file.with_extension("looked-at");
    std::fs::copy(file, &copy)?;
    let store = Store::open(&copy)?;
    let page = jobs::Page { find: String::new(), put_away: false, from: 0, most: 500 };
    let (_, listed) = store.read(move |c| jobs::list(c, &page)).await?;
    let mut all = Vec::new();
    for one in listed {
        let job = store.read(move |c| jobs::get(c, one.id)).await?;
        all.push(format!("{} {} {:?}", job.uid, job.token, job.content));
    }
    all.sort();
    store.close()?;
    Ok(all)
}
