//! Whole pieces of the trade's work, done as a new user does them: size questions of a truck, a day of trial fits, a show car's
//! looks, and a price list as wholesalers send it.
use std::io::Write;

use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};

async fn press_button(browser: &Browser, text: &str) -> anyhow::Result<()> {
    let path = By::XPath(format!("//main//button[normalize-space(.)=\"{text}\"]"));
    browser.driver.query(path).first().await?.click().await?;
    Ok(())
}

/// A field of the trial's form, by the name over it.
async fn pick(browser: &Browser, field: &str, choice: &str) -> anyhow::Result<()> {
    let path = By::XPath(format!("//label[span[.='{field}']]/select"));
    browser.driver.query(path).first().await?.send_keys(choice).await?;
    Ok(())
}

async fn tab(browser: &Browser, code: &str) -> anyhow::Result<()> {
    browser.see(&format!("[data-tab={code}]")).await?.click().await?;
    browser.see(&format!("[data-tab={code}][aria-selected=true]")).await?;
    Ok(())
}

#[tokio::test]
async fn a_trucks_height_questions() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/2/rack").await?;
    tab(&browser, "ladder").await?;
    // Whoever comes to the field means another size: what is typed takes the place of what stands there.
    browser.see("[aria-label='Tire the ladder stands round']").await?.click().await?;
    browser.type_on("33").await?;
    // 33 in are 838.2 mm, by definition; 285/70R17 comes to 830.8 by everyday arithmetic.
    browser.read("[data-rung='33x12.50R17LT']", "838.2 mm").await?;
    browser.read("[data-rung='285/70R17']", "830.8 mm").await?;
    browser.read("[data-rung='285/70R17']", "617").await?;
    browser.see("[aria-label='Only this rim']").await?.send_keys("18 in").await?;
    browser.until("return !document.querySelector(\"[data-rung='285/70R17']\")").await?;
    browser.see("[data-rung='275/70R18']").await?;

    // How tall it goes on at each height of lift: only sizes that are made, and what no lift helps is said.
    browser.driver.goto(program.url("/jobs/2/motion")).await?;
    let lift = browser.driver.query(By::XPath("//*[@role='tab'][contains(., 'Taller')]")).first().await?;
    lift.click().await?;
    browser.see("[data-lift-ladder] [data-lift='150']").await?;
    browser.read("[data-lift-ladder]", "no lift helps").await?;
    browser.read("[data-lift-ladder]", "commonly made").await?;
    let tires = "return [...document.querySelectorAll('[data-lift-ladder] [data-tire]')].map((row) => row.dataset.tire)";
    let tires = browser.script(tires).await?;
    let tires: Vec<&str> = tires.as_array().unwrap().iter().map(|tire| tire.as_str().unwrap()).collect();
    assert!(tires.len() >= 5, "{tires:?}");
    assert!(tires.contains(&"LT245/70R17"), "the planned one stays: {tires:?}");
    assert!(tires.iter().all(|size| size.ends_with("R17")), "on the planned wheel: {tires:?}");
    browser.quit().await
}

#[tokio::test]
async fn a_day_of_trial_fits_with_three_wheels() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/6/trial").await?;
    browser.see("[data-conclusion=front]").await?;
    // Nothing said is refused where it is pressed.
    press_button(&browser, "Keep this trial").await?;
    browser.read("[role=alert]", "Say what was tried").await?;
    // The first goes on and meets nothing.
    press_button(&browser, "A").await?;
    press_button(&browser, "Keep this trial").await?;
    browser.read("[data-trial]", "nothing").await?;
    browser.read("[data-conclusion=front]", "went on without touching").await?;
    // The second meets the lip at full lock, by four millimetres.
    press_button(&browser, "the bench's").await?;
    pick(&browser, "What it met", "tire or rim on fender lip").await?;
    pick(&browser, "Wheels", "at right lock").await?;
    pick(&browser, "Car", "on the ground").await?;
    browser.see("[aria-label='How much, mm']").await?.send_keys("-4").await?;
    press_button(&browser, "Keep this trial").await?;
    browser.read("main", "4.0 mm overlap").await?;
    browser.read("main", "at right lock").await?;
    // What was met at lock says nothing against the reading that was taken straight, and all against this wheel.
    browser.read("[data-conclusion=front] [data-judged=bench]", "touches").await?;
    browser.until("return !document.querySelector('main').innerText.includes('contradict')").await?;
    // The third does not go over the caliper: every smaller rim is out with it.
    let tried = browser.see("[placeholder='17x8 ET40']").await?;
    tried.clear().await?;
    tried.send_keys("17x8 ET45 5x112").await?;
    pick(&browser, "What it met", "barrel on caliper").await?;
    pick(&browser, "Wheels", "straight").await?;
    browser.see("[aria-label='How much, mm']").await?.send_keys("-3").await?;
    press_button(&browser, "Keep this trial").await?;
    browser.read("[data-conclusion=front]", "does not go over").await?;
    browser.read("[data-conclusion=front]", "Every rim smaller than 17.0 in is out").await?;
    browser.saved().await?;
    // The bench says the same words.
    browser.driver.goto(program.url("/jobs/6/bench")).await?;
    browser.read("[data-code=clear-fender_lateral][data-axle=front]", "touches").await?;
    // And the day is on paper, with where the wheels stood.
    browser.driver.goto(program.url("/jobs/6/trial-sheet")).await?;
    for words in ["18x8.5 ET40", "18x8.5 ET38", "17x8 ET45", "at right lock", "3.0 mm overlap"] {
        browser.read("[data-sheet=trial]", words).await?;
    }
    browser.quit().await
}

#[tokio::test]
async fn a_show_car_in_its_looks() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/5/bench?beside=window").await?;
    browser.see("details[data-looks=rear] summary").await?.click().await?;
    for look in ["tucked", "flush", "poke", "stance"] {
        browser.read("details[data-looks=rear]", look).await?;
    }
    // Poke is not held back by the lip itself; nobody read the arch, so it is no "clears" either.
    browser.read("details[data-looks=rear] tbody tr:nth-child(3)", "poke").await?;
    let poke = browser.read("details[data-looks=rear] tbody tr:nth-child(3)", "measure first").await?;
    assert!(!poke.contains("clears"), "{poke}");
    // Wanted so, the ledger asks for what decides: the gap under the arch.
    let wanted = By::XPath("(//aside//select[option[.='poke']])[2]");
    browser.driver.query(wanted).first().await?.send_keys("poke").await?;
    browser.saved().await?;
    tab(&browser, "ledger").await?;
    browser.read("[data-code=clear-fender_lateral][data-axle=rear]", "measure first").await?;
    browser.read("[data-code=clear-fender_lateral][data-axle=rear]", "at full bump").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_wholesalers_list_with_titles_pounds_and_mixed_commas() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/6/rack?view=lists").await?;
    let mut list = tempfile::Builder::new().suffix(".csv").tempfile()?;
    writeln!(list, "\"Nordlake Wholesale\";;;;;;;;;")?;
    writeln!(list, "\"Autumn list, all prices net\";;;;;;;;;")?;
    writeln!(list, ";;;;;;;;;")?;
    writeln!(list, "Art;Design;Size;ET;LK;Bore;Max load (lbs);Finish;Price;Avail")?;
    writeln!(list, "N101;Ferro;18x8.5;38;5x112;57.1;1521;graphite;1,234;12")?;
    writeln!(list, "N102;Ferro;18x8.5;45;5x112;57.1;1521 lbs;graphite;POA;8")?;
    writeln!(list, "N103;Ferro;17x7.5;45;5x112;57.1;1499;graphite;189,50;n. a.")?;
    list.flush()?;
    browser.see("[aria-label=Supplier]").await?.send_keys("Nordlake").await?;
    browser.see("[aria-label='Price list file']").await?.send_keys(list.path().to_string_lossy()).await?;
    browser.read("[data-tried]", "3 new, 0 changed, 0 unchanged, 0 at fault").await?;
    browser.read("[data-tried]", "The heading is in row 4").await?;
    // 1521 lb are 689.9 kg (1 lb = 0.45359237 kg, 1959).
    browser.read("[data-tried]", "689.9").await?;
    // A comma before three figures, beside prices with a decimal comma: asked once, and left out until then.
    browser.read("[data-tried]", "What does \"1,234\" mean?").await?;
    let thousands = By::XPath("//*[@data-tried]//button[starts-with(normalize-space(.), '1234 ')]");
    browser.driver.query(thousands).first().await?.click().await?;
    browser.read("[data-tried]", "1234").await?;
    browser.until("return !document.querySelector('[data-tried]').innerText.includes('What does')").await?;
    browser.driver.query(By::XPath("//button[starts-with(., 'Take 3')]")).first().await?.click().await?;
    browser.read("[data-says]", "Taken: 3 new").await?;
    browser.see("[aria-label='Find in the catalogue']").await?.send_keys("ferro").await?;
    browser.see("[data-total='3']").await?;
    // On to a kept candidate, with the list's words in the column.
    tab(&browser, "finder").await?;
    browser.see("[data-setup='1']").await?;
    press_button(&browser, "Find").await?;
    browser.see("[data-setup='1']").await?;
    let first = By::XPath("//li[@data-setup='1']//button[.='To the bench']");
    browser.driver.query(first).first().await?.click().await?;
    browser.see("[data-corner=front]").await?;
    browser.saved().await?;
    browser.press("k").await?;
    browser.read("[data-message]", "Kept as C").await?;
    browser.press("c").await?;
    browser.read("main", "Wheel from").await?;
    browser.read("main", "listed").await?;
    browser.quit().await
}

#[tokio::test]
async fn used_wheels_seen_elsewhere_to_a_verdict_and_a_list_of_parts() -> anyhow::Result<()> {
    // The trade's well-known example: 18x7.5 ET32 fitted, 18x8.5 ET30 seen, ball seats on the car, bore 57.1 against 66.6.
    let program = Program::empty_shop().await?;
    let browser = Browser::at(&program, "/").await?;
    browser.press("n").await?;
    browser.type_on("Skerry hatch" + Key::Tab).await?;
    browser.type_on("18x7.5 ET32 5x112 CB57.1 225/40R18 92Y XL" + Key::Enter).await?;
    browser.read("aside", "Type the planned setup").await?;
    browser.until("return document.activeElement?.closest('.setup-planned') != null").await?;
    browser.type_on("18x8.5 ET30 5x112 CB66.6 235/40R18 95Y XL ball seats" + Key::Enter).await?;
    browser.saved().await?;
    // A plan's line names no seat: the words do not vanish without one.
    browser.read("[data-dropped]", "ball seats").await?;
    // Rim to rim 10.7 mm further in and 14.7 further out (common practice), and nobody measured the car: no good word.
    browser.see("[data-code=outer-change][data-axle=front] button").await?.click().await?;
    browser.read("[data-code=outer-change][data-axle=front]", "14.7").await?;
    browser.see("[data-code=inner-change][data-axle=front] button").await?.click().await?;
    browser.read("[data-code=inner-change][data-axle=front]", "10.7").await?;
    browser.read("[data-code=inner-change][data-axle=front]", "measure first").await?;
    browser.read("[data-code=outer-change][data-axle=front]", "measure first").await?;
    // What the hub measures is the car's, not the fitted wheel's: 66.6 over 57.1 asks for rings once somebody has read it.
    browser.read("[data-code=hub][data-axle=front]", "not known").await?;
    browser.see("[data-code=hub][data-axle=front] button").await?.click().await?;
    browser.see("[data-lacks=hub] a[href$='#fact-hub_bore_mm-front']").await?.click().await?;
    browser
        .until("return document.activeElement?.getAttribute('aria-label') === 'Hub diameter, front'")
        .await?;
    for (fact, read) in [
        ("Hub diameter, front", "57.1"),
        ("Hub diameter, rear", "57.1"),
        ("Bolt circle", "5x112"),
        ("Thread", "M14x1.5"),
        ("Seat", "ball R13"),
    ] {
        let field = browser.see(&format!("[aria-label='{fact}']")).await?;
        field.send_keys(read).await?;
    }
    browser.saved().await?;
    browser.see("a[href$='/bench']").await?.click().await?;
    browser.read("[data-code=hub][data-axle=front]", "needs parts").await?;
    browser.see("[data-code=hub][data-axle=front] button").await?.click().await?;
    browser.read("[data-code=hub][data-axle=front]", "hub-centric rings").await?;
    // And the list of parts for the order says it.
    browser.driver.goto(program.url("/jobs/1/sheet")).await?;
    browser.read("main", "hub-centric rings").await?;
    browser.quit().await
}
