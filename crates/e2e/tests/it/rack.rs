//! The rack: from a price list to a kept candidate.
use std::io::Write;
use std::time::Duration;

use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};
use standins::supplier::{Settings, Supplier};
use tokio::net::TcpListener;

#[tokio::test]
async fn from_a_price_list_to_a_kept_candidate() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/rack?view=lists").await?;
    // A list with foreign headings and one row at fault.
    let mut list = tempfile::Builder::new().suffix(".csv").tempfile()?;
    writeln!(list, "Nr;Name;Felge;LK;Bohrung;Preis;Stock")?;
    writeln!(list, "1;Heron;19x8.5 ET33;5x120;72.6;99,00;8")?;
    writeln!(list, "2;Heron;19x9.5 ET52;5x120;72.6;109,00;8")?;
    writeln!(list, "3;Heron;19x9,5,5;5x120;72.6;109,00;8")?;
    list.flush()?;
    browser.see("[aria-label=Supplier]").await?.send_keys("Moor").await?;
    browser.see("[aria-label='Price list file']").await?.send_keys(list.path().to_string_lossy()).await?;
    // Sizes are found by what they are; the other columns are said by hand.
    browser.read("[data-tried]", "2 new, 0 changed, 0 unchanged, 1 at fault").await?;
    browser.driver.query(By::XPath("//summary[.='which column means what']")).first().await?.click().await?;
    for (field, heading) in [("center bore, mm", "Bohrung"), ("price", "Preis")] {
        let select =
            browser.driver.query(By::XPath(format!("//label[span[.='{field}']]/select"))).first().await?;
        select.send_keys(heading).await?;
        browser
            .until(&format!(
                "return [...document.querySelectorAll('[data-tried] label')].some((label) =>
                   label.firstChild.textContent === '{field}' && label.lastChild.value === '{heading}')"
            ))
            .await?;
    }
    browser.read("[data-tried]", "2 new, 0 changed, 0 unchanged, 1 at fault").await?;
    browser.read("[data-tried]", "row 4").await?;
    browser.driver.query(By::XPath("//button[starts-with(., 'Take 2')]")).first().await?.click().await?;
    browser.read("[data-says]", "Taken: 2 new").await?;
    browser.see("[aria-label='Find in the catalogue']").await?.send_keys("heron").await?;
    browser.see("[data-total='2']").await?;

    // The finder takes them up: they alone keep a small budget.
    browser.driver.goto(program.url("/jobs/4/rack")).await?;
    browser.see("[data-setup='1']").await?;
    browser.see("[aria-label='Smallest rim, in']").await?.clear().await?;
    browser.see("[aria-label='Smallest rim, in']").await?.send_keys("19").await?;
    browser.see("[aria-label='Budget of the set']").await?.send_keys("1700").await?;
    browser.driver.query(By::XPath("//button[.='Find']")).first().await?.click().await?;
    browser.read("[data-setup='1']", "Heron").await?;
    browser
        .driver
        .query(By::XPath("//li[@data-setup='1']//button[.='To the bench']"))
        .first()
        .await?
        .click()
        .await?;
    browser.read("[data-corner=front] [data-dimension=offset]", "ET 33").await?;
    browser.saved().await?;
    browser.press("k").await?;
    browser.read("[data-message]", "Kept as B").await?;

    // Undone, the list's rows are gone.
    browser.driver.goto(program.url("/jobs/4/rack?view=lists")).await?;
    browser.see("[data-list='3'] button").await?.click().await?;
    browser.read("[data-says]", "2 rows went back").await?;
    browser.quit().await
}

#[tokio::test]
async fn nothing_fits_and_what_stands_in_the_way_is_said() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let browser = Browser::at(&program, "/jobs/4/rack").await?;
    browser.see("[data-setup='1']").await?;
    browser.see("[aria-label='Budget of the set']").await?.send_keys("100").await?;
    browser.driver.query(By::XPath("//button[.='Find']")).first().await?.click().await?;
    browser.read("[data-obstruction=budget]", "What stands most in the way is the budget").await?;
    // The ladder stands round the fitted tire and marks what is chosen.
    browser.driver.goto(program.url("/jobs/7/rack?view=ladder")).await?;
    browser.see("[data-rung='205/55R16'] button").await?.click().await?;
    browser.read("[data-uprights]", "205/55R16").await?;
    browser.read("[data-uprights]", "under the arch").await?;
    browser.see("[data-load-need]").await?;
    browser.quit().await
}

#[tokio::test]
async fn the_supplier_says_when_it_can_be_here_and_the_page_works_without_it() -> anyhow::Result<()> {
    let listener = TcpListener::bind("127.0.0.1:0").await?;
    let address = listener.local_addr()?;
    let supplier = Supplier::run(listener, Settings { delay: Duration::ZERO, ..Settings::default() });
    let program = Program::sample_shop().await?.with_supplier(address).await?;
    let browser = Browser::at(&program, "/jobs/4/rack").await?;
    browser.read("[data-setup='1'] [data-lead]", "asked just now").await?;
    // What stickier tires bring is gone through, and is still ticked after a reload.
    browser.driver.query(By::XPath("//label[contains(., 'daily')]/input")).first().await?.click().await?;
    browser
        .driver
        .query(By::XPath("//label[contains(., 'regular track')]/input"))
        .first()
        .await?
        .click()
        .await?;
    browser.driver.query(By::XPath("//button[.='Find']")).first().await?.click().await?;
    browser.driver.query(By::XPath("//label[contains(., 'Oil surge')]/input")).first().await?.click().await?;
    browser.see("[data-questions='7']").await?;
    browser.saved().await?;
    let (_, job) = (0, browser.script("return fetch('/api/v1/jobs/4').then((a) => a.json())").await?);
    assert_eq!(job["answered"], serde_json::json!(["oil"]));

    // Another setup is asked for while the supplier is away: the list's price stands, and what was heard is gone.
    supplier.set(|settings| settings.fail_share = 1.0);
    browser.driver.goto(program.url("/jobs/7/rack")).await?;
    browser.read("[data-supplier=away]", "status 503").await?;
    browser.see("[data-setup='1'] [data-price]").await?;
    browser.quit().await
}
