//! Sheets on paper, addresses, themes, and what stays over a reload.
use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};
use serde_json::json;

#[tokio::test]
async fn every_sample_job_fits_one_sheet_with_its_cautions() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    for job in 1..=9 {
        browser.driver.goto(program.url(&format!("/jobs/{job}/sheet"))).await?;
        browser.see(".print-sheet [data-dimension=offset]").await?;
        browser.read(".print-sheet", "licensed inspector decide").await?;
        // Nothing is cut off: what the sheet holds is no taller than the sheet.
        let over = browser
            .script(
                "const sheet = document.querySelector('.print-sheet');
                 return sheet.scrollHeight - sheet.clientHeight",
            )
            .await?;
        assert_eq!(over.as_i64(), Some(0), "job {job} is taller than its sheet");
        let pdf = browser
            .cdp("Page.printToPDF", json!({ "preferCSSPageSize": true, "printBackground": true }))
            .await?;
        assert!(pdf["data"].as_str().unwrap().len() > 10_000, "job {job} prints");
    }
    browser.quit().await
}

#[tokio::test]
async fn the_sheet_is_black_on_white_in_the_dark_shop_too() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/jobs/6/bench")).await?;
    browser.see("header button[title='Light or dark shop']").await?.click().await?;
    browser.until("return document.documentElement.dataset.theme === 'layout-dark'").await?;
    browser.press("p").await?;
    browser.see(".print-sheet [data-dimension=offset]").await?;
    let colours = browser
        .script(
            "const of = (css) => getComputedStyle(document.querySelector(css));
             return [of('.print-sheet').backgroundColor, of('.print-sheet .drawing').backgroundColor,
                     of('.print-sheet [data-dimension=offset] text').fill]",
        )
        .await?;
    assert_eq!(colours, json!(["rgb(255, 255, 255)", "rgb(255, 255, 255)", "rgb(17, 17, 17)"]));
    browser.driver.refresh().await?;
    browser.until("return document.documentElement.dataset.theme === 'layout-dark'").await?;
    browser.quit().await
}

#[tokio::test]
async fn every_place_has_an_address_and_back_works() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/jobs/4")).await?;
    browser.until("return location.pathname === '/jobs/4/bench'").await?;
    browser.see("[data-dimension=offset]").await?;
    browser.press("c").await?;
    browser.until("return location.pathname === '/jobs/4/compare'").await?;
    browser.see("thead").await?;
    browser.press("c").await?;
    browser.until("return location.pathname === '/jobs/4/bench'").await?;
    browser.driver.back().await?;
    browser.until("return location.pathname === '/jobs/4/compare'").await?;
    browser.see("thead").await?;
    browser.press("0").await?;
    browser.until("return location.pathname === '/'").await?;
    for (path, words) in [
        ("/jobs/99/bench", "There is no such job"),
        ("/jobs/x/bench", "no such job"),
        ("/attic", "no such page"),
    ] {
        browser.driver.goto(program.url(path)).await?;
        browser.read("main", words).await?;
    }
    browser.driver.query(By::LinkText("To the counter")).first().await?.click().await?;
    browser.read("h1", "Counter").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_new_job_half_typed_survives_a_reload() -> anyhow::Result<()> {
    let program = Program::empty_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/")).await?;
    browser.see("form").await?;
    browser.press("n").await?;
    browser.type_on("Skerry hatch" + Key::Tab).await?;
    browser.type_on("15x6 ET45 195/").await?;
    browser.read(".setup-new [role=alert]", "the aspect ratio is missing").await?;
    browser.driver.refresh().await?;
    browser.until("return document.querySelector('form input')?.value === 'Skerry hatch'").await?;
    browser.until("return document.querySelector('form textarea').value === '15x6 ET45 195/'").await?;
    browser.see("form textarea").await?.send_keys("65R15" + Key::Enter).await?;
    browser.see("[data-revision='1']").await?;
    browser.driver.goto(program.url("/")).await?;
    browser.until("return document.querySelector('form input')?.value === ''").await?;
    browser.quit().await
}

#[tokio::test]
async fn the_wheel_is_a_slider_for_keyboard_and_screen_reader() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/jobs/7/bench")).await?;
    let wheel = browser.see("[data-corner=front] [role=slider]").await?;
    assert_eq!(wheel.attr("aria-label").await?.as_deref(), Some("Front wheel, offset"));
    assert_eq!(wheel.attr("aria-valuetext").await?.as_deref(), Some("ET 42"));
    wheel.focus().await?;
    browser.type_on(Key::Left + "").await?;
    browser
        .until("return document.querySelector('[data-corner=front] [role=slider]').ariaValueText === 'ET 43'")
        .await?;
    // The verdict is told in words, not by colour alone.
    browser.read("[data-verdict]", "Stop").await?;
    let marks = browser
        .script(
            "return [...document.querySelectorAll('[data-code]')].map((line) =>
               [line.querySelector('svg path').getAttribute('d'), line.innerText.split('\\n').length > 1])",
        )
        .await?;
    for mark in marks.as_array().unwrap() {
        assert_eq!(mark[1], true, "every line has a word beside its mark");
    }
    browser.quit().await
}
