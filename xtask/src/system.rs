//! What the machine must have: Node for the page, Chromium and ChromeDriver for the browser tests, poppler-utils to look
//! at printed templates.

use std::process::Command;

use anyhow::bail;

use crate::run::quiet_step;

fn is_there(program: &str) -> bool {
    Command::new(program).arg("--version").output().is_ok_and(|output| output.status.success())
}

/// Installs Debian's Chromium, ChromeDriver and poppler-utils when one is missing.
pub(crate) fn install_browser() -> anyhow::Result<()> {
    // It tells its version by another option, and not by its exit.
    let has_poppler = Command::new("pdftoppm").arg("-v").output().is_ok();
    if is_there("chromium") && is_there("chromedriver") && has_poppler {
        return Ok(());
    }
    install(&["chromium", "chromium-driver", "poppler-utils"])
}

/// Installs Debian's packages.
fn install(packages: &[&str]) -> anyhow::Result<()> {
    let names = packages.join(", ");
    if !is_there("apt-get") {
        bail!("{names} are needed, and there is no apt-get to install them with");
    }
    quiet_step("refreshing the package list", &mut apt(&["update", "-qq"]))?;
    let arguments = [&["install", "-y", "-qq"], packages].concat();
    quiet_step(&format!("installing {names} (a few minutes)"), &mut apt(&arguments))
}

fn apt(arguments: &[&str]) -> Command {
    let mut command = if rustix::process::geteuid().is_root() {
        let mut command = Command::new("apt-get");
        command.args(arguments);
        command
    } else {
        let mut command = Command::new("sudo");
        command.args(["--preserve-env=DEBIAN_FRONTEND", "apt-get"]).args(arguments);
        command
    };
    command.env("DEBIAN_FRONTEND", "noninteractive");
    command
}

/// Installs the tracer by which a start is stopped at each of its writes, when it is missing.
pub(crate) fn need_strace() -> anyhow::Result<()> {
    if is_there("strace") { Ok(()) } else { install(&["strace"]) }
}

/// Installs what a Python environment is made with, when it is missing.
pub(crate) fn need_python() -> anyhow::Result<()> {
    let can_make_one = Command::new("python3")
        .args(["-c", "import ensurepip, venv"])
        .output()
        .is_ok_and(|out| out.status.success());
    if can_make_one {
        return Ok(());
    }
    install(&["python3-venv"])
}

/// Says what is missing before npm fails over it.
pub(crate) fn need_node() -> anyhow::Result<()> {
    if is_there("node") && is_there("npm") {
        Ok(())
    } else {
        bail!("Node 20 or newer with npm is needed to build the page")
    }
}
