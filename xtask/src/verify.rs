//! Everything that must hold before a change lands.

use crate::run::{cargo, quiet_step, step};
use crate::{notices, system, web};

pub(crate) fn verify() -> anyhow::Result<()> {
    system::install_browser()?;
    web::install()?;
    quiet_step("format", &mut cargo(&["fmt", "--all", "--check"]))?;
    web::check()?;
    web::build()?;
    step(
        "lints (clippy, warnings are errors)",
        &mut cargo(&["clippy", "--workspace", "--all-targets", "--quiet", "--", "--deny", "warnings"]),
    )?;
    step("building the tests", &mut cargo(&["test", "--workspace", "--no-run", "--quiet"]))?;
    web::types_are_current()?;
    notices::are_current()?;
    step("every test, browser tests included", &mut cargo(&["test", "--workspace", "--quiet"]))?;
    eprintln!("All of it holds.");
    Ok(())
}
