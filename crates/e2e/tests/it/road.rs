//! Road & track: gears typed, a class chosen, and a round of the car by keys only.
use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};

#[tokio::test]
async fn gears_are_drawn_once_they_are_whole() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/road").await?;
    browser.see("[data-dial]").await?;
    browser.see("[aria-label='Ratios, first to top']").await?.send_keys("3.6 2.1 1.4 1 0.8").await?;
    browser.see("[aria-label='Final drive']").await?.send_keys("3.9").await?;
    browser.until("return document.querySelector('[data-gear-chart]') === null").await?;
    browser.see("[aria-label='Limiter, 1/min']").await?.send_keys("6500").await?;
    browser.see("[data-gear-chart]").await?;
    browser.read("[data-gears]", "gear 5, 0.8").await?;
    browser.saved().await?;
    browser.driver.refresh().await?;
    browser.see("[data-gear-chart]").await?;
    // Gears out of order are told at once, and hold back nothing else.
    let ratios = browser.see("[aria-label='Ratios, first to top']").await?;
    ratios.send_keys(" 2.2").await?;
    browser.read("[role=alert]", "first to top").await?;
    browser.see("[data-save=held]").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_class_judges_the_bench_clause_by_clause() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/3/road?part=class").await?;
    browser.read("[data-allowed]", "rims 15 to 17 in").await?;
    browser.read("[data-classed=bench]", "not judged: something it asks for is not stated").await?;
    browser.quit().await
}

#[tokio::test]
async fn twelve_depths_go_in_by_keys_alone() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/3/road?part=tread").await?;
    browser.see("[data-round='0']").await?;
    browser.see("[aria-label='Depth 1 of 12, mm']").await?.click().await?;
    for at in 0..12 {
        browser.see(&format!("[data-round='{at}']")).await?;
        browser.type_on("2,4" + Key::Enter).await?;
    }
    browser.see("[data-round='12']").await?;
    browser.see("[aria-label='Since they were mounted']").await?.send_keys("82" + Key::Enter).await?;
    browser.see("[data-round='0']").await?;
    browser.read("[data-tire=fl]", "7 readings").await?;
    browser.saved().await?;
    browser.driver.refresh().await?;
    browser.read("[data-tire=rr]", "7 readings").await?;
    browser.quit().await
}
