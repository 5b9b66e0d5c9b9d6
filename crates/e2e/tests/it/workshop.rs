//! Brakes, trial fit and proven fits: from a template file to a verdict, through a trial with a contact, to a changed
//! verdict of an untried wheel, to a proven fit on the window.
use std::io::Write;

use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};

async fn press_button(browser: &Browser, text: &str) -> anyhow::Result<()> {
    let path = By::XPath(format!("//button[normalize-space(.)='{text}']"));
    browser.driver.query(path).first().await?.click().await?;
    Ok(())
}

#[tokio::test]
async fn from_a_template_to_a_proven_fit_on_the_window() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/brakes").await?;
    browser.read("[aria-label=Profiles]", "Nothing is known of this axle").await?;
    // A card drawn in a file that does not say its unit.
    let mut drawing = tempfile::Builder::new().suffix(".csv").tempfile()?;
    writeln!(drawing, "-58,120\n-58,176\n-20,187\n6,184\n16,150\n12,120")?;
    drawing.flush()?;
    browser.see("[aria-label='Drawing file']").await?.send_keys(drawing.path().to_string_lossy()).await?;
    browser.read("[data-drawing-read]", "does not say its unit").await?;
    browser.see("[aria-label='Unit of the drawing']").await?.send_keys("mm").await?;
    browser.read("[data-drawing-read]", "6 points").await?;
    press_button(&browser, "Take it").await?;
    browser.see("[data-part-row=caliper]").await?;
    browser.see("[data-spacer-step='0']").await?;
    // Of the wheel only its size is known: its spokes are another shape, and no card of the caliper makes that clear.
    browser.see("[data-brake-verdict=measure_first]").await?;
    browser.saved().await?;
    // The catalogue is flicked through with the arrow keys, and spacers with their keys.
    browser.see("[data-wheels]").await?;
    browser.press(Key::Right + "").await?;
    browser.until("return !document.querySelector('[data-wheel]').textContent.includes('bench')").await?;
    browser.press("]").await?;
    browser.read("[data-spacer]", "1 mm").await?;

    // A wheel is lifted on and meets the fender: the candidate that was not lifted on is judged by it.
    browser.driver.goto(program.url("/jobs/4/trial")).await?;
    browser.see("[data-conclusion=rear]").await?;
    let axle = browser.driver.query(By::XPath("//label[span[.='Axle']]/select")).first().await?;
    axle.send_keys("rear").await?;
    browser.see("[placeholder='17x8 ET40']").await?.send_keys("19x9.5 ET45 265/30R19").await?;
    let car = browser.driver.query(By::XPath("//label[span[.='Car']]/select")).first().await?;
    car.send_keys("on the ground").await?;
    let met = browser.driver.query(By::XPath("//label[span[.='What it met']]/select")).first().await?;
    met.send_keys("tire or rim on fender lip").await?;
    browser.see("[aria-label='How much, mm']").await?.send_keys("2").await?;
    press_button(&browser, "Keep this trial").await?;
    browser.read("[data-trial]", "2.0 mm gap").await?;
    browser.saved().await?;
    // ET 40 with 3 mm of spacer stands 8 mm further out than what was tried.
    browser.read("[data-conclusion=rear] [data-judged=bench]", "touches").await?;
    browser.read("[data-conclusion=rear]", "(fender lip)").await?;
    // A line that cannot be read is refused beside the field, and nothing is lost.
    browser.see("[placeholder='17x8 ET40']").await?.clear().await?;
    browser.see("[placeholder='17x8 ET40']").await?.send_keys("19x9.5 ET35 banana").await?;
    press_button(&browser, "Keep this trial").await?;
    browser.see("[role=alert]").await?;
    // On paper.
    browser.driver.goto(program.url("/jobs/4/trial-sheet")).await?;
    browser.read("[data-sheet=trial]", "19x9.5 ET45").await?;

    // Finished: the plan becomes a proven fit, is found again, and stands on the window.
    browser.driver.goto(program.url("/jobs/4/trial?view=proven")).await?;
    browser.see("[data-proven]").await?;
    browser.see("[aria-label='How the rear rubs']").await?.send_keys("rubs over bumps").await?;
    browser.see("[aria-label='What the owner says']").await?.send_keys("heard it twice").await?;
    press_button(&browser, "Keep as a proven fit").await?;
    browser.read("[data-proven-says]", "1 new").await?;
    browser.see("[aria-label='Find in the proven fits']").await?.send_keys("heard twice").await?;
    browser.see("[data-proven-total='1']").await?;
    browser.read("[data-proven]", "this model").await?;
    browser.driver.goto(program.url("/jobs/4/bench?beside=window")).await?;
    browser.see("[data-window=rear] [data-proven-mark=over_bumps]").await?;
    browser.quit().await
}

#[tokio::test]
async fn two_millimetres_mend_the_big_brake_job() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/8/brakes").await?;
    browser.see("[data-brake-verdict=touches]").await?;
    browser.read("[data-gap=axial]", "−0.3 mm").await?;
    browser.read("[data-smallest='2']", "measure from its mounting pad to the seat").await?;
    browser.see("[data-spacer-step='2']").await?.click().await?;
    browser.see("[data-brake-verdict=clears]").await?;
    browser.read("[data-smaller-rims]", "do not lift it on").await?;
    browser.see("[data-smallest='2'] button").await?.click().await?;
    browser.saved().await?;
    browser.driver.goto(program.url("/jobs/8/bench")).await?;
    browser.read("body", "2 mm spacer").await?;
    browser.quit().await
}
