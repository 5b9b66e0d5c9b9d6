//! The date code at the end of a tire's DOT marking.

use std::fmt;

use crate::values::working::Source;

/// Where the code comes from.
pub const SOURCE: Source = Source::standard("49 CFR 574.5, date code");

/// Two figures of a year up to here are of this century; above it the tire is older than codes of four figures.
pub const LAST_YEAR_READ: u32 = 69;

/// Week and year of making: `2325` is week 23 of 2025. Codes of four figures began with the year 2000.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub struct DateCode {
    week: u8,
    year: u16,
}

impl DateCode {
    /// From week (1–53) and full year (2000–2099); `None` outside them.
    pub fn new(week: u32, year: u32) -> Option<Self> {
        ((1..=53).contains(&week) && (2000..=2099).contains(&year))
            .then_some(Self { week: week as u8, year: year as u16 })
    }

    /// From the end of a marking: its last four figures, `0626` or `DOT 4B2X 0626`; `None` for any other text, and for a
    /// year that has not begun a code of four figures yet.
    pub fn of_marking(text: &str) -> Option<Self> {
        let text = text.trim().as_bytes();
        let [before @ .., w1, w2, y1, y2] = text else { return None };
        let figure = |byte: u8| (byte as char).to_digit(10);
        if before.last().is_some_and(u8::is_ascii_digit) {
            return None;
        }
        let (week, year) = (figure(*w1)? * 10 + figure(*w2)?, figure(*y1)? * 10 + figure(*y2)?);
        (year <= LAST_YEAR_READ).then(|| Self::new(week, 2000 + year)).flatten()
    }

    /// Week of the year.
    pub fn week(self) -> u8 {
        self.week
    }

    /// Full year.
    pub fn year(self) -> u16 {
        self.year
    }

    /// Age in years on a day of a year, counted in weeks of seven days; negative for a code that lies ahead.
    pub fn age_in_years(self, today: Day) -> f64 {
        let weeks_now = f64::from(today.day_of_year - 1) / 7.0;
        let years = f64::from(today.year) - f64::from(self.year);
        years + (weeks_now - f64::from(self.week - 1)) / 52.1775
    }
}

/// `2325`: week, then the last two figures of the year.
impl fmt::Display for DateCode {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "DOT {:02}{:02}", self.week, self.year % 100)
    }
}

/// A day, handed in by the caller: the core has no clock.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Day {
    /// Full year.
    pub year: i16,
    /// 1 to 366.
    pub day_of_year: u16,
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn week_and_year_are_read_as_the_regulation_says() {
        // 49 CFR 574.5: first two figures the week, last two the year.
        let code = DateCode::new(23, 2025).unwrap();
        assert_eq!(code.to_string(), "DOT 2325");
        // 2 June 2026 is day 153: week 22.7, so just about a year after week 23 of 2025 began.
        let age = code.age_in_years(Day { year: 2026, day_of_year: 153 });
        assert!((age - 1.0).abs() < 0.02, "{age}");
        assert!(code.age_in_years(Day { year: 2025, day_of_year: 1 }) < 0.0);
    }

    #[test]
    fn the_end_of_a_marking_is_read() {
        let code = DateCode::new(6, 2026);
        for text in ["0626", " DOT 0626 ", "DOT 4B2X ABC 0626", "DOT ABC0626"] {
            assert_eq!(DateCode::of_marking(text), code, "{text}");
        }
        for text in ["", "626", "10626", "5426", "0099", "0699", "06é6", "06/26", "DOT"] {
            assert_eq!(DateCode::of_marking(text), None, "{text}");
        }
    }

    #[test]
    fn impossible_weeks_and_years_are_refused() {
        assert_eq!(DateCode::new(0, 2025), None);
        assert_eq!(DateCode::new(54, 2025), None);
        assert_eq!(DateCode::new(10, 1999), None);
    }
}
