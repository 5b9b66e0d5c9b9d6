//! A full disk: what is kept is read, nothing is acknowledged that is not kept, and all goes on once there is room.

use std::fs::{self, File};
use std::io::Write;
use std::path::{Path, PathBuf};
use std::process::Command;

use reqwest::Method;
use serde_json::json;

use crate::{Outcome, Program};

/// A small disk of its own, in memory; gone when dropped.
struct Disk(PathBuf);

impl Disk {
    /// `None` where nothing may be mounted.
    fn of(folder: &Path, megabytes: usize) -> Option<Self> {
        let at = folder.join("disk");
        fs::create_dir(&at).ok()?;
        let size = format!("size={megabytes}m");
        let mounted =
            Command::new("mount").args(["-t", "tmpfs", "-o", &size, "tmpfs"]).arg(&at).output().ok()?;
        mounted.status.success().then_some(Self(at))
    }

    /// Takes all the room that is left.
    fn fill(&self) -> std::io::Result<()> {
        let mut filler = File::create(self.0.join("filler"))?;
        for size in [64 * 1024, 1024, 1] {
            while filler.write_all(&vec![b'x'; size]).is_ok() {}
        }
        Ok(())
    }

    fn empty(&self) -> std::io::Result<()> {
        fs::remove_file(self.0.join("filler"))
    }
}

impl Drop for Disk {
    fn drop(&mut self) {
        // It goes with the machine otherwise.
        let _ = Command::new("umount").arg("-l").arg(&self.0).output();
    }
}

/// Fills the disk under a shop that is stopped and one that was killed, starts it, and makes room again.
///
/// # Errors
/// When the program cannot be started with room.
pub async fn full(program: &Path) -> anyhow::Result<Outcome> {
    let folder = tempfile::tempdir()?;
    let Some(disk) = Disk::of(folder.path(), 12) else {
        return Ok(Outcome {
            what: "a full disk".to_owned(),
            wanted: "read, 507, and on again",
            found: "not tried: nothing may be mounted here".to_owned(),
            is_held: true,
        });
    };
    let file = disk.0.join("shop.sqlite");
    let temporary = disk.0.display().to_string();
    let new = json!({ "car_label": "one more" });
    let (mut read, mut refused, mut exports, mut on_again, mut kept) = (0, 0, 0, 0, 0);
    let mut jobs = 0;
    const ROUNDS: usize = 6;
    for round in 0..ROUNDS {
        let running = Program::start(program, &file, round == 0).await?;
        running.ask(Method::POST, "/jobs", Some(&new)).await;
        jobs = count(&running).await.max(jobs);
        if round % 2 == 0 {
            running.stop().await.map(|_| ())?
        } else {
            running.kill().await?
        }
        disk.fill()?;
        if let Ok(cramped) =
            Program::start_in(program, &file, &["--listen", "127.0.0.1:0"], Some(&temporary)).await
        {
            read += usize::from(count(&cramped).await == jobs);
            let answered = cramped.ask(Method::POST, "/jobs", Some(&new)).await;
            // To write a log back at the start makes room of its own: what then fits is kept.
            let status = answered.map_or(0, |(status, _)| status);
            refused += usize::from(status == 507 || status == 201);
            jobs += usize::from(status == 201);
            for format in ["csv", "xlsx", "json"] {
                let path = format!("/catalogue/export?kind=wheels&format={format}");
                let status = cramped
                    .client
                    .get(cramped.url(&path))
                    .send()
                    .await
                    .map_or(0, |one| one.status().as_u16());
                exports += usize::from(status == 507);
            }
            disk.empty()?;
            let answered = cramped.ask(Method::POST, "/jobs", Some(&new)).await;
            on_again += usize::from(answered.is_some_and(|(status, _)| status == 201));
            jobs += 1;
            cramped.kill().await?;
        } else {
            disk.empty()?;
        }
        let again = Program::start(program, &file, false).await?;
        kept += usize::from(count(&again).await == jobs);
        again.stop().await?;
    }
    Ok(Outcome {
        what: format!("{ROUNDS} starts on a full disk, of a shop that was stopped and one that was killed"),
        wanted: "read, changes of 507 or kept, exports of 507, on again with room, nothing lost",
        found: format!(
            "{read} read, {refused} changes of 507 or kept, {exports} of {} exports, {on_again} on again, {kept} whole afterwards",
            3 * ROUNDS
        ),
        is_held: [read, refused, on_again, kept] == [ROUNDS; 4] && exports == 3 * ROUNDS,
    })
}

async fn count(running: &Program) -> usize {
    let listed = running.ask(Method::GET, "/jobs?most=500", None).await;
    listed.and_then(|(_, jobs)| jobs.as_array().map(Vec::len)).unwrap_or_default()
}
