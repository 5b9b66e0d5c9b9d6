//! Documents that are kept whole in a column: written with their version, read back, and kept as they are where that does not go.

use fitment::records::Document;
use serde::Serialize;
use serde::de::DeserializeOwned;
use serde_json::Value;

/// A document that stands in the file and cannot be read.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Unreadable {
    /// As it stands.
    pub text: String,
    /// Why it cannot be read, in a sentence with what it is.
    pub why: String,
}

const VERSION: &str = "version";

/// As it is kept.
pub fn write<T: Document + Serialize>(document: &T) -> String {
    let mut value = serde_json::to_value(document).unwrap_or_default();
    if let Value::Object(fields) = &mut value {
        fields.insert(VERSION.to_owned(), T::VERSION.into());
    }
    value.to_string()
}

/// As it was kept.
///
/// # Errors
/// [`Unreadable`], with the text as it stands: damaged, or of a newer program.
pub fn read<T: Document + DeserializeOwned>(text: &str) -> Result<T, Unreadable> {
    let unreadable =
        |why: String| Unreadable { text: text.to_owned(), why: format!("{} cannot be read: {why}", T::NAME) };
    let mut value: Value = serde_json::from_str(text).map_err(|error| unreadable(error.to_string()))?;
    let version = value.as_object_mut().and_then(|fields| fields.remove(VERSION)).unwrap_or(Value::from(1));
    match version.as_u64() {
        Some(version) if version <= u64::from(T::VERSION) => {}
        Some(version) => return Err(unreadable(format!("a newer program wrote it (version {version})"))),
        None => return Err(unreadable(format!("its version is {version}"))),
    }
    serde_json::from_value(value).map_err(|error| unreadable(error.to_string()))
}

#[cfg(test)]
mod tests {
    use fitment::records::{RoadSheet, SearchWish};

    use super::*;

    #[test]
    fn what_is_written_is_read_and_what_has_no_version_is_of_the_first() {
        let wish = SearchWish { budget: Some(1200.5), uses: vec!["daily".into()], ..SearchWish::default() };
        let text = write(&wish);
        assert!(text.contains("\"version\":1"), "{text}");
        assert_eq!(read::<SearchWish>(&text), Ok(wish));
        // As the program wrote it before there were versions.
        let old =
            r#"{"cruise_kmh":110.0,"tires":[{"id":"a","name":"front left","position":"fl","readings":[]}]}"#;
        let sheet = read::<RoadSheet>(old).unwrap();
        assert_eq!((sheet.cruise_kmh, sheet.tires[0].position.as_str()), (Some(110.0), "fl"));
    }

    #[test]
    fn what_cannot_be_read_is_kept_with_its_reason() {
        for (text, why) in [
            ("{\"cruise_kmh\":\"fast\"}", "invalid type"),
            ("{\"version\":9,\"cruise_kmh\":100}", "newer program"),
            ("{\"version\":\"soon\"}", "version"),
            ("half a docum", "expected"),
        ] {
            let error = read::<RoadSheet>(text).unwrap_err();
            assert_eq!(error.text, text);
            assert!(
                error.why.starts_with("its road and track sheet cannot be read") && error.why.contains(why),
                "{error:?}"
            );
        }
    }
}
