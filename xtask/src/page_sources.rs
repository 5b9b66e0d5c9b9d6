//! What the page is built from, told by one figure. The program's build script reads this file as well: a release is never
//! made with another page, or with none, in silence.

use std::fs;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::io;
use std::path::{Path, PathBuf};

/// Where the page's build notes what it was built from, below `web/`.
pub(crate) const STAMP: &str = "dist/.built";

/// Every file that the page below `web` is built from, in a fixed order.
///
/// # Errors
/// A folder that cannot be read.
pub(crate) fn sources(web: &Path) -> io::Result<Vec<PathBuf>> {
    let mut files = ["index.html", "vite.config.ts", "package-lock.json"].map(|name| web.join(name)).to_vec();
    walk(&web.join("src"), &mut files)?;
    walk(&web.join("public"), &mut files)?;
    Ok(files)
}

/// One figure for what these files are called and hold, as it is written into a stamp.
///
/// # Errors
/// A file that cannot be read.
pub(crate) fn fingerprint(files: &[PathBuf], root: &Path) -> io::Result<String> {
    let mut hasher = DefaultHasher::new();
    for file in files {
        file.strip_prefix(root).unwrap_or(file).hash(&mut hasher);
        fs::read(file)?.hash(&mut hasher);
    }
    Ok(format!("{:016x}", hasher.finish()))
}

/// Every file below a folder, in a fixed order.
///
/// # Errors
/// A folder that cannot be read.
pub(crate) fn walk(folder: &Path, files: &mut Vec<PathBuf>) -> io::Result<()> {
    let mut entries: Vec<PathBuf> =
        fs::read_dir(folder)?.map(|entry| Ok(entry?.path())).collect::<io::Result<_>>()?;
    entries.sort();
    for entry in entries {
        if entry.is_dir() { walk(&entry, files)? } else { files.push(entry) }
    }
    Ok(())
}
