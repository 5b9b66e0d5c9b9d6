//! The log beside the file (SQLite's WAL) when the program starts: whether it belongs to the file, and is whole.
//!
//! After a kill the log holds the latest changes, and SQLite takes them over by itself. It does so as well when somebody
//! has put a backup in the place of the file and left the log: the backup is then undone, or torn. SQLite cannot tell;
//! so the first change of each log also names the state of the file that it goes on from ([`begin_log`]), and before a
//! log is taken over the file alone is asked which state it is in ([`look_at`]).

use std::ffi::OsString;
use std::fs;
use std::path::{Path, PathBuf};

use rusqlite::{Connection, OpenFlags};

use crate::StoreError;
use crate::identity::new_token;

/// The log of a file.
pub(crate) fn log_of(path: &Path) -> PathBuf {
    beside(path, "-wal")
}

/// A name that begins with the file's.
pub(crate) fn beside(path: &Path, ending: &str) -> PathBuf {
    let mut name = OsString::from(path);
    name.push(ending);
    name.into()
}

/// Looks at a log that an earlier run left beside the file; what was noticed, in a sentence.
///
/// # Errors
/// [`StoreError::ForeignLog`] when the log goes on from another state of the file than this one.
pub(crate) fn look_at(path: &Path) -> Result<Option<String>, StoreError> {
    let log = log_of(path);
    let bytes = match fs::read(&log) {
        Ok(bytes) if !bytes.is_empty() => bytes,
        _ => return Ok(None),
    };
    let name = log.display().to_string();
    if goes_on_from_another_state(path, &bytes) {
        return Err(StoreError::ForeignLog { path: path.display().to_string(), log: name });
    }
    match whole_frames(&bytes) {
        Some(Frames { lost: 0, .. }) => Ok(Some(format!(
            "the last run did not stop cleanly: its latest changes were taken over from {name}"
        ))),
        frames => {
            let aside = beside(path, "-wal.damaged");
            let kept = fs::copy(&log, &aside).is_ok();
            let lost = frames.map_or(0, |frames| frames.lost);
            let copy = if kept { format!("; a copy is kept as {}", aside.display()) } else { String::new() };
            Ok(Some(format!(
                "{name} is damaged: {lost} of its pages could not be taken over, so the latest changes may be \
                 missing{copy}"
            )))
        }
    }
}

/// Whether a log goes on from another state of the file than the one it stands beside.
fn goes_on_from_another_state(path: &Path, log: &[u8]) -> bool {
    // The file without its log, and with it.
    let alone = marks(&format!("file:{}?immutable=1", escaped(path)));
    let together = marks(&format!("file:{}", escaped(path)));
    let Some(((mark, _), (now, earlier))) = alone.zip(together) else { return false };
    // Older programs could write two marks into one log: the state that the first goes on from stands in it as well.
    let is_named = || log.windows(mark.len()).any(|bytes| bytes == mark.as_bytes());
    mark != now && mark != earlier && (mark.is_empty() || !is_named())
}

/// Marks the state of the file that the log goes on from: the first change in an empty log, and only there, so that a log
/// has one mark at most. What the file's mark is then.
pub(crate) fn begin_log(connection: &Connection) -> Result<String, rusqlite::Error> {
    let mark = new_token();
    connection
        .prepare_cached("UPDATE shop_file SET earlier = mark, mark = ?1 WHERE id = 1")?
        .execute([&mark])?;
    Ok(mark)
}

/// The mark of a file with its log, and the one before it; `None` while it has none.
pub(crate) fn marks_of(connection: &Connection) -> Option<(String, String)> {
    let read = connection.query_row("SELECT mark, earlier FROM shop_file WHERE id = 1", [], |row| {
        Ok((row.get(0)?, row.get(1)?))
    });
    read.ok()
}

/// The marks of a file that is opened for this question alone; `None` when they cannot be read.
fn marks(uri: &str) -> Option<(String, String)> {
    let flags =
        OpenFlags::SQLITE_OPEN_READ_ONLY | OpenFlags::SQLITE_OPEN_URI | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    marks_of(&Connection::open_with_flags(uri, flags).ok()?)
}

/// A path inside a URI.
fn escaped(path: &Path) -> String {
    let absolute = std::path::absolute(path).unwrap_or_else(|_| path.to_owned());
    let text = absolute.to_string_lossy();
    text.replace('%', "%25").replace('?', "%3f").replace('#', "%23")
}

/// What can be read of a log.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Frames {
    /// Pages that are whole.
    pub(crate) whole: usize,
    /// Pages of the same log behind the first that is not, of changes that were complete.
    pub(crate) lost: usize,
    /// How far the log is whole, in bytes.
    pub(crate) sound_bytes: usize,
}

/// Walks a log as SQLite does (its file format, section 4: "The Write-Ahead Log"). `None`: it has no head of a log.
pub(crate) fn whole_frames(log: &[u8]) -> Option<Frames> {
    const HEAD: usize = 32;
    const FRAME_HEAD: usize = 24;
    let word = |bytes: &[u8], at: usize| {
        bytes.get(at..at + 4).and_then(|four| four.try_into().ok()).map(u32::from_be_bytes)
    };
    let is_big_endian = match word(log, 0)? {
        0x377f_0682 => false,
        0x377f_0683 => true,
        _ => return None,
    };
    let sum = |bytes: &[u8], (mut a, mut b): (u32, u32)| {
        for eight in bytes.chunks_exact(8) {
            let read = |four: &[u8]| {
                let four = four.try_into().unwrap_or_default();
                if is_big_endian { u32::from_be_bytes(four) } else { u32::from_le_bytes(four) }
            };
            a = a.wrapping_add(read(&eight[..4])).wrapping_add(b);
            b = b.wrapping_add(read(&eight[4..])).wrapping_add(a);
        }
        (a, b)
    };
    let page = word(log, 8)? as usize;
    let salt = log.get(16..24)?;
    let mut sums = sum(log.get(..24)?, (0, 0));
    if sums != (word(log, 24)?, word(log, 28)?) || page == 0 {
        return None;
    }
    let mut frames = Frames { whole: 0, lost: 0, sound_bytes: HEAD };
    let (mut is_sound, mut open) = (true, 0);
    for frame in log.get(HEAD..)?.chunks_exact(FRAME_HEAD + page) {
        if frame.get(8..16)? != salt {
            // From here on lies what an earlier round of the log left.
            break;
        }
        if is_sound {
            let next = sum(&frame[FRAME_HEAD..], sum(&frame[..8], sums));
            is_sound = next == (word(frame, 16)?, word(frame, 20)?);
            sums = next;
        }
        if is_sound {
            frames.whole += 1;
            frames.sound_bytes += FRAME_HEAD + page;
        } else {
            // The last change may have been cut off before it was acknowledged; one that ends was not.
            open += 1;
            let ends_a_change = word(frame, 4)? != 0;
            if ends_a_change && frames.lost + open > 1 {
                frames.lost += open;
                open = 0;
            }
        }
    }
    Some(frames)
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A file whose log holds what was written last, as after a kill.
    fn killed(folder: &Path) -> (PathBuf, PathBuf) {
        let path = folder.join("live.sqlite");
        let connection = Connection::open(&path).unwrap();
        connection.pragma_update(None, "journal_mode", "WAL").unwrap();
        connection.execute_batch("CREATE TABLE a (t TEXT)").unwrap();
        for count in 0..20 {
            connection.execute("INSERT INTO a VALUES (?1)", [format!("{count}").repeat(1500)]).unwrap();
        }
        let copy = folder.join("killed.sqlite");
        fs::copy(&path, &copy).unwrap();
        fs::copy(log_of(&path), log_of(&copy)).unwrap();
        (copy.clone(), log_of(&copy))
    }

    #[test]
    fn a_whole_log_is_told_from_a_damaged_one() {
        let folder = tempfile::tempdir().unwrap();
        let (path, log) = killed(folder.path());
        let sound = fs::read(&log).unwrap();
        let frames = whole_frames(&sound).unwrap();
        assert!(frames.whole > 20 && frames.lost == 0, "{frames:?}");
        assert!(look_at(&path).unwrap().unwrap().contains("taken over from"));

        let mut flipped = sound.clone();
        let middle = flipped.len() / 2;
        flipped[middle] ^= 4;
        let frames = whole_frames(&flipped).unwrap();
        assert!(frames.whole > 0 && frames.lost > 5, "{frames:?}");
        fs::write(&log, &flipped).unwrap();
        assert!(look_at(&path).unwrap().unwrap().contains("is damaged"));
        assert_eq!(fs::read(beside(&path, "-wal.damaged")).unwrap(), flipped);

        // Cut off in its last page, as when the power went: nothing acknowledged is missing.
        let cut = whole_frames(&sound[..sound.len() - 100]).unwrap();
        assert_eq!((cut.whole, cut.lost), (whole_frames(&sound).unwrap().whole - 1, 0));
        let mut torn = sound;
        let last = torn.len() - 10;
        torn[last] ^= 1;
        assert_eq!(whole_frames(&torn).unwrap().lost, 0);
        assert_eq!(whole_frames(b"not a log at all, but long enough for a head"), None);
    }
}
