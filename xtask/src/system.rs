//! What the machine must have: Node for the page, Chromium and ChromeDriver for the browser tests.

use std::process::Command;

use anyhow::bail;

use crate::run::quiet_step;

fn is_there(program: &str) -> bool {
    Command::new(program).arg("--version").output().is_ok_and(|output| output.status.success())
}

/// Installs Debian's Chromium and ChromeDriver when one is missing.
pub(crate) fn install_browser() -> anyhow::Result<()> {
    if is_there("chromium") && is_there("chromedriver") {
        return Ok(());
    }
    if !is_there("apt-get") {
        bail!("chromium and chromedriver are missing, and there is no apt-get to install them with");
    }
    quiet_step(
        "refreshing the package list",
        apt(&["update", "-qq"]).env("DEBIAN_FRONTEND", "noninteractive"),
    )?;
    quiet_step(
        "installing chromium and chromium-driver (a few minutes)",
        apt(&["install", "-y", "-qq", "chromium", "chromium-driver"])
            .env("DEBIAN_FRONTEND", "noninteractive"),
    )
}

fn apt(arguments: &[&str]) -> Command {
    if rustix::process::geteuid().is_root() {
        let mut command = Command::new("apt-get");
        command.args(arguments);
        command
    } else {
        let mut command = Command::new("sudo");
        command.args(["--preserve-env=DEBIAN_FRONTEND", "apt-get"]).args(arguments);
        command
    }
}

/// Says what is missing before npm fails over it.
pub(crate) fn need_node() -> anyhow::Result<()> {
    if is_there("node") && is_there("npm") {
        Ok(())
    } else {
        bail!("Node 20 or newer with npm is needed to build the page")
    }
}
