//! A release carries its page: this looks whether the page that stands in `web/dist` was built from what stands in `web/src`,
//! and stops the build with the command that makes it so. It builds nothing itself, and asks nothing of a debug build, which
//! reads the page as it runs.

use std::path::Path;

#[path = "../../xtask/src/page_sources.rs"]
mod page_sources;

fn main() {
    println!("cargo::rerun-if-changed=build.rs");
    if std::env::var("PROFILE").as_deref() != Ok("release") {
        return;
    }
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let web = root.join("web");
    for watched in ["index.html", "vite.config.ts", "package-lock.json", "src", "public", page_sources::STAMP]
    {
        println!("cargo::rerun-if-changed={}", web.join(watched).display());
    }
    let wanted = page_sources::sources(&web).and_then(|files| page_sources::fingerprint(&files, &web));
    let built = std::fs::read_to_string(web.join(page_sources::STAMP)).unwrap_or_default();
    match wanted {
        Ok(wanted) if wanted == built => {}
        Ok(_) if built.is_empty() => stop("its page is not built"),
        Ok(_) => stop("its page was built from another web/src"),
        Err(error) => stop(&format!("the page's sources cannot be read ({error})")),
    }
}

fn stop(why: &str) {
    println!("cargo::error=A release carries its page, and {why}. Build that first: cargo xtask page");
}
