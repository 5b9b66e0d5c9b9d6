//! A cursor over an even text.

use super::even::EvenText;

impl EvenText {
    pub(crate) fn start(&self) -> Scan<'_> {
        Scan { text: self, at: 0 }
    }
}

/// A number as it was written.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Number {
    pub(crate) value: f64,
    /// Figures before the decimal sign.
    pub(crate) figures: usize,
    /// Figures behind it.
    pub(crate) decimals: usize,
}

impl Number {
    /// The whole number, when it was written without decimals.
    pub(crate) fn whole(self) -> Option<u32> {
        (self.decimals == 0 && self.figures <= 9).then_some(self.value as u32)
    }
}

/// A place in an even text. Copied freely: a reader that fails leaves no trace.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Scan<'t> {
    text: &'t EvenText,
    at: usize,
}

impl<'t> Scan<'t> {
    pub(crate) fn peek(self) -> Option<char> {
        self.peek_at(0)
    }

    pub(crate) fn peek_at(self, ahead: usize) -> Option<char> {
        self.text.chars.get(self.at + ahead).map(|placed| placed.char)
    }

    pub(crate) fn is_at_end(self) -> bool {
        self.at >= self.text.chars.len()
    }

    /// The byte in the original text where this place lies.
    pub(crate) fn byte(self) -> usize {
        self.text.chars.get(self.at).map_or(self.text.bytes, |placed| placed.at)
    }

    /// Further on by so many characters.
    pub(crate) fn skip(self, chars: usize) -> Self {
        Self { at: (self.at + chars).min(self.text.chars.len()), ..self }
    }

    /// Over blanks, not over line ends.
    pub(crate) fn blanks(self) -> Self {
        let mut scan = self;
        while scan.peek() == Some(' ') {
            scan = scan.skip(1);
        }
        scan
    }

    /// Past this text, when it stands here.
    pub(crate) fn eat(self, expected: &str) -> Option<Self> {
        let mut scan = self;
        for char in expected.chars() {
            if scan.peek() != Some(char) {
                return None;
            }
            scan = scan.skip(1);
        }
        Some(scan)
    }

    /// Past the first of these texts that stands here.
    pub(crate) fn eat_any(self, expected: &[&str]) -> Option<Self> {
        expected.iter().find_map(|text| self.eat(text))
    }

    /// Past a whole word out of these: nothing of a word may follow it. Words in signs of their own (前) need no gap.
    pub(crate) fn eat_word(self, words: &[&str]) -> Option<Self> {
        words.iter().find_map(|word| {
            let own_signs = word.chars().next_back().is_some_and(|last| !last.is_ascii());
            self.eat(word).filter(|after| own_signs || after.at_word_end())
        })
    }

    /// Past one of these words, which a number may follow directly ("et35", "et 35", "et: 35").
    pub(crate) fn eat_label(self, words: &[&str]) -> Option<Self> {
        words.iter().find_map(|word| {
            let after = self.eat(word)?;
            if after.peek().is_some_and(char::is_alphabetic) {
                return None;
            }
            let after = after.blanks();
            let after = after.eat_any(&[":", "=", "."]).unwrap_or(after).blanks();
            Some(after.eat("of ").map_or(after, Self::blanks))
        })
    }

    /// The word of letters that stands here, when nothing but a word end follows it.
    pub(crate) fn word(self) -> Option<(Self, usize)> {
        let letters = (0..).take_while(|n| self.peek_at(*n).is_some_and(char::is_alphabetic)).count();
        let end = self.skip(letters);
        (letters > 0 && end.at_word_end()).then_some((end, letters))
    }

    /// Whether this sign was written as a capital.
    pub(crate) fn is_capital(self) -> bool {
        self.text.chars.get(self.at).is_some_and(|placed| placed.capital)
    }

    /// Whether no letter or figure goes on from here.
    pub(crate) fn at_word_end(self) -> bool {
        !self.peek().is_some_and(char::is_alphanumeric)
    }

    /// Whether a number read up to here is whole: no figure goes on, nor a decimal part.
    pub(crate) fn at_number_end(self) -> bool {
        match self.peek() {
            Some(c) if c.is_ascii_digit() => false,
            // A letter behind a point is a figure misread ("8.S"), not the end of a sentence.
            Some('.') => !self.peek_at(1).is_some_and(char::is_alphanumeric),
            Some(',') => !self.skip(1).is_decimal_part(),
            _ => true,
        }
    }

    /// A number: figures, and a decimal part behind a point, or behind a comma when one or two figures
    /// follow it ("8,5"; in "35,245/40" the comma separates).
    pub(crate) fn number(self) -> Option<(Number, Self)> {
        let figures = self.digits();
        if figures == 0 || figures > 15 {
            return None;
        }
        let mut value = 0.0;
        let mut scan = self;
        for _ in 0..figures {
            value = value * 10.0 + scan.digit();
            scan = scan.skip(1);
        }
        let decimals = scan.skip(1).digits();
        let counts = match scan.peek() {
            Some('.') => (1..=6).contains(&decimals),
            Some(',') => scan.skip(1).is_decimal_part(),
            _ => false,
        };
        if !counts {
            return Some((Number { value, figures, decimals: 0 }, scan));
        }
        scan = scan.skip(1);
        let mut part = 0.0;
        let mut scale = 1.0;
        for _ in 0..decimals {
            part = part * 10.0 + scan.digit();
            scale *= 10.0;
            scan = scan.skip(1);
        }
        // One division of two exact integers rounds like the decimal literal does.
        Some((Number { value: (value * scale + part) / scale, figures, decimals }, scan))
    }

    /// A number as it is spoken of rims: "8.5", "8 ½", "8 1/2", "8 and a half".
    pub(crate) fn number_with_fraction(self) -> Option<(Number, Self)> {
        let (number, after) = self.number()?;
        if number.decimals > 0 {
            return Some((number, after));
        }
        let next = after.blanks();
        let spoken = [
            ("and a half", 0.5),
            ("and one half", 0.5),
            ("and a quarter", 0.25),
            ("and three quarters", 0.75),
            ("-1/2", 0.5),
            ("-1/4", 0.25),
            ("-3/4", 0.75),
            ("1/2", 0.5),
            ("1/4", 0.25),
            ("3/4", 0.75),
            ("1/8", 0.125),
            ("3/8", 0.375),
            ("5/8", 0.625),
            ("7/8", 0.875),
            (".5", 0.5),
            (".25", 0.25),
            (".75", 0.75),
            (".125", 0.125),
            (".375", 0.375),
            (".625", 0.625),
            (".875", 0.875),
        ];
        for (words, part) in spoken {
            if let Some(end) = next.eat(words).filter(|end| !end.peek().is_some_and(|c| c.is_ascii_digit())) {
                return Some((Number { value: number.value + part, decimals: 2, ..number }, end));
            }
        }
        Some((number, after))
    }

    /// How many figures stand here in a row.
    pub(crate) fn digits(self) -> usize {
        (0..).take_while(|ahead| self.peek_at(*ahead).is_some_and(|c| c.is_ascii_digit())).count()
    }

    /// Whether what follows a comma is a decimal part: one or two figures. Three and more are a new number.
    fn is_decimal_part(self) -> bool {
        (1..=2).contains(&self.digits())
    }

    /// The two figures that stand here; nothing where there are none.
    pub(crate) fn two_digits(self) -> u32 {
        let figure = |ahead: usize| self.peek_at(ahead).and_then(|c| c.to_digit(10)).unwrap_or(0);
        figure(0) * 10 + figure(1)
    }

    fn digit(self) -> f64 {
        f64::from(self.peek().and_then(|c| c.to_digit(10)).unwrap_or(0))
    }

    /// To the end of what a person would call one piece: the next blank, line end or separator.
    pub(crate) fn piece_end(self) -> Self {
        let mut scan = self;
        while let Some(char) = scan.peek() {
            let decimal_comma = char == ',' && scan.skip(1).is_decimal_part();
            if char.is_whitespace()
                || matches!(char, '|' | '·' | ';' | '•')
                || (char == ',' && !decimal_comma)
            {
                break;
            }
            scan = scan.skip(1);
        }
        scan
    }
}
