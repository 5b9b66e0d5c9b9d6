//! From the car in the bay to a verdict on the bench: readings, the gauge, the window, levers, the house.
use std::net::SocketAddr;
use std::time::Duration;

use anyhow::Context;
use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};
use serde_json::json;
use standins::gauge::{Gauge, Settings};
use tokio::net::TcpListener;

/// The staggered coupé of the sample shop.
const COUPE: &str = "/jobs/4";

/// A gauge without noise.
async fn gauge_at(value_mm: f64) -> anyhow::Result<(Gauge, SocketAddr)> {
    let listener = TcpListener::bind("127.0.0.1:0").await?;
    let address = listener.local_addr()?;
    let every = Duration::from_millis(20);
    let settings = Settings { value_mm, noise_mm: 0.0, every, ..Settings::default() };
    Ok((Gauge::run(listener, settings), address))
}

/// Lights a part in the bay's list.
async fn light(browser: &Browser, part: &str) -> anyhow::Result<()> {
    browser.see(&format!("[data-part={part}] > button")).await?.click().await?;
    browser.see(&format!("[data-lit={part}]")).await.map(drop)
}

/// Goes to a stage of the work: in the bay, and after a figure, a digit is a figure.
async fn stage(browser: &Browser, name: &str) -> anyhow::Result<()> {
    let path = format!("//nav[@aria-label='Stages of the work']//a[contains(., '{name}')]");
    Ok(browser.driver.query(By::XPath(&path)).first().await?.click().await?)
}

/// Types a figure into the reading and takes it.
async fn take(browser: &Browser, figure: &str) -> anyhow::Result<()> {
    browser.press("/").await?;
    browser.type_on(figure.to_owned() + Key::Enter).await
}

#[tokio::test]
async fn from_a_new_car_to_a_verdict_that_changes_with_its_reading() -> anyhow::Result<()> {
    let (gauge, address) = gauge_at(14.0).await?;
    let program = Program::empty_shop().await?.with_gauge(address).await?;
    let browser = Browser::at(&program, "/").await?;
    browser.press("n").await?;
    browser.type_on("Skerry hatch" + Key::Tab).await?;
    browser.paste("17x7.5 ET45 225/45R17 94W").await?;
    browser.see(".setup-new [data-kind=service]").await?;
    browser.type_on(Key::Enter + "").await?;
    browser.see("[data-revision='1']").await?;
    browser.press("/").await?;
    browser.paste("18x8.5 ET45 245/40R18 97Y").await?;
    browser.read("[data-code=inner-change]", "measure first").await?;

    // The car's record: what is empty is not known.
    browser.press("1").await?;
    browser.see("[aria-label=Model]").await?.send_keys("Skerry One").await?;
    browser.see("[aria-label='Kerb mass']").await?.send_keys("12 tons").await?;
    browser.read("main [role=alert]", "12 tons").await?;
    browser.see("[aria-label='Kerb mass']").await?.clear().await?;
    browser.see("[aria-label='Kerb mass']").await?.send_keys("1245").await?;
    browser.saved().await?;

    // Into the bay: the gauge sends the strut's gap.
    stage(&browser, "Bay").await?;
    light(&browser, "strut").await?;
    browser.read("[data-gauge=live]", "14.00 mm").await?;
    browser.press("g").await?;
    browser.read("[data-reading=strut]", "14 mm").await?;
    stage(&browser, "Bench").await?;
    // 225 to 245 mm on the same centre plane: 10 mm nearer of the 14.
    browser.read("[data-code=clear-strut][data-axle=front]", "4.0").await?;
    browser.read("[data-code=clear-strut][data-axle=front]", "tight").await?;
    browser.read("[data-corner=front] [data-gap=strut]", "4.0").await?;

    // Another gap, another verdict.
    gauge.set(|settings| settings.value_mm = 30.0);
    stage(&browser, "Bay").await?;
    light(&browser, "strut").await?;
    browser.see("[data-reading=strut] button").await?.click().await?;
    browser.until("return document.querySelector('[data-reading=strut]') === null").await?;
    browser.read("[data-gauge=live]", "30.00 mm").await?;
    browser.press("g").await?;
    browser.read("[data-reading=strut]", "30 mm").await?;
    stage(&browser, "Bench").await?;
    browser.read("[data-code=clear-strut][data-axle=front]", "20.0").await?;
    browser.read("[data-code=clear-strut][data-axle=front]", "clears").await?;
    browser.quit().await
}

#[tokio::test]
async fn readings_as_they_are_read_kept_marked_copied_and_undone() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/1/bay").await?;
    light(&browser, "fender_lateral").await?;
    browser.driver.query(By::XPath("//label[contains(., '1/16 in')]")).first().await?.click().await?;
    take(&browser, "11").await?;
    browser.read("[data-reading=fender_lateral]", "11 1/16 in").await?;
    // A gap of 900 mm is no wheel well's: kept, and said to be impossible.
    browser.driver.query(By::XPath("//label[normalize-space(.)='mm']")).first().await?.click().await?;
    light(&browser, "arch").await?;
    take(&browser, "900").await?;
    browser.read("[data-reading=arch] [data-trouble=impossible]", "900").await?;
    // Two that cannot both be true.
    light(&browser, "strut").await?;
    take(&browser, "14").await?;
    browser.read("[data-reading=strut]", "14 mm").await?;
    light(&browser, "strut").await?;
    take(&browser, "24").await?;
    browser.read("[data-trouble=contradicts]", "14").await?;
    // What is no figure is said where it stands.
    take(&browser, "a bit").await?;
    browser.read("[aria-label=Reading] [role=alert]", "as a number").await?;
    // Over to the right side, then undone.
    browser.driver.query(By::XPath("//button[contains(., 'Copy left')]")).first().await?.click().await?;
    browser
        .until("return [...document.querySelectorAll('[data-reading]')].some((one) => one.innerText.includes('copied'))")
        .await?;
    browser.press("z").await?;
    browser
        .until("return ![...document.querySelectorAll('[data-reading]')].some((one) => one.innerText.includes('copied'))")
        .await?;
    browser.quit().await
}

#[tokio::test]
async fn readings_taken_away_from_the_program_are_sent_later() -> anyhow::Result<()> {
    let mut program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/1/bay").await?;
    light(&browser, "strut").await?;
    program.kill().await;
    take(&browser, "15.5").await?;
    browser.read("[data-queue='1']", "kept here").await?;
    browser.read("[data-reading=strut]", "not sent yet").await?;
    // Any screen of the job says so, and sends it: the bay need not be open for that.
    browser.see("a[href='/jobs/1/bench']").await?.click().await?;
    browser.read("[data-save]", "One reading is kept here").await?;
    program.run().await?;
    browser.saved().await?;
    browser.see("a[href='/jobs/1/bay']").await?.click().await?;
    browser.until("return document.querySelector('[data-queue]') === null").await?;
    browser.driver.refresh().await?;
    browser.read("[data-reading=strut]", "15.5 mm").await?;
    assert_eq!(browser.driver.find_all(By::Css("[data-reading=strut]")).await?.len(), 1, "kept once");
    browser.quit().await
}

#[tokio::test]
async fn the_window_finds_the_widest_rear_wheel_and_a_lever_widens_it() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, &format!("{COUPE}/bench")).await?;
    browser.press("l").await?;
    browser.read("[data-window-says=rear]", "Widest that clears: 10.0 in").await?;
    browser.read("[data-window-says=rear]", "10.5 in is").await?;
    browser.read("[data-window-says=rear]", "short between fender lip and strut").await?;
    browser.see("[data-window=rear] [data-width='10'][data-clears=true]").await?;
    browser.see("[data-window=rear] [data-width='10.5'][data-clears=false]").await?;
    browser.see("[data-window=rear] [data-mark=fitted]").await?;
    browser.see("[data-window=rear] [data-mark=kept]").await?;

    // Pointing at 10 in plans it.
    let place = browser
        .script(
            "const width = document.querySelector('[data-window=rear] [data-width=\"10\"]').getBoundingClientRect();
             const plan = document.querySelector('[data-window=rear] [data-mark=planned] circle').getBoundingClientRect();
             return [width.x + width.width / 2, plan.y + plan.height / 2]",
        )
        .await?;
    let (x, y) = (place[0].as_f64().unwrap() as i64, place[1].as_f64().unwrap() as i64);
    browser.driver.action_chain().move_to(x, y).click().perform().await?;
    browser.read("[data-corner=rear] [data-dimension=rim-width]", "10").await?;
    browser.read("[data-corner=rear] [data-dimension=offset]", "ET 40").await?;
    browser.saved().await?;
    browser.press("z").await?;
    browser.read("[data-corner=rear] [data-dimension=rim-width]", "9.5").await?;

    // A pulled fender makes room for the next half inch, and is an alteration that says what it costs.
    let fender = browser.see("[data-lever=fender_pulled] input[aria-label$=rear]").await?;
    for _ in 0..15 {
        fender.send_keys(Key::Right + "").await?;
    }
    browser.see("[data-window=rear] [data-width='10.5'][data-clears=true]").await?;
    // What then stops it is not the car: the tire may not be put on such a rim.
    browser.read("[data-window-says=rear]", "10.5 in is outside of the tire's permitted rims").await?;
    browser.read("[data-lever=fender_pulled]", "for good").await?;
    browser.saved().await?;
    browser.driver.refresh().await?;
    browser.read("[data-window-says=rear]", "10.5 in is outside of the tire's permitted rims").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_proposal_is_tried_and_turns_the_verdict() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, &format!("{COUPE}/bench")).await?;
    browser.read("[data-code=clear-fender_lateral][data-axle=rear]", "tight").await?;
    browser.read("[data-proposal=rear]", "clears what was read").await?;
    browser.see("[data-proposal=rear] button").await?.click().await?;
    browser.read("[data-code=clear-fender_lateral][data-axle=rear]", "clears").await?;
    browser.until("return document.querySelector('[data-proposal=rear]') === null").await?;
    browser.saved().await?;
    browser.press("z").await?;
    browser.read("[data-code=clear-fender_lateral][data-axle=rear]", "tight").await?;
    browser.quit().await
}

#[tokio::test]
async fn the_measure_list_leads_to_the_bay_and_onto_paper() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, &format!("{COUPE}/bench")).await?;
    browser.press("m").await?;
    // The figure itself is the core's; what counts here is that both screens say the same one.
    let listed = browser.read("[data-measure=rear-knuckle]", "≥").await?;
    let needed =
        listed.split_once("≥ ").and_then(|(_, rest)| rest.lines().next()).context("a figure")?.to_owned();
    browser.see("[data-measure=rear-knuckle] a").await?.click().await?;
    browser.see("[data-lit=knuckle]").await?;
    browser.read("[data-part=knuckle]", &format!("must be {needed} or more")).await?;
    take(&browser, "12").await?;
    browser.read("[data-reading=knuckle]", "12 mm").await?;
    browser.driver.goto(program.url(&format!("{COUPE}/bay-sheet"))).await?;
    browser.read("[data-sheet=rear] [data-row=knuckle]", "12 mm").await?;
    browser.read("[data-sheet=front] [data-row=liner_ahead]", "at each lock").await?;
    browser.read("[data-sheet=rear]", "Safety stands under the car").await?;
    // Nothing is cut off, and each axle has its sheet.
    let over = browser
        .script(
            "return [...document.querySelectorAll('.print-sheet')].map((sheet) => sheet.scrollHeight - sheet.clientHeight)",
        )
        .await?;
    assert_eq!(over, json!([0, 0]));
    browser.quit().await
}

#[tokio::test]
async fn the_houses_own_limit_is_used_and_named() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/house").await?;
    let strut = browser.see("[aria-label='gap to strut, spring perch and knuckle']").await?;
    strut.clear().await?;
    strut.send_keys("500").await?;
    let save = browser.driver.query(By::XPath("//button[.='Save']")).first().await?;
    save.click().await?;
    browser.read("main [role=alert]", "500").await?;
    strut.clear().await?;
    strut.send_keys("12,5").await?;
    save.click().await?;
    browser.read("header output", "Saved").await?;
    browser.driver.goto(program.url(&format!("{COUPE}/bench"))).await?;
    browser.read("[data-code=clear-strut][data-axle=front]", "house minimum 12.5 mm").await?;
    browser.read("[data-code=clear-strut][data-axle=front]", "tight").await?;
    browser.quit().await
}

#[tokio::test]
async fn the_next_car_of_a_model_starts_from_the_last_one() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/").await?;
    browser.press("n").await?;
    browser.type_on("Second Dotterel" + Key::Tab).await?;
    browser.paste("18x8 ET34 225/45R18").await?;
    browser.type_on(Key::Enter + "").await?;
    browser.see("[data-revision='1']").await?;
    browser.press("1").await?;
    browser.see("[aria-label='Find a car the shop has had']").await?.send_keys("dotterel").await?;
    browser.read("[aria-label='Cars the shop has had']", "Marn Dotterel 3.0").await?;
    browser.driver.query(By::XPath("//button[.='Take over']")).first().await?.click().await?;
    browser.until("return document.querySelector('[aria-label=Torque]').value === '140'").await?;
    // What belongs to the one car is not carried over.
    browser.until("return document.querySelector('[aria-label=\"Camber, rear\"]').value === ''").await?;
    browser.saved().await?;
    browser.quit().await
}

/// Interface direction: 44 px in the bay, since hands are dirty.
#[tokio::test]
async fn every_target_in_the_bay_is_wide_enough_for_a_thumb() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(820, 1180).await?;
    browser.driver.goto(program.url("/jobs/4/bay?axle=rear")).await?;
    browser.see("[data-part=strut]").await?;
    let small = browser
        .script(
            "return [...document.querySelectorAll('main button, main select, main input:not(.sr-only), main fieldset label')]
               .map((one) => [one.innerText || one.ariaLabel, one.getBoundingClientRect().height])
               .filter(([, height]) => height < 44)",
        )
        .await?;
    assert_eq!(small, json!([]));
    browser.quit().await
}
