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
    let rear = By::XPath("//button[normalize-space(.)='rear']");
    browser.driver.query(rear).first().await?.click().await?;
    browser.see("[aria-label='Steer, degrees, plus is the front edge outboard']:disabled").await?;
    browser.see("[data-motion-part=arch]").await?;
    browser.press("o").await?;
    browser.see("[aria-label=Plan]").await?;
    browser.quit().await
}
