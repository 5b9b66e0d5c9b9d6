//! Everyday handling of the page: finding, keeping, units, keys, pasted text, and attempts to break it.
use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};

/// The sample shop's bench of one car, by the words on its row.
async fn on_the_bench_of(car: &str, program: &Program) -> anyhow::Result<Browser> {
    let browser = Browser::at(program, "/").await?;
    browser.driver.query(By::LinkText(car)).first().await?.click().await?;
    browser.see("[data-dimension=offset]").await?;
    Ok(browser)
}

/// Pastes into whatever has the focus, line ends included.
async fn paste(browser: &Browser, text: &str) -> anyhow::Result<()> {
    let script = format!(
        "const field = document.activeElement; field.select();
         document.execCommand('insertText', false, {}); return null",
        serde_json::to_string(text)?
    );
    browser.script(&script).await?;
    Ok(())
}

#[tokio::test]
async fn the_sample_shop_shows_what_is_wrong_with_each_job() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/").await?;
    for (car, code, word) in [
        ("Skerrin Pip 1.2 hatch", "speedometer", "under-reads"),
        ("Halvard Tinde 2.0 estate", "front-to-rear", "drifts"),
        ("Vesper Tarn show coupé", "tire-on-rim", "ask the maker"),
        ("Marn Dotterel 3.0 coupé", "load-index", "too low"),
        ("Ousel Brae roadster", "overall-diameter", "by its use"),
        ("Fellmark Drover crossover", "clear-sill_behind", "touches"),
        ("Corrie 5.4 drag saloon", "load-index", "not known"),
    ] {
        browser.driver.goto(program.url("/")).await?;
        browser.driver.query(By::LinkText(car)).first().await?.click().await?;
        browser.read(&format!("[data-code={code}]"), word).await?;
    }
    browser.quit().await
}

#[tokio::test]
async fn jobs_are_found_put_away_and_taken_out_again() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/").await?;
    browser.press("/").await?;
    browser.type_on("coupé pier").await?;
    browser.until("return document.querySelectorAll('main li').length === 1").await?;
    browser.read("main li", "Vesper Tarn").await?;
    browser.type_on(" bicycle").await?;
    browser.read("main", "No open job has").await?;
    browser.driver.refresh().await?;
    browser.until("return document.querySelectorAll('main li').length === 9").await?;
    browser.see("[aria-label='Put away Vesper Tarn show coupé']").await?.click().await?;
    browser.until("return document.querySelectorAll('main li').length === 8").await?;
    browser.see("header button[aria-pressed]").await?.click().await?;
    browser.until("return document.querySelectorAll('main li').length === 1").await?;
    browser.see("[aria-label='Take out Vesper Tarn show coupé']").await?.click().await?;
    browser.read("main", "Nothing is put away").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_pasted_message_fills_both_axles() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = on_the_bench_of("Skerrin Pip 1.2 hatch", &program).await?;
    browser.press("/").await?;
    paste(&browser, "Hi, what about\n16x6.5 ET45 205/55R16 91V\n16x7 ET40 225/50R16 96V ?").await?;
    browser.read("[data-corner=rear] [data-dimension=rim-width]", "7").await?;
    browser.read("[data-corner=front] [data-dimension=rim-width]", "6.5").await?;
    browser.read(".setup-planned", "left aside").await?;
    browser.type_on(Key::Enter + "").await?;
    browser.until("return document.querySelector('[id^=plan-]').value.startsWith('F: 16x6.5')").await?;
    browser.quit().await
}

#[tokio::test]
async fn one_axle_is_changed_alone() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = on_the_bench_of("Skerrin Pip 1.2 hatch", &program).await?;
    browser.press("r").await?;
    browser.press(Key::Left + "").await?;
    browser.read("[data-corner=rear] [data-dimension=offset]", "ET 43").await?;
    browser.read("[data-corner=front] [data-dimension=offset]", "ET 42").await?;
    browser.press("/").await?;
    paste(&browser, "17x8 ET30 215/50R17").await?;
    browser.read("[data-corner=rear] [data-dimension=offset]", "ET 30").await?;
    browser.read("[data-corner=front] [data-dimension=offset]", "ET 42").await?;
    browser.press("r").await?;
    browser.until("return document.querySelector('[id^=plan-]').value.includes('R: 17x8')").await?;
    browser.quit().await
}

#[tokio::test]
async fn units_change_the_figures_and_not_the_codes() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = on_the_bench_of("Skerrin Pip 1.2 hatch", &program).await?;
    // 646.8 mm is 25.46 in; 101.9 km/h is 63.3 mph (GNU units 2.22).
    browser.read("[data-dimension=overall-diameter]", "646.8 mm").await?;
    browser.press("c").await?;
    browser.read("main table", "True at 100 km/h shown").await?;
    browser.press("u").await?;
    // 60 mph on the dial with tires 1.94 % larger is 61.2 mph.
    browser.read("main table", "True at 60 mph shown").await?;
    browser.read("main table", "61.2 mph").await?;
    browser.press("c").await?;
    browser.read("[data-code=speedometer]", "63.3").await?;
    browser.read("[data-dimension=overall-diameter]", "646.8 mm").await?;
    browser.press("u").await?;
    browser.read("[data-dimension=overall-diameter]", "25.46 in").await?;
    browser.read("[data-dimension=offset]", "ET 42").await?;
    browser.driver.refresh().await?;
    browser.read("[data-dimension=overall-diameter]", "25.46 in").await?;
    browser.press("u").await?;
    browser.read("[data-dimension=overall-diameter]", "646.8 mm").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_line_opens_to_its_working_and_source() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = on_the_bench_of("Skerrin Pip 1.2 hatch", &program).await?;
    browser.press("w").await?;
    browser.read("[data-code=speedometer] [data-working]", "V true = V shown × OD new / OD old").await?;
    browser.read("[data-code=speedometer] [data-working]", "Judged by UN R39").await?;
    browser.read("[data-code=speedometer]", "Local codes decide").await?;
    browser.press("w").await?;
    browser.until("return document.querySelector('[data-working]') === null").await?;
    browser.press("m").await?;
    browser.until("return document.querySelector('[data-code=speedometer]') === null").await?;
    browser.read("[data-measure=rear-strut]", "with the fitted wheel").await?;
    browser.press("?").await?;
    browser.read("dialog", "rim width by ½ in").await?;
    browser.type_on(Key::Escape + "").await?;
    browser.until("return document.querySelector('dialog') === null").await?;
    browser.quit().await
}

#[tokio::test]
async fn candidates_are_kept_noted_dropped_and_brought_back() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = on_the_bench_of("Ousel Brae roadster", &program).await?;
    browser.press("k").await?;
    browser.read("[data-message]", "Kept as A").await?;
    browser.press("k").await?;
    browser.read("[data-message]", "kept already, as A").await?;
    browser.press(Key::Left + "").await?;
    browser.read("[data-dimension=offset]", "ET 26").await?;
    browser.press("k").await?;
    browser.read("[data-message]", "Kept as B").await?;
    browser.press("c").await?;
    browser.until("return document.querySelectorAll('thead th[scope=col]').length === 3").await?;
    browser.see("thead input").await?.send_keys("short gearing").await?;
    browser.saved().await?;
    browser.see("[aria-label^='Drop A']").await?.click().await?;
    browser.until("return document.querySelectorAll('thead th[scope=col]').length === 2").await?;
    browser.saved().await?;
    browser.press("z").await?;
    browser.until("return document.querySelector('thead input')?.value === 'short gearing'").await?;
    browser.quit().await
}

#[tokio::test]
async fn steps_that_cannot_be_taken_leave_the_plan_as_it_is() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = on_the_bench_of("Skerrin Pip 1.2 hatch", &program).await?;
    browser.press("/").await?;
    paste(&browser, "17x16 ET149 215/50R17").await?;
    browser.read("[data-dimension=offset]", "ET 149").await?;
    browser.press(Key::Left + "").await?;
    browser.read("[data-dimension=offset]", "ET 150").await?;
    browser.press(Key::Left + "").await?;
    browser.read("[role=alert]", "beyond ±150 mm").await?;
    browser.press(Key::Up + "").await?;
    browser.read("[role=alert]", "outside 3–16 in").await?;
    browser.press(Key::Right + "").await?;
    browser.read("[data-dimension=offset]", "ET 149").await?;
    browser.until("return document.querySelector('main [role=alert]') === null").await?;
    browser.quit().await
}

#[tokio::test]
async fn nonsense_and_markup_are_only_text() -> anyhow::Result<()> {
    let program = Program::empty_shop().await?;
    let browser = Browser::at(&program, "/").await?;
    browser.press("n").await?;
    browser.type_on("<img src=x onerror=alert(1)> \u{202e}hatch" + Key::Tab).await?;
    browser.type_on("9/9/9 <b>").await?;
    browser.read(".setup-new [role=alert]", "is not a piece of a setup").await?;
    browser.type_on(Key::Enter + "").await?;
    browser.read("form [role=alert]", "9/9/9").await?;
    browser.see(".setup-new textarea").await?.clear().await?;
    browser.see(".setup-new textarea").await?.send_keys("18x8.5 ET35" + Key::Enter).await?;
    browser.read("aside", "Type the planned setup").await?;
    let title = browser.see("footer input").await?.prop("value").await?.unwrap();
    assert!(title.starts_with("<img"), "{title}");
    browser.quit().await
}

#[tokio::test]
async fn an_empty_line_names_the_car_first() -> anyhow::Result<()> {
    let program = Program::empty_shop().await?;
    let browser = Browser::at(&program, "/").await?;
    browser.see("form button[type=submit]").await?.click().await?;
    browser.read("form [role=alert]", "Name the car first").await?;
    browser.type_on("Skerry hatch" + Key::Enter).await?;
    browser.read("aside", "Type what is fitted now").await?;
    browser.read("[aria-label='Corner sheet']", "Name a wheel with its offset").await?;
    browser.quit().await
}

#[tokio::test]
async fn stage_drive_and_signature_are_kept() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = on_the_bench_of("Fellmark Drover crossover", &program).await?;
    browser.read("[data-code=front-to-rear]", "drive not known").await?;
    browser.see("footer select option[value=awd]").await?.click().await?;
    browser.read("[data-code=front-to-rear]", "all-wheel drive").await?;
    browser.see("footer input[placeholder=initials]").await?.send_keys("rs").await?;
    browser.see("footer select option[value=rack]").await?.click().await?;
    browser.saved().await?;
    let job = browser.script("return fetch('/api/v1/jobs/2').then((answer) => answer.json())").await?;
    assert_eq!((&job["stage"], &job["drive"]), (&"rack".into(), &"awd".into()));
    let journal =
        browser.script("return fetch('/api/v1/jobs/2/journal').then((answer) => answer.json())").await?;
    assert_eq!(journal[0]["who"], "rs");
    browser.quit().await
}
