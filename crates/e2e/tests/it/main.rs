//! Journeys through the page in headless Chromium.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

mod bay;
mod everyday;
mod journeys;
mod kept;
mod lost_and_damaged;
mod motion;
mod rack;
mod road;
mod sheets;
mod walks;
mod whose;
mod workshop;
