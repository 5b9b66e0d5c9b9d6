//! Whose work is it: what was typed for one file is nothing for another, and a browser that keeps nothing holds up nothing.
use std::path::{Path, PathBuf};

use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};
use serde_json::json;
use store::{Store, jobs};

const WISH: &str = "textarea[placeholder^='What does the owner']";

/// Another sample shop: its jobs have the numbers of the first, and are other jobs.
async fn another_shop(folder: &Path) -> anyhow::Result<PathBuf> {
    let file = folder.join("another.sqlite");
    let store = Store::open(&file)?;
    server::sample::fill(&store).await?;
    store.close()?;
    Ok(file)
}

async fn wishes(program: &mut Program) -> anyhow::Result<Vec<String>> {
    program.kill().await;
    let store = Store::open(program.file())?;
    let page = jobs::Page { find: String::new(), put_away: false, from: 0, most: 100 };
    let (_, listed) = store.read(move |c| jobs::list(c, &page)).await?;
    let mut all: Vec<(i64, String)> = listed.into_iter().map(|job| (job.id, job.wish)).collect();
    all.sort();
    store.close()?;
    program.run().await?;
    Ok(all.into_iter().map(|(_, wish)| wish).collect())
}

#[tokio::test]
async fn what_was_typed_for_one_file_is_shown_and_never_applied_to_another() -> anyhow::Result<()> {
    let folder = tempfile::tempdir()?;
    let mut program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/bench").await?;
    browser.saved().await?;
    program.kill().await;
    browser.see(WISH).await?.send_keys(" And no rub at all.").await?;
    browser.see("[data-save=away]").await?;
    program.put(&another_shop(folder.path()).await?)?;
    program.run().await?;
    // The page begins anew over the other file, and says what it has of the first.
    browser.see("[data-set-aside='1'] summary").await?.click().await?;
    browser.read("[data-set-aside='1']", "And no rub at all.").await?;
    browser.read("[data-set-aside]", "Job 0004").await?;
    browser.saved().await?;
    assert!(wishes(&mut program).await?.iter().all(|wish| !wish.contains("no rub at all")), "nobody got it");
    // It stays over a reload and on the counter, until somebody says what becomes of it.
    browser.driver.goto(program.url("/")).await?;
    browser.read("[data-set-aside='1']", "And no rub at all.").await?;
    let pressed = |words: &str| {
        format!(
            "[...document.querySelectorAll('[data-set-aside] button')].find((one) => one.textContent.includes('{words}')).click()"
        )
    };
    browser.script(&format!("{}; return null", pressed("Take over"))).await?;
    browser.until("return document.querySelectorAll('[data-set-aside] li li button').length > 4").await?;
    browser.script(&format!("{}; return null", pressed("0002"))).await?;
    browser.see("[data-corner=rear]").await?;
    browser.saved().await?;
    browser.until("return document.querySelector('[data-set-aside]') === null").await?;
    let after = wishes(&mut program).await?;
    let got: Vec<usize> = after
        .iter()
        .enumerate()
        .filter(|(_, wish)| wish.contains("no rub at all"))
        .map(|(at, _)| at)
        .collect();
    assert_eq!(got, [1], "the second job, which was chosen");
    browser.quit().await
}

#[tokio::test]
async fn what_was_typed_after_a_backup_is_not_applied_to_the_backup() -> anyhow::Result<()> {
    let folder = tempfile::tempdir()?;
    let mut program = Program::sample_shop().await?;
    program.kill().await;
    let backup = folder.path().join("backup.sqlite");
    std::fs::copy(program.file(), &backup)?;
    program.run().await?;
    let browser = Browser::at(&program, "/jobs/4/bench").await?;
    let field = browser.see(WISH).await?;
    field.send_keys(" Saved later.").await?;
    browser.saved().await?;
    program.kill().await;
    browser.see(WISH).await?.send_keys(" Typed away.").await?;
    browser.see("[data-save=away]").await?;
    program.put(&backup)?;
    program.run().await?;
    browser.see("[data-set-aside='1'] summary").await?.click().await?;
    browser.read("[data-set-aside='1']", "Typed away.").await?;
    browser
        .until(&format!("return !document.querySelector(\"{WISH}\").value.includes('Saved later')"))
        .await?;
    assert!(wishes(&mut program).await?.iter().all(|wish| !wish.contains("Typed away")));
    // Work goes on over the backup.
    browser.see(WISH).await?.send_keys(" Anew.").await?;
    browser.saved().await?;
    browser.until("return document.querySelector('[data-set-aside]') !== null").await?;
    for words in ["Drop…", "Drop it for good"] {
        let press = format!(
            "[...document.querySelectorAll('[data-set-aside] button')].find((one) => one.textContent === '{words}').click(); return null"
        );
        browser.script(&press).await?;
    }
    browser.until("return document.querySelector('[data-set-aside]') === null").await?;
    assert!(wishes(&mut program).await?[3].ends_with("Anew."));
    browser.quit().await
}

#[tokio::test]
async fn readings_and_limits_of_another_file_wait_for_a_word() -> anyhow::Result<()> {
    let folder = tempfile::tempdir()?;
    let mut program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/bay?axle=rear&side=left&part=strut").await?;
    browser.see("[aria-label=Reading]").await?;
    program.kill().await;
    browser.press("18" + Key::Enter).await?;
    browser.read("[data-save]", "kept here").await?;
    program.put(&another_shop(folder.path()).await?)?;
    program.run().await?;
    browser.see("[data-set-aside='1'] summary").await?.click().await?;
    browser.read("[data-set-aside='1']", "strut, rear left: 18").await?;
    // Limits that were typed and not saved: on the way back to the first file's house they would be there again.
    browser.driver.goto(program.url("/house")).await?;
    let limit = "main table input";
    browser.see(limit).await?.send_keys("1").await?;
    browser.read("output", "changed, not saved").await?;
    browser.driver.goto(program.url("/")).await?;
    browser.see("h1").await?;
    browser.driver.goto(program.url("/house")).await?;
    browser.read("output", "changed, not saved").await?;
    program.kill().await;
    let third = tempfile::tempdir()?;
    program.put(&another_shop(third.path()).await?)?;
    program.run().await?;
    browser.driver.goto(program.url("/house")).await?;
    browser.read("[data-set-aside='2']", "Limits and people of the house").await?;
    browser.until("return !document.querySelector('output').textContent.includes('not saved')").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_browser_that_keeps_nothing_says_so_once_and_holds_up_nothing() -> anyhow::Result<()> {
    for how in ["blocked", "full"] {
        let mut program = Program::sample_shop().await?;
        let browser = Browser::start(1280, 800).await?;
        let script = e2e::storage_that_is(how).unwrap();
        browser.cdp("Page.addScriptToEvaluateOnNewDocument", json!({ "source": script })).await?;
        browser.driver.goto(program.url("/jobs/4/bench")).await?;
        browser.see(WISH).await?.send_keys(" Kept nowhere.").await?;
        browser.saved().await?;
        browser.read("body", "This browser keeps nothing for us").await?;
        program.kill().await;
        browser.see(WISH).await?.send_keys(" Nor this.").await?;
        browser.see("[data-save=away]").await?;
        program.run().await?;
        browser.saved().await?;
        assert!(wishes(&mut program).await?[3].ends_with("Kept nowhere. Nor this."), "{how}");
        browser.quit().await?;
    }
    Ok(())
}
