//! Nothing typed is lost, and nothing happens by surprise: figures, drafts, a second screen, undo that says what.
use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};

#[tokio::test]
async fn a_row_of_figures_is_typed_without_touching_anything_else() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/bay?axle=rear&side=right").await?;
    browser.see("[aria-label=Reading]").await?;
    let part = "return document.querySelector('[aria-current=step]').closest('[data-part]').dataset.part";
    let first = browser.script(part).await?.as_str().unwrap().to_owned();
    // No field has the focus: the digits are a figure all the same, and never a stage of the work.
    browser.press("18" + Key::Enter).await?;
    browser.read(&format!("[data-reading={first}]"), "18 mm").await?;
    let second = browser.script(part).await?.as_str().unwrap().to_owned();
    assert_ne!(first, second, "on to the next reading");
    browser.type_on("20" + Key::Enter).await?;
    browser.see(&format!("[data-part={second}]")).await?.click().await.ok();
    browser.read("main", "20 mm").await?;
    assert!(browser.driver.current_url().await?.path().ends_with("/jobs/4/bay"));
    // A fraction is inches, whatever the unit stands at; half a figure is asked for whole.
    browser.type_on("1-3/16" + Key::Enter).await?;
    browser.read("main", "1.1875 in").await?;
    browser.type_on("-" + Key::Enter).await?;
    browser.read("[role=alert]", "Write the figure as a number").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_figure_not_yet_taken_outlives_another_choice_and_a_reload() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/bay?axle=rear&side=left&part=strut").await?;
    browser.see("[aria-label=Reading]").await?;
    browser.press("17,5").await?;
    let field = "[aria-label='Tire to strut, figure']";
    let text = format!("return document.querySelector(\"{field}\")?.value");
    assert_eq!(browser.script(&text).await?, "17,5");
    browser.see("[data-part=fender_lateral] > button").await?.click().await?;
    browser.see("[aria-label='Inside the fender lip, figure']").await?;
    browser.driver.refresh().await?;
    browser.see("[data-part=strut] > button").await?.click().await?;
    browser.until(&format!("{text} === '17,5'")).await?;
    browser.see(field).await?.send_keys("" + Key::Enter).await?;
    browser.read("[data-reading=strut]", "17.5 mm").await?;
    // The form of a trial as well.
    browser.driver.goto(program.url("/jobs/4/trial")).await?;
    let tried = "form[aria-label='A wheel tried on'] input:not([type=radio])";
    browser.see(tried).await?.send_keys("17x8 ET40").await?;
    browser.driver.goto(program.url("/jobs/4/bench")).await?;
    browser.see("[data-corner=rear]").await?;
    browser.driver.goto(program.url("/jobs/4/trial")).await?;
    browser.see(tried).await?;
    let kept = format!("return document.querySelector(\"{tried}\").value === '17x8 ET40'");
    browser.until(&kept).await?;
    browser.quit().await
}

#[tokio::test]
async fn one_refused_figure_holds_back_only_itself() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/car").await?;
    let mass = browser.see("[aria-label='Kerb mass']").await?;
    mass.click().await?;
    mass.send_keys(Key::Control + "a").await?;
    browser.type_on("15").await?;
    browser.see("[data-save=held]").await?;
    browser.read("main [role=alert]", "kg").await?;
    let speed = browser.see("[aria-label='Top speed']").await?;
    speed.click().await?;
    speed.send_keys(Key::Control + "a").await?;
    browser.type_on("231").await?;
    // It is with the program: another screen has it, and the mass as it was.
    let other = Browser::at(&program, "/jobs/4/car").await?;
    other.until("return document.querySelector(\"[aria-label='Top speed']\")?.value === '231'").await?;
    other.until("return document.querySelector(\"[aria-label='Kerb mass']\")?.value !== '15'").await?;
    other.quit().await?;
    // What is refused is kept here, and goes when it is right.
    browser.driver.refresh().await?;
    browser.until("return document.querySelector(\"[aria-label='Kerb mass']\")?.value === '15'").await?;
    browser.see("[aria-label='Kerb mass']").await?.send_keys("40").await?;
    browser.saved().await?;
    browser.quit().await
}

#[tokio::test]
async fn a_second_screen_shows_the_change_and_who_made_it() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let desk = Browser::at(&program, "/jobs/4/bench").await?;
    desk.see("[data-corner=rear]").await?;
    let tablet = Browser::at(&program, "/jobs/4/bay?axle=rear&side=left&part=strut").await?;
    tablet.see("[aria-label=Reading]").await?;
    tablet.script("localStorage.setItem('dimensione.signed-by', 'OV'); return null").await?;
    let revision = desk.see("[data-revision]").await?.attr("data-revision").await?.unwrap();
    let next = revision.parse::<i64>()? + 1;
    tablet.press("21" + Key::Enter).await?;
    desk.see(&format!("[data-revision='{next}']")).await?;
    // Both edit, in different fields: nobody is asked anything.
    tablet.see("textarea[placeholder^='What does the owner']").await?.send_keys(" No rub.").await?;
    desk.press("r").await?;
    desk.press("]").await?;
    desk.read("[data-message]", "by OV: ").await?;
    desk.saved().await?;
    tablet.saved().await?;
    desk.until(
        "return document.querySelector('textarea[placeholder^=\"What does\"]')?.value.endsWith('No rub.')",
    )
    .await?;
    // Undo, on any screen, says what it takes back.
    desk.press("z").await?;
    desk.read("[data-message]", "Undone: ").await?;
    tablet.quit().await?;
    desk.quit().await
}

#[tokio::test]
async fn the_header_tells_when_the_program_is_away() -> anyhow::Result<()> {
    let mut program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/bench").await?;
    browser.saved().await?;
    program.kill().await;
    browser.read("[data-save]", "program away").await?;
    program.run().await?;
    browser.read("[data-save]", "saved ").await?;
    // A key that leads to no screen leads nowhere, and moves nothing.
    let stage = "return document.querySelector('footer select:last-of-type').value";
    let before = browser.script(stage).await?;
    browser.press("8").await?;
    browser.saved().await?;
    assert_eq!(browser.script(stage).await?, before);
    browser.quit().await
}
