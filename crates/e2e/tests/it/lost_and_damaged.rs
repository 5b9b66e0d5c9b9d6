//! What goes wrong on the way: refused readings, lost answers, damaged rows.
use std::net::SocketAddr;
use std::sync::Arc;
use std::sync::atomic::{AtomicBool, Ordering};

use e2e::thirtyfour::prelude::*;
use e2e::{Browser, Program};
use store::{Connection, Store};
use tokio::io::{AsyncReadExt, AsyncWriteExt};
use tokio::net::{TcpListener, TcpStream};

#[tokio::test]
async fn a_refused_reading_holds_back_none_of_the_others() -> anyhow::Result<()> {
    let program = Program::empty_shop().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/")).await?;
    browser.see("h1").await?;
    // A car whose setup nobody has typed.
    browser.press("n").await?;
    browser.type_on("Marn Dotterel" + Key::Enter).await?;
    browser.see("[data-revision='1']").await?;
    // What a tablet kept of an hour without the program, one of them by an instrument that the house took away since.
    browser
        .script(
            "const reading = (id, what, instrument) =>
               ({ id, axle: 'front', side: 'left', what, value: 12, unit: 'mm', instrument });
             return fetch('/api/v1/jobs/1').then((said) => said.json()).then(({ uid, token, number, car_label }) => {
               const tag = { uid, token };
               const queue = [reading('r1', 'strut', 'borrowed_laser'), reading('r2', 'arch', 'steel_rule'),
                 reading('r3', 'fender_lateral', 'steel_rule')].map((one) => ({ ...one, tag }));
               const called = { number, car: car_label };
               localStorage.setItem(`dimensione.readings.${uid}`, JSON.stringify({ called, queue }));
               return null;
             })",
        )
        .await?;
    browser.driver.goto(program.url("/jobs/1/bay")).await?;
    browser.read("[data-refused=r1]", "borrowed_laser").await?;
    browser.until("return document.querySelector('[data-queue]') === null").await?;
    browser.read("[data-reading=arch]", "12 mm").await?;
    browser.driver.refresh().await?;
    browser.read("[data-reading=fender_lateral]", "12 mm").await?;
    browser.read("[data-refused=r1]", "stays here").await?;
    browser.see("[data-reading=strut] button").await?.click().await?;
    browser.until("return document.querySelector('[data-refused]') === null").await?;
    browser.quit().await
}

/// Stands between browser and program; when it is told to, it lets one PUT through and swallows its answer.
async fn lossy(to: SocketAddr, loses: Arc<AtomicBool>) -> anyhow::Result<SocketAddr> {
    let listener = TcpListener::bind("127.0.0.1:0").await?;
    let address = listener.local_addr()?;
    tokio::spawn(async move {
        while let Ok((browser, _)) = listener.accept().await {
            let loses = Arc::clone(&loses);
            tokio::spawn(async move {
                // A connection that breaks is what this is for.
                let _ = pass(browser, to, &loses).await;
            });
        }
    });
    Ok(address)
}

async fn pass(browser: TcpStream, to: SocketAddr, loses: &AtomicBool) -> std::io::Result<()> {
    let program = TcpStream::connect(to).await?;
    let (mut from_browser, mut to_browser) = browser.into_split();
    let (mut from_program, mut to_program) = program.into_split();
    let is_lost = AtomicBool::new(false);
    let there = async {
        let mut bytes = vec![0; 65536];
        loop {
            let count = from_browser.read(&mut bytes).await?;
            if count == 0 {
                return Ok(());
            }
            if bytes.starts_with(b"PUT ") && loses.swap(false, Ordering::SeqCst) {
                is_lost.store(true, Ordering::SeqCst);
            }
            to_program.write_all(&bytes[..count]).await?;
        }
    };
    let back = async {
        let mut bytes = vec![0; 65536];
        loop {
            let count = from_program.read(&mut bytes).await?;
            // The program has answered, so it is applied; nobody hears of it.
            if count == 0 || is_lost.load(Ordering::SeqCst) {
                return Ok(());
            }
            to_browser.write_all(&bytes[..count]).await?;
        }
    };
    tokio::select! {
        done = there => done,
        done = back => done,
    }
}

#[tokio::test]
async fn a_save_whose_answer_was_lost_is_nobody_elses_change() -> anyhow::Result<()> {
    let program = Program::sample_shop().await?;
    let loses = Arc::new(AtomicBool::new(false));
    let to: SocketAddr = program.url("").trim_start_matches("http://").parse()?;
    let between = lossy(to, Arc::clone(&loses)).await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(format!("http://{between}/jobs/4/bench")).await?;
    browser.see("[data-corner=rear]").await?;
    browser.saved().await?;
    let revision = browser.see("[data-revision]").await?.attr("data-revision").await?.unwrap();
    let next = revision.parse::<i64>()? + 1;
    loses.store(true, Ordering::SeqCst);
    browser.press("r").await?;
    browser.press("]").await?;
    // It is told away, asked again under its key, and answered as it went.
    browser.see(&format!("[data-revision='{next}']")).await?;
    browser.saved().await?;
    assert!(!loses.load(Ordering::SeqCst), "an answer was lost on the way");
    browser.until("return !document.body.innerText.includes('changed elsewhere')").await?;
    browser.quit().await
}

#[tokio::test]
async fn a_damaged_job_is_shown_and_put_back() -> anyhow::Result<()> {
    let mut program = Program::sample_shop().await?;
    program.kill().await;
    damage(program.file())?;
    program.run().await?;
    let browser = Browser::start(1280, 800).await?;
    browser.driver.goto(program.url("/")).await?;
    browser.read("[data-damaged='3']", "18x8 ETX").await?;
    assert!(browser.driver.find_all(By::Css("main li")).await?.len() > 5, "the others are there");
    // Opened by its address it says the same.
    browser.driver.goto(program.url("/jobs/3/bench")).await?;
    browser.read("h1", "cannot be opened").await?;
    browser
        .driver
        .query(By::XPath("//button[contains(., 'from its journal')]"))
        .first()
        .await?
        .click()
        .await?;
    browser.see("[data-corner=front]").await?;
    browser.driver.goto(program.url("/")).await?;
    browser.see("main li a").await?;
    browser.until("return document.querySelector('[data-damaged]') === null").await?;
    browser.quit().await
}

fn damage(file: &std::path::Path) -> anyhow::Result<()> {
    drop(Store::open(file)?);
    let connection = Connection::open(file)?;
    connection.execute("UPDATE job SET fitted_front = '18x8 ETX' WHERE id = 3", [])?;
    Ok(())
}
