//! The page as a person uses it, in a real browser.
use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};
use serde_json::json;

const PLAN: &str = "[id^=plan-]";

/// A job opened from the counter by keyboard alone; the browser is on its bench.
async fn open_job(browser: &Browser, program: &Program) -> anyhow::Result<()> {
    browser.driver.goto(program.url("/")).await?;
    browser.see("form[aria-label='New job']").await?;
    browser.press("n").await?;
    browser.type_on("Skerry hatch" + Key::Tab).await?;
    browser.type_on("7.5x17 ET45 225/45R17 94W").await?;
    browser.see(".setup-new [data-kind=service]").await?;
    browser.type_on(Key::Enter + "").await?;
    browser.see("[data-revision='1']").await?;
    Ok(())
}

async fn bench_with_plan(browser: &Browser, program: &Program) -> anyhow::Result<()> {
    open_job(browser, program).await?;
    // The plan is typed straight on: no key, no click, and no digit of it leads to another screen.
    browser.until("return document.activeElement?.closest('.setup-planned') != null").await?;
    browser.type_on("18x8.5 plus 35 with 245/40R18 97Y" + Key::Enter).await?;
    browser.read("[data-dimension=offset]", "ET 35").await?;
    browser.saved().await
}

#[tokio::test]
async fn a_question_in_a_line_is_answered_by_pressing_and_half_a_line_is_no_plan() -> anyhow::Result<()> {
    let program = Program::empty_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/")).await?;
    open_job(&browser, &program).await?;
    browser.read("[data-verdict]", "Nothing planned yet").await?;
    browser.press("/").await?;
    // Five millimetres of what? It is asked, and nothing is guessed nor kept.
    browser.type_on("18x9 +30 255/35R18 5mm").await?;
    browser.read(".setup-planned [role=alert]", "5mm").await?;
    browser.see("[data-revision='1']").await?;
    browser.see(".setup-planned [role=alert] button").await?.click().await?;
    browser.until("return document.querySelector('.setup-planned [role=alert]') === null").await?;
    browser.type_on(Key::Enter + "").await?;
    browser.read("[data-dimension=offset]", "30").await?;
    browser.saved().await?;
    // However long it was typed at: one line is one change, and one step to undo.
    browser.see("[data-revision='2']").await?;
    browser.press("z").await?;
    browser.read("[data-verdict]", "Nothing planned yet").await?;
    browser.quit().await
}

#[tokio::test]
async fn from_a_new_job_to_a_printed_bench() -> anyhow::Result<()> {
    let program = Program::empty_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/")).await?;
    browser.read("main", "No jobs yet").await?;
    bench_with_plan(&browser, &program).await?;

    // What changes, and what must be found on the car: 8.5 ET35 with 245 against 7.5 ET45 with 225.
    browser.read("[data-code=outer-change]", "+20.0").await?;
    browser.read("[data-code=inner-change]", "no closer").await?;
    browser.read("[data-code=speedometer]", "measure the dial").await?;
    browser.read("[data-verdict]", "Measure first").await?;

    // Keys: 1 mm out, half an inch wider, a spacer.
    browser.press(Key::Right + "").await?;
    browser.read("[data-dimension=offset]", "ET 34").await?;
    browser.press(Key::Up + "").await?;
    browser.read("[data-dimension=rim-width]", "9").await?;
    browser.press("]").await?;
    browser.read("[data-dimension=offset]", "1 mm spacer, effective 33").await?;
    browser.saved().await?;

    // The hand on the drawing: 12 mm outboard.
    let wheel = browser.see("[data-corner=rear] [role=slider]").await?;
    browser.driver.action_chain().move_to_element_center(&wheel).click_and_hold().perform().await?;
    for _ in 0..6 {
        browser.driver.action_chain().move_by_offset(3, 0).perform().await?;
    }
    browser.driver.action_chain().release().perform().await?;
    browser
        .until("return document.querySelector('[data-corner=rear] [role=slider]').ariaValueNow !== '34'")
        .await?;
    browser.saved().await?;
    let offset = browser.see("[data-corner=rear] [role=slider]").await?.attr("aria-valuenow").await?.unwrap();
    let offset: i32 = offset.parse()?;
    assert!((10..34).contains(&offset), "dragged out, to ET {offset}");
    browser.read("[data-corner=front] [data-dimension=offset]", &format!("ET {offset}")).await?;
    browser.saved().await?;

    // One drag is one step to undo; then it is there again after a reload.
    browser.press("z").await?;
    browser.read("[data-dimension=offset]", "ET 34").await?;
    browser.saved().await?;
    browser.driver.refresh().await?;
    browser.read("[data-dimension=offset]", "ET 34").await?;
    browser.press_shifted('z').await?;
    browser.read("[data-dimension=offset]", &format!("ET {offset}")).await?;

    // Keep, compare, and one A4 sheet.
    browser.press("k").await?;
    browser.read("[data-message]", "Kept as A").await?;
    browser.press("c").await?;
    browser.read("main table", "Overall diameter").await?;
    browser.read("main table", "square").await?;
    browser.press("p").await?;
    browser.read(".print-sheet", "licensed inspector").await?;
    browser.read(".print-sheet [data-dimension=offset]", &format!("ET {offset}")).await?;
    let pdf =
        browser.cdp("Page.printToPDF", json!({ "preferCSSPageSize": true, "printBackground": true })).await?;
    assert_eq!(pages_of(pdf["data"].as_str().unwrap()), 1, "the sheet is one page");
    browser.quit().await
}

/// Pages in a PDF given as base64, by its page objects.
fn pages_of(base64: &str) -> usize {
    const ALPHABET: &[u8] = b"ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    let (mut bytes, mut held, mut bits) = (Vec::new(), 0u32, 0);
    for figure in base64.bytes().filter_map(|b| ALPHABET.iter().position(|a| *a == b)) {
        held = held << 6 | figure as u32;
        bits += 6;
        if bits >= 8 {
            bits -= 8;
            bytes.push((held >> bits & 0xff) as u8);
        }
    }
    String::from_utf8_lossy(&bytes).matches("/Type /Page\n").count()
}

#[tokio::test]
async fn a_setup_that_cannot_be_read_is_marked_at_the_piece() -> anyhow::Result<()> {
    let program = Program::empty_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    bench_with_plan(&browser, &program).await?;
    browser.read("[data-dimension=section-width]", "245").await?;
    browser.press("/").await?;
    // At once: typed letter by letter, a wheel without its tire would be a plan that can be read.
    browser.paste("hello 18x8.5 ET35 225/145R18").await?;
    browser.read(".setup-planned [data-kind=fault]", "225/145R18").await?;
    browser.read(".setup-planned [role=alert]", "aspect ratio 145 is outside 20–95").await?;
    // The drawing keeps the last plan that could be read; what was typed stays through a reload.
    browser.read("[data-dimension=section-width]", "245").await?;
    if std::env::var(e2e::STORAGE).is_err() {
        // A browser that keeps nothing has nothing of it after a reload.
        browser.driver.refresh().await?;
    }
    browser
        .until("return document.querySelector('[id^=plan-]')?.value === 'hello 18x8.5 ET35 225/145R18'")
        .await?;
    browser.see(PLAN).await?.click().await?;
    browser.type_on(Key::Escape + "").await?;
    browser.until("return document.querySelector('[id^=plan-]').value.startsWith('18x8.5 ET35')").await?;
    browser.quit().await
}

#[tokio::test]
async fn nothing_is_lost_while_the_program_is_away() -> anyhow::Result<()> {
    let mut program = Program::empty_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    bench_with_plan(&browser, &program).await?;
    program.kill().await;
    let wish = browser.see("footer textarea").await?;
    wish.send_keys("flush, no rubbing").await?;
    browser.read("[data-save]", "program away").await?;
    program.run().await?;
    browser.see("[data-save=saved]").await?;
    browser.driver.refresh().await?;
    browser.until("return document.querySelector('footer textarea')?.value === 'flush, no rubbing'").await?;
    browser.quit().await
}

/// Changes the only job's label in the shop's file, as another tablet did before the program went away.
async fn label_elsewhere(program: &Program, label: &str) -> anyhow::Result<()> {
    let (store, label) = (store::Store::open(program.file())?, label.to_owned());
    store
        .write(move |tx| {
            let job = store::jobs::get(tx, 1)?;
            let content = store::jobs::JobContent { car_label: label, ..job.content };
            store::jobs::change(tx, 1, job.revision, &content, "OV", job.updated_at)
        })
        .await?;
    Ok(())
}

#[tokio::test]
async fn one_field_changed_on_two_screens_is_asked_about() -> anyhow::Result<()> {
    let mut program = Program::empty_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    bench_with_plan(&browser, &program).await?;
    program.kill().await;
    browser.see("footer input").await?.send_keys(" II").await?;
    browser.read("[data-save]", "away").await?;
    label_elsewhere(&program, "from the other tablet").await?;
    program.run().await?;
    browser.read("[role=alert]", "changed elsewhere").await?;
    browser.read("[data-save]", "not saved").await?;
    browser.see("[role=alert] button").await?.click().await?;
    browser.until("return document.querySelector('footer input').value === 'from the other tablet'").await?;
    browser.see("[data-save=saved]").await?;
    browser.quit().await
}

/// Every screen: its path, what is seen once it is there, and a key to press then.
const SCREENS: &[(&str, &str, &str)] = &[
    ("/", "main li", ""),
    ("/house", "[aria-label^='gap to strut']", ""),
    ("/jobs/4/car", "[aria-label=Model]", ""),
    ("/jobs/4/bay?axle=rear", "[data-place=knuckle]", ""),
    ("/jobs/4/bay-sheet", "[data-row=knuckle]", ""),
    ("/jobs/6/bench", "[data-dimension=offset]", "w"),
    ("/jobs/4/bench?beside=window", "[data-window=rear] [data-mark]", ""),
    ("/jobs/6/bench?beside=measure", "[data-measure]", ""),
    ("/jobs/4/rack", "[data-setup]", ""),
    ("/jobs/2/motion", "[data-motion-part]", ""),
    ("/jobs/2/motion?below=lift", "tr[data-tire]", ""),
    ("/jobs/7/rack?view=ladder", "[data-rung]", ""),
    ("/jobs/4/rack?view=lists", "[data-list]", ""),
    ("/jobs/8/brakes", "[data-brake-verdict]", ""),
    ("/jobs/2/road", "[data-gear-chart]", ""),
    ("/jobs/3/road?part=track", "[data-track-case]", ""),
    ("/jobs/3/road?part=class", "[data-classed]", ""),
    ("/jobs/3/road?part=tread", "[data-tire]", ""),
    ("/jobs/1/trial", "[data-conclusion=rear] [data-kind]", ""),
    ("/jobs/1/trial-sheet", "[data-sheet=trial] td", ""),
    ("/jobs/4/trial?view=proven", "[data-proven]", ""),
    ("/jobs/6/compare", "thead th", ""),
    ("/jobs/6/sheet", ".print-sheet [data-code], .print-sheet [data-dimension=offset]", ""),
    ("/jobs/99/bench", "h1", ""),
    ("/nowhere", "h1", ""),
];

#[tokio::test]
async fn axe_finds_nothing() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    for theme in ["layout-light", "layout-dark"] {
        for (path, seen, key) in SCREENS {
            browser.driver.goto(program.url(path)).await?;
            browser.see(seen).await?;
            browser
                .script(&format!("document.documentElement.dataset.theme = '{theme}'; return null"))
                .await?;
            if !key.is_empty() {
                browser.press(*key).await?;
            }
            browser.at_rest().await?;
            let mut found = browser.axe().await?;
            found.extend(browser.faint_figures().await?);
            assert!(found.is_empty(), "{theme} {path}:\n{}", found.join("\n"));
        }
    }
    browser.quit().await
}

#[tokio::test]
async fn it_works_on_a_tablet_without_sideways_scrolling() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::start(820, 1180).await?;
    for (path, seen, _) in SCREENS.iter().filter(|screen| !screen.0.ends_with("sheet")) {
        browser.driver.goto(program.url(path)).await?;
        browser.see(seen).await?;
        browser.at_rest().await?;
        let over = browser
            .script("return document.documentElement.scrollWidth - document.documentElement.clientWidth")
            .await?;
        assert_eq!(over.as_i64(), Some(0), "{path} is wider than the tablet");
    }
    browser.quit().await
}
