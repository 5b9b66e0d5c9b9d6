use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::Stdio;

use anyhow::{Context, bail};
use reqwest::{Client, Method};
use rustix::process::{Pid, Signal, kill_process};
use serde_json::Value;
use tokio::io::{AsyncBufReadExt, BufReader};
use tokio::process::{Child, Command};

/// The program as a process.
#[derive(Debug)]
pub struct Program {
    child: Child,
    /// Where it listens.
    pub address: SocketAddr,
    /// One client for everything that is asked of it.
    pub client: Client,
    /// What it prints after its ready line is thrown away as it comes.
    _drain: tokio::task::JoinHandle<()>,
}

impl Program {
    /// Starts it over a file.
    ///
    /// # Errors
    /// When it does not start.
    pub async fn start(program: &Path, file: &Path, demo: bool) -> anyhow::Result<Self> {
        Self::start_with(program, file, if demo { &["--demo"] } else { &[] }).await
    }

    /// The same with more of its options.
    ///
    /// # Errors
    /// When it does not start.
    pub async fn start_with(program: &Path, file: &Path, more: &[&str]) -> anyhow::Result<Self> {
        Self::start_in(program, file, &[&["--listen", "127.0.0.1:0"], more].concat(), None).await
    }

    /// The same with a folder of its own for what is temporary.
    ///
    /// # Errors
    /// When it does not start.
    pub async fn start_in(
        program: &Path,
        file: &Path,
        options: &[&str],
        temporary: Option<&str>,
    ) -> anyhow::Result<Self> {
        let mut command = Command::new(program);
        command.args(["serve", "--data"]).arg(file).args(options);
        if let Some(temporary) = temporary {
            command.env("TMPDIR", temporary);
        }
        let mut child = command
            .stdin(Stdio::null())
            .stdout(Stdio::piped())
            .stderr(Stdio::null())
            .kill_on_drop(true)
            .spawn()
            .with_context(|| format!("cannot start {}", program.display()))?;
        let mut lines = BufReader::new(child.stdout.take().context("it has no output")?).lines();
        let ready = lines.next_line().await?.unwrap_or_default();
        let Some(address) = ready.strip_prefix("listening on http://") else {
            bail!("it did not start: {ready:?}")
        };
        let address = address.parse()?;
        let drain = tokio::spawn(async move { while let Ok(Some(_)) = lines.next_line().await {} });
        Ok(Self { child, address, client: Client::builder().no_proxy().build()?, _drain: drain })
    }

    /// An address of the API.
    pub fn url(&self, path: &str) -> String {
        format!("http://{}/api/v1{path}", self.address)
    }

    /// Asks; status and body, when there was an answer.
    pub async fn ask(&self, method: Method, path: &str, body: Option<&Value>) -> Option<(u16, Value)> {
        let mut request = self.client.request(method, self.url(path));
        if let Some(body) = body {
            request = request.json(body);
        }
        let response = request.send().await.ok()?;
        let status = response.status().as_u16();
        Some((status, response.json().await.unwrap_or_default()))
    }

    /// Sends a file; its status, when there was an answer.
    pub async fn upload(&self, path: &str, bytes: Vec<u8>) -> Option<u16> {
        let request = self.client.post(self.url(path)).header("content-type", "application/octet-stream");
        let response = request.body(bytes).send().await.ok()?;
        let status = response.status().as_u16();
        // The answer is heard to its end, as a page hears it.
        let _ = response.bytes().await;
        Some(status)
    }

    /// Its process.
    fn pid(&self) -> anyhow::Result<Pid> {
        let id = self.child.id().context("it has ended")?;
        Pid::from_raw(i32::try_from(id)?).context("no process")
    }

    /// Kills it, as a power cut does, and waits until it is gone.
    ///
    /// # Errors
    /// When it cannot be waited for.
    pub async fn kill(mut self) -> anyhow::Result<()> {
        self.child.start_kill()?;
        self.child.wait().await?;
        Ok(())
    }

    /// Asks it to stop, and waits; whether it ended cleanly.
    ///
    /// # Errors
    /// When it cannot be asked or waited for.
    pub async fn stop(mut self) -> anyhow::Result<bool> {
        kill_process(self.pid()?, Signal::TERM)?;
        Ok(self.child.wait().await?.success())
    }

    /// Whether it runs.
    pub fn runs(&mut self) -> bool {
        matches!(self.child.try_wait(), Ok(None))
    }

    /// Memory of it and of its children now, in kilobytes (resident).
    pub fn resident_kb(&self) -> u64 {
        let Some(id) = self.child.id() else { return 0 };
        let mut all = vec![id];
        let children = std::fs::read_to_string(format!("/proc/{id}/task/{id}/children")).unwrap_or_default();
        all.extend(children.split_whitespace().filter_map(|id| id.parse::<u32>().ok()));
        all.into_iter().filter_map(resident_of).sum()
    }

    /// Memory of it alone now, in kilobytes (resident).
    pub fn own_kb(&self) -> u64 {
        self.child.id().and_then(resident_of).unwrap_or_default()
    }

    /// Seconds of a processor that it has used (of clock ticks, 100 a second).
    pub fn processor_seconds(&self) -> f64 {
        let stat = self.child.id().and_then(|id| std::fs::read_to_string(format!("/proc/{id}/stat")).ok());
        let ticks = stat.and_then(|stat| {
            let fields: Vec<u64> =
                stat.rsplit(')').next()?.split_whitespace().filter_map(|one| one.parse().ok()).collect();
            // Behind name and state: utime and stime are the 14th and 15th of all.
            Some(fields.get(10)? + fields.get(11)?)
        });
        ticks.unwrap_or_default() as f64 / 100.0
    }

    /// The most memory it ever had, without its children, in kilobytes.
    pub fn peak_kb(&self) -> u64 {
        self.child.id().and_then(|id| of_status(id, "VmHWM:")).unwrap_or_default()
    }

    /// How many files and connections it has open.
    pub fn descriptors(&self) -> usize {
        let folder = self.child.id().map(|id| PathBuf::from(format!("/proc/{id}/fd")));
        folder.and_then(|folder| std::fs::read_dir(folder).ok()).map_or(0, Iterator::count)
    }
}

fn resident_of(id: u32) -> Option<u64> {
    of_status(id, "VmRSS:")
}

fn of_status(id: u32, name: &str) -> Option<u64> {
    let status = std::fs::read_to_string(format!("/proc/{id}/status")).ok()?;
    let line = status.lines().find_map(|line| line.strip_prefix(name))?;
    line.split_whitespace().next()?.parse().ok()
}
