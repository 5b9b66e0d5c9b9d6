//! The plan in motion: the wheel turned and travelling by slider, by hand and from the list of what it meets.

use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};

#[tokio::test]
async fn the_wheel_is_turned_and_lifted_and_what_it_meets_is_told() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/jobs/2/bench")).await?;
    browser.see("h1").await?;
    browser.press("o").await?;
    // The crossover: its perch is carried by the steered strut, so no lift or limiter helps there.
    browser.read("[data-motion-part=spring_perch]", "no lift or limiter changes its gap").await?;
    browser.see("[data-motion-verdict=touches]").await?;
    browser.read("[aria-label='What it meets']", "Scrub radius").await?;
    // A part of the list turns the wheel to where it is tightest.
    browser.see("[data-motion-part=sill_behind] button").await?.click().await?;
    browser
        .until("return Math.abs(parseFloat(document.querySelector('[data-steer]').textContent)) > 10")
        .await?;
    browser.see("[data-view=above] [data-part=sill_behind].marked").await?;
    // By keys on the slider.
    let slider = "[aria-label='Travel, mm, plus is bump']";
    browser.see(slider).await?.send_keys(Key::Home + "").await?;
    browser.until("return document.querySelector('[data-travel]').textContent.startsWith('−')").await?;
    let stand = By::XPath("//button[normalize-space(.)='Stand still']");
    browser.driver.query(stand).first().await?.click().await?;
    browser.read("[data-steer]", "0°").await?;
    // By hand on the map: a pose is where it was pressed.
    let map = browser.see("[data-motion-map]").await?;
    browser.driver.action_chain().move_to_element_with_offset(&map, 200, -40).click().perform().await?;
    browser
        .until("return Math.abs(parseFloat(document.querySelector('[data-steer]').textContent)) > 5")
        .await?;
    // Another use reaches less; the rear axle does not steer.
    let uses = browser.driver.query(By::XPath("//label[contains(.,'use')]/select")).first().await?;
    uses.send_keys("parking").await?;
    let rear = By::XPath("//label[normalize-space(.)='rear']");
    browser.driver.query(rear).first().await?.click().await?;
    browser.see("[aria-label='Steer, degrees, plus is the front edge outboard']:disabled").await?;
    browser.read("[data-motion-part=fender_lateral]", "lip and arch").await?;
    browser.press("o").await?;
    browser.see("[aria-label=Plan]").await?;
    browser.quit().await
}

#[tokio::test]
async fn taller_tires_are_held_against_lift_and_the_rear_is_told_beside() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/jobs/2/motion")).await?;
    let tab = By::XPath("//button[normalize-space(.)='Taller tires and lift']");
    browser.driver.query(tab).first().await?.click().await?;
    browser.read("[data-lift-ladder]", "no lift helps").await?;
    browser.read("[data-other-axle]", "At the rear").await?;
    browser.see("tr[data-tire] [data-lift='50']").await?;
    browser.until("return document.documentElement.scrollHeight <= window.innerHeight").await?;
    // Chains are put on: the perch is nearer by as much.
    let chains = By::XPath("//label[contains(.,'chains')]/select");
    let before = browser.read("[data-motion-part=spring_perch] strong", "mm").await?;
    browser.driver.query(chains).first().await?.send_keys("12").await?;
    let script = "return document.querySelector('[data-motion-part=spring_perch] strong').textContent !== ";
    browser.until(&format!("{script}{before:?}")).await?;
    browser.quit().await
}

#[tokio::test]
async fn ledger_compare_and_window_show_the_plan_on_the_road() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/jobs/4/bench")).await?;
    // Standing, over bumps, together: the rear does not steer.
    browser.see("[data-code=clear-fender_lateral][data-axle=rear] [data-stretch=over_bumps]").await?;
    let at_lock = "document.querySelector('[data-axle=rear] [data-stretch=at_lock]')";
    browser.until(&format!("return {at_lock} === null")).await?;
    // What is said to a screen reader alone makes the page no taller.
    browser.until("return document.documentElement.scrollHeight <= window.innerHeight").await?;
    browser.press("l").await?;
    browser.read("[data-road-says=rear]", "Widest that clears").await?;
    browser.see("[data-clears-moving]").await?;
    browser.driver.goto(program.url("/jobs/4/compare")).await?;
    let row = By::XPath("//tr[th[normalize-space(.)='Over bumps']]/td[contains(.,'mm')]");
    browser.driver.query(row).first().await?;
    // From the ledger to the axle in motion.
    browser.driver.goto(program.url("/jobs/4/bench")).await?;
    let rear = By::XPath("//*[@data-on-the-road]//a[contains(.,'rear')]");
    browser.driver.query(rear).first().await?.click().await?;
    browser.read("[data-motion-part=spring_perch]", "standing").await?;
    browser.see("[data-remedy=offset]").await?;
    browser.quit().await
}
