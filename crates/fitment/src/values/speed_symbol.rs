//! Speed symbol: the letter for the speed a tire is made for.

use std::fmt;

use crate::values::working::Source;

/// Where the table comes from.
pub const SOURCE: Source = Source::standard("ISO 4000-1 / UN R30, speed symbol table");

/// A speed symbol from F to (Y).
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[allow(missing_docs, reason = "the letters are their own documentation; the table is below")]
pub enum SpeedSymbol {
    F,
    G,
    J,
    K,
    L,
    M,
    N,
    P,
    Q,
    R,
    S,
    T,
    U,
    H,
    V,
    W,
    Y,
    /// `(Y)`: over 300 km/h, the maker says how far over.
    OverY,
}

/// Each symbol, how it is marked, its speed in km/h.
const TABLE: [(SpeedSymbol, &str, f64); 18] = {
    use SpeedSymbol::{F, G, H, J, K, L, M, N, OverY, P, Q, R, S, T, U, V, W, Y};
    [
        (F, "F", 80.0),
        (G, "G", 90.0),
        (J, "J", 100.0),
        (K, "K", 110.0),
        (L, "L", 120.0),
        (M, "M", 130.0),
        (N, "N", 140.0),
        (P, "P", 150.0),
        (Q, "Q", 160.0),
        (R, "R", 170.0),
        (S, "S", 180.0),
        (T, "T", 190.0),
        (U, "U", 200.0),
        (H, "H", 210.0),
        (V, "V", 240.0),
        (W, "W", 270.0),
        (Y, "Y", 300.0),
        (OverY, "(Y)", 300.0),
    ]
};

impl SpeedSymbol {
    /// Every symbol, slowest first.
    pub fn all() -> impl Iterator<Item = Self> {
        TABLE.iter().map(|(symbol, _, _)| *symbol)
    }

    /// From its letter; the bracketed Y is not a letter.
    pub fn from_letter(letter: char) -> Option<Self> {
        let mut buffer = [0; 4];
        let text = letter.to_ascii_uppercase();
        let text: &str = text.encode_utf8(&mut buffer);
        TABLE.iter().find(|(_, mark, _)| *mark == text).map(|(symbol, _, _)| *symbol)
    }

    /// How it is marked.
    pub fn mark(self) -> &'static str {
        TABLE[self as usize].1
    }

    /// The speed in km/h; for `(Y)` the speed it lies above.
    pub fn top_speed_kmh(self) -> f64 {
        TABLE[self as usize].2
    }

    /// Whether the real limit lies above [`Self::top_speed_kmh`] and only the maker knows it.
    pub fn is_open_ended(self) -> bool {
        self == Self::OverY
    }
}

impl fmt::Display for SpeedSymbol {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.mark())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_table_is_in_the_order_of_the_symbols_and_of_speed() {
        for (at, (symbol, mark, kmh)) in TABLE.iter().enumerate() {
            assert_eq!(*symbol as usize, at, "{mark} must stand at its own place: mark() looks it up there");
            assert!(at == 0 || TABLE[at - 1].2 <= *kmh, "{mark}");
        }
    }

    #[test]
    fn speeds_are_the_tables() {
        // UN R30 speed symbol table; H between U and V is its one oddity.
        for (letter, kmh) in [
            ('J', 100.0),
            ('K', 110.0),
            ('Q', 160.0),
            ('S', 180.0),
            ('T', 190.0),
            ('H', 210.0),
            ('v', 240.0),
            ('W', 270.0),
            ('Y', 300.0),
        ] {
            assert_eq!(SpeedSymbol::from_letter(letter).unwrap().top_speed_kmh(), kmh, "{letter}, UN R30");
        }
        for wrong in ['A', 'I', 'O', 'X', 'Z', '('] {
            assert_eq!(SpeedSymbol::from_letter(wrong), None, "{wrong}");
        }
    }
}
