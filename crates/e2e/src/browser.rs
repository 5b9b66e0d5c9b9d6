use std::process::Stdio;

use anyhow::{Context, bail};
use rustix::process::{Pid, Signal, kill_process_group};
use serde_json::{Value, json};
use tempfile::TempDir;
use thirtyfour::{ChromiumLikeCapabilities, DesiredCapabilities, WebDriver};
use tokio::io::{AsyncBufReadExt, BufReader};
use tokio::process::{Child, Command};

use crate::Program;

/// A browser of one's own.
#[derive(Debug)]
pub struct Browser {
    /// The session.
    pub driver: WebDriver,
    chromedriver: Child,
    // Held so that the profile goes with the browser.
    _profile: TempDir,
}

/// By this the journeys are walked in a browser that keeps nothing: `blocked` (site data are refused) or `full`.
pub const STORAGE: &str = "E2E_STORAGE";

/// What makes a page's storage so, before anything of the page runs.
pub fn storage_that_is(how: &str) -> Option<String> {
    let script = match how {
        "blocked" => {
            "for (const name of ['localStorage', 'sessionStorage'])
               Object.defineProperty(window, name, { get() { throw new DOMException('blocked', 'SecurityError'); } });"
        }
        "full" => {
            "Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError'); };"
        }
        _ => return None,
    };
    Some(script.to_owned())
}

const FLAGS: [&str; 13] = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--remote-debugging-pipe",
    "--force-color-profile=srgb",
    // A page nobody looks at is slowed down otherwise.
    "--disable-renderer-backgrounding",
    "--disable-backgrounding-occluded-windows",
    "--disable-background-timer-throttling",
];

impl Browser {
    /// A browser of the usual size with a page of the program, once it has its heading.
    ///
    /// # Errors
    /// As [`Browser::start`], and when the page does not come.
    pub async fn at(program: &Program, path: &str) -> anyhow::Result<Self> {
        let browser = Self::start(1280, 800).await?;
        browser.driver.goto(program.url(path)).await?;
        browser.see("h1").await?;
        Ok(browser)
    }

    /// Starts ChromeDriver and a headless Chromium with a page of exactly this size.
    ///
    /// # Errors
    /// When one of them is not installed or does not come up.
    pub async fn start(width: u32, height: u32) -> anyhow::Result<Self> {
        let profile = tempfile::Builder::new().prefix("dimensione-e2e-").tempdir()?;
        let (chromedriver, port) = chromedriver().await?;
        let mut capabilities = DesiredCapabilities::chrome();
        for flag in FLAGS {
            capabilities.add_arg(flag)?;
        }
        capabilities.add_arg(&format!("--user-data-dir={}", profile.path().display()))?;
        let driver = WebDriver::new(format!("http://127.0.0.1:{port}"), capabilities).await?;
        let browser = Self { driver, chromedriver, _profile: profile };
        browser.resize(width, height).await?;
        if let Some(script) = std::env::var(STORAGE).ok().and_then(|how| storage_that_is(&how)) {
            browser.cdp("Page.addScriptToEvaluateOnNewDocument", json!({ "source": script })).await?;
        }
        Ok(browser)
    }

    /// Makes the page exactly this size; the window's own frame does not count.
    ///
    /// # Errors
    /// When the browser refuses.
    pub async fn resize(&self, width: u32, height: u32) -> anyhow::Result<()> {
        let metrics = json!({ "width": width, "height": height, "deviceScaleFactor": 1, "mobile": false });
        self.cdp("Emulation.setDeviceMetricsOverride", metrics).await?;
        Ok(())
    }

    /// Sends a DevTools command.
    ///
    /// # Errors
    /// When the browser refuses.
    pub async fn cdp(&self, command: &str, parameters: Value) -> anyhow::Result<Value> {
        Ok(self.driver.cdp().send_raw(command, parameters).await?)
    }

    /// Ends the session; dropping without it leaves ending to the process group.
    ///
    /// # Errors
    /// When the browser does not answer.
    pub async fn quit(self) -> anyhow::Result<()> {
        self.driver.clone().quit().await?;
        Ok(())
    }
}

impl Drop for Browser {
    fn drop(&mut self) {
        // A session dropped without quitting would wait here for an answer that cannot come. When it has
        // quit already there is nothing to let go of.
        let _ = self.driver.clone().leak();
        if let Some(group) = self.chromedriver.id().and_then(|id| Pid::from_raw(id.cast_signed())) {
            // Nothing to do when it is gone already.
            let _ = kill_process_group(group, Signal::KILL);
        }
    }
}

/// Starts of ChromeDriver before it is given up.
const STARTS: usize = 5;

/// A running ChromeDriver and its port. It takes a free port for one address family and the same number for the other,
/// which somebody else may have taken meanwhile: then it ends, and another is started.
async fn chromedriver() -> anyhow::Result<(Child, u16)> {
    for _ in 0..STARTS {
        // A group of its own: the browser's many processes are ended together.
        let mut child = Command::new("chromedriver")
            .arg("--port=0")
            .process_group(0)
            .kill_on_drop(true)
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .spawn()
            .context("chromedriver does not start: cargo verify installs it")?;
        if let Some(port) = port_of(&mut child).await? {
            return Ok((child, port));
        }
    }
    bail!("chromedriver ended {STARTS} times without naming its port")
}

/// The port that it names; `None` when it ended without.
async fn port_of(chromedriver: &mut Child) -> anyhow::Result<Option<u16>> {
    let stdout = chromedriver.stdout.take().context("chromedriver has no output")?;
    let mut lines = BufReader::new(stdout).lines();
    while let Some(line) = lines.next_line().await? {
        // "ChromeDriver was started successfully on port 40123."
        if let Some(port) = line
            .split("successfully on port ")
            .nth(1)
            .and_then(|rest| rest.trim_end_matches('.').parse().ok())
        {
            // Its output is read on, else it stands still once the pipe is full.
            tokio::spawn(async move { while let Ok(Some(_)) = lines.next_line().await {} });
            return Ok(Some(port));
        }
    }
    Ok(None)
}
