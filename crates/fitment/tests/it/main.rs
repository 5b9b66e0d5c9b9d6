//! The core as its callers use it.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

mod as_people_write;
mod brake_gaps;
mod check_values;
mod choosing;
mod corner_fit;
mod drawn_sections;
mod finder;
mod finder_reasons;
mod garage;
mod garage_moving;
mod handbook;
mod judgements;
mod messages;
mod motion;
mod notation;
mod one_answer;
mod properties;
mod rule_by_rule;
mod standards;
mod swept;
mod ways_of_writing;
