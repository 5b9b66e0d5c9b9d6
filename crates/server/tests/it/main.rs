//! The program over HTTP and as a command, as a script and a person use it.
#![allow(clippy::unwrap_used, clippy::expect_used, reason = "a test that cannot go on fails")]

mod api;
mod attack;
mod bay;
mod car_module;
mod catalogue;
mod changes;
mod choose;
mod clubs;
mod connections;
mod fixed_points;
mod identity;
mod jobs;
mod motion;
mod one_answer;
mod page;
mod program;
mod reads;
mod refusals;
mod road;
mod served;
mod sweep;
mod workshop;
