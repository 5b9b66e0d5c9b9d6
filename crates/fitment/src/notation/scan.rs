//! The text made even, and a cursor over it.

/// A character as the readers see it, and the byte where it stood.
#[derive(Debug, Clone, Copy)]
struct Placed {
    char: char,
    at: usize,
}

/// A text made even: lower case, one multiplication sign, one minus, one quote, fractions written out.
#[derive(Debug)]
pub(crate) struct EvenText {
    chars: Vec<Placed>,
    bytes: usize,
}

impl EvenText {
    pub(crate) fn new(text: &str) -> Self {
        let mut chars = Vec::with_capacity(text.len());
        for (at, original) in text.char_indices() {
            let fraction = match original {
                '½' => ".5",
                '¼' => ".25",
                '¾' => ".75",
                _ => "",
            };
            if fraction.is_empty() {
                chars.push(Placed { char: even(original), at });
            } else {
                chars.extend(fraction.chars().map(|char| Placed { char, at }));
            }
        }
        Self { chars, bytes: text.len() }
    }

    pub(crate) fn start(&self) -> Scan<'_> {
        Scan { text: self, at: 0 }
    }
}

fn even(char: char) -> char {
    match char {
        '×' | '✕' | '✖' | '*' => 'x',
        '−' | '–' | '—' | '‐' | '‑' => '-',
        '”' | '“' | '″' | '„' => '"',
        '’' | '‘' | '′' => '\'',
        '\u{a0}' | '\u{2007}' | '\u{2009}' | '\u{202f}' | '\t' => ' ',
        '\r' => '\n',
        'Ø' | 'ø' | '⌀' => 'ø',
        other => other.to_ascii_lowercase(),
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

    /// Past a whole word out of these: nothing of a word may follow it.
    pub(crate) fn eat_word(self, words: &[&str]) -> Option<Self> {
        words.iter().find_map(|word| self.eat(word).filter(|after| after.at_word_end()))
    }

    /// Past one of these words, which a number may follow directly ("et35", "et 35", "et: 35").
    pub(crate) fn eat_label(self, words: &[&str]) -> Option<Self> {
        words.iter().find_map(|word| {
            let after = self.eat(word)?;
            if after.peek().is_some_and(char::is_alphabetic) {
                return None;
            }
            let after = after.blanks();
            Some(after.eat_any(&[":", "=", "."]).unwrap_or(after).blanks())
        })
    }

    /// Whether no letter or figure goes on from here.
    pub(crate) fn at_word_end(self) -> bool {
        !self.peek().is_some_and(char::is_alphanumeric)
    }

    /// Whether a number read up to here is whole: no figure goes on, nor a decimal part.
    pub(crate) fn at_number_end(self) -> bool {
        match self.peek() {
            Some(c) if c.is_ascii_digit() => false,
            Some('.') => self.skip(1).digits() == 0,
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
            ("1/2", 0.5),
            ("1/4", 0.25),
            ("3/4", 0.75),
            (".5", 0.5),
            (".25", 0.25),
            (".75", 0.75),
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
