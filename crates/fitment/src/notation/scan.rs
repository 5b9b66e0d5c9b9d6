//! A cursor over an even text.

use super::normalize::EvenText;

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

/// Words that may stand at a place, found by the two signs that they begin with: at most places no word of a list begins,
/// and none of it is looked at.
#[derive(Debug)]
pub(crate) struct Words {
    all: &'static [&'static str],
    /// By the first sign, the second ones: a bit for each letter, one more for every other sign and for the end.
    begins: [u32; Self::PLACES],
    /// By the first sign, one more than where the first such word stands; 0 for none.
    first: [u8; Self::PLACES],
    /// By the word, one more than where the next with its first sign stands; 0 for none.
    next: [u8; Self::MOST],
}

impl Words {
    /// A place for each letter, one more for every other sign.
    const PLACES: usize = 27;
    /// The longest list.
    const MOST: usize = 120;

    pub(crate) const fn new(all: &'static [&'static str]) -> Self {
        assert!(all.len() <= Self::MOST, "a longer list needs longer chains");
        let (mut begins, mut first, mut next) = ([0; Self::PLACES], [0; Self::PLACES], [0; Self::MOST]);
        // From the last to the first, so that the chains are in the list's order.
        let mut at = all.len();
        while at > 0 {
            at -= 1;
            let word = all[at].as_bytes();
            let place = Self::place(word[0] as u32);
            // Nothing is said of what stands behind a word of one sign, nor behind a sign of several bytes.
            let second = if word.len() > 1 && word[0].is_ascii() {
                1 << Self::place(word[1] as u32)
            } else {
                u32::MAX
            };
            begins[place] |= second;
            next[at] = first[place];
            first[place] = at as u8 + 1;
        }
        Self { all, begins, first, next }
    }

    /// All of them.
    #[cfg(test)]
    pub(crate) fn all(&self) -> &'static [&'static str] {
        self.all
    }

    /// The first byte of a sign beyond ASCII is no letter, and neither is the sign.
    const fn place(sign: u32) -> usize {
        match sign {
            0x61..=0x7a => (sign - 0x61) as usize,
            _ => Self::PLACES - 1,
        }
    }

    /// Those that may stand where these two signs do, in the list's order.
    #[inline]
    fn that_may_begin(&self, first: char, second: Option<char>) -> impl Iterator<Item = &'static str> + '_ {
        let place = Self::place(first as u32);
        let begins = self.begins[place] >> Self::place(second.map_or(0, |sign| sign as u32)) & 1 != 0;
        let mut at = if begins { self.first[place] } else { 0 };
        std::iter::from_fn(move || {
            let word = usize::from(at).checked_sub(1)?;
            at = self.next[word];
            Some(self.all[word])
        })
    }
}

/// Whether a text may stand where a sign does, by its first one: nearly always that says already that it does not.
#[inline]
fn begins_with(text: &str, sign: char) -> bool {
    text.as_bytes().first().is_some_and(|first| !first.is_ascii() || char::from(*first) == sign)
}

/// A place in an even text. Copied freely: a reader that fails leaves no trace.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Scan<'t> {
    text: &'t EvenText,
    at: usize,
}

impl<'t> Scan<'t> {
    #[inline]
    pub(crate) fn peek(self) -> Option<char> {
        self.peek_at(0)
    }

    #[inline]
    pub(crate) fn peek_at(self, ahead: usize) -> Option<char> {
        self.text.chars.get(self.at + ahead).map(|placed| placed.char)
    }

    pub(crate) fn is_at_end(self) -> bool {
        self.at >= self.text.chars.len()
    }

    /// The byte in the original text where this place lies.
    pub(crate) fn byte(self) -> usize {
        self.text.chars.get(self.at).map_or(self.text.bytes, |placed| placed.at())
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
    #[inline]
    pub(crate) fn eat(self, expected: &str) -> Option<Self> {
        if begins_with(expected, self.peek()?) { self.eat_whole(expected) } else { None }
    }

    fn eat_whole(self, expected: &str) -> Option<Self> {
        let rest = self.text.chars.get(self.at..)?;
        let mut eaten = 0;
        for char in expected.chars() {
            if rest.get(eaten)?.char != char {
                return None;
            }
            eaten += 1;
        }
        Some(Self { at: self.at + eaten, ..self })
    }

    /// Past a mark that is printed in capitals.
    pub(crate) fn eat_mark(self, mark: &str) -> Option<Self> {
        let rest = self.text.chars.get(self.at..self.at + mark.len())?;
        let is_it =
            mark.bytes().zip(rest).all(|(byte, placed)| placed.char == char::from(byte.to_ascii_lowercase()));
        is_it.then(|| self.skip(mark.len()))
    }

    /// Past the first of these texts that stands here.
    #[inline]
    pub(crate) fn eat_any(self, expected: &[&str]) -> Option<Self> {
        let sign = self.peek()?;
        expected.iter().filter(|text| begins_with(text, sign)).find_map(|text| self.eat_whole(text))
    }

    /// Past a whole word out of these: nothing of a word may follow it. Words in signs of their own (前) need no gap.
    #[inline]
    pub(crate) fn eat_word(self, words: &[&str]) -> Option<Self> {
        let sign = self.peek()?;
        words.iter().filter(|word| begins_with(word, sign)).find_map(|word| self.past_word(word))
    }

    /// The same out of a long list.
    pub(crate) fn eat_known(self, words: &Words) -> Option<Self> {
        words.that_may_begin(self.peek()?, self.peek_at(1)).find_map(|word| self.past_word(word))
    }

    fn past_word(self, word: &str) -> Option<Self> {
        let own_signs = word.as_bytes().last().is_some_and(|last| !last.is_ascii());
        self.eat_whole(word).filter(|after| own_signs || after.at_word_end())
    }

    /// Past one of these words, which a number may follow directly ("et35", "et 35", "et: 35").
    #[inline]
    pub(crate) fn eat_label(self, words: &[&str]) -> Option<Self> {
        let sign = self.peek()?;
        words.iter().filter(|word| begins_with(word, sign)).find_map(|word| self.past_label(word))
    }

    /// The same out of a long list.
    pub(crate) fn eat_known_label(self, words: &Words) -> Option<Self> {
        words.that_may_begin(self.peek()?, self.peek_at(1)).find_map(|word| self.past_label(word))
    }

    fn past_label(self, word: &str) -> Option<Self> {
        let after = self.eat_whole(word)?;
        if after.peek().is_some_and(char::is_alphabetic) {
            return None;
        }
        let after = after.blanks();
        let after = after.eat_any(&[":", "=", "."]).unwrap_or(after).blanks();
        Some(after.eat("of ").map_or(after, Self::blanks))
    }

    /// The word of letters that stands here, when nothing but a word end follows it.
    pub(crate) fn word(self) -> Option<(Self, usize)> {
        let letters = (0..).take_while(|n| self.peek_at(*n).is_some_and(char::is_alphabetic)).count();
        let end = self.skip(letters);
        (letters > 0 && end.at_word_end()).then_some((end, letters))
    }

    /// Whether this sign was written as a capital.
    pub(crate) fn is_capital(self) -> bool {
        self.text.chars.get(self.at).is_some_and(|placed| placed.is_capital())
    }

    /// Whether this letter stands here or further on as a capital.
    pub(crate) fn has_capital(self, letter: char) -> bool {
        self.text.chars[self.at..].iter().any(|placed| placed.char == letter && placed.is_capital())
    }

    /// Whether no letter or figure goes on from here.
    pub(crate) fn at_word_end(self) -> bool {
        !self.text.chars.get(self.at).is_some_and(|placed| placed.is_of_a_word())
    }

    /// Whether a number read up to here is whole: no figure goes on, nor a decimal part.
    pub(crate) fn at_number_end(self) -> bool {
        match self.peek() {
            Some(c) if c.is_ascii_digit() => false,
            // A letter behind a point is a figure misread ("8.S"), not the end of a sentence.
            Some('.') => !self.peek_at(1).is_some_and(char::is_alphanumeric),
            Some(',') => !self.skip(1).is_decimal_part() || self.skip(1).is_a_circle(),
            _ => true,
        }
    }

    /// A number: figures, and a decimal part behind a point, or behind a comma when one or two figures
    /// follow it ("8,5"; in "35,245/40" the comma separates).
    #[inline]
    pub(crate) fn number(self) -> Option<(Number, Self)> {
        let figures = self.digits();
        if (1..=15).contains(&figures) { self.number_of(figures) } else { None }
    }

    fn number_of(self, figures: usize) -> Option<(Number, Self)> {
        let mut value = 0.0;
        let mut scan = self;
        for _ in 0..figures {
            value = value * 10.0 + scan.digit();
            scan = scan.skip(1);
        }
        let decimals = scan.skip(1).digits();
        let counts = match scan.peek() {
            Some('.') => (1..=6).contains(&decimals),
            Some(',') => scan.skip(1).is_decimal_part() && !scan.skip(1).is_a_circle(),
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
        if !next.peek().is_some_and(|sign| sign.is_ascii_digit() || matches!(sign, 'a' | '-' | '.')) {
            return Some((number, after));
        }
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
        self.text.chars.get(self.at).map_or(0, |placed| usize::from(placed.figures))
    }

    /// Whether what follows a comma is a decimal part: one or two figures. Three and more are a new number.
    fn is_decimal_part(self) -> bool {
        (1..=2).contains(&self.digits())
    }

    /// Whether a bolt circle begins here: "5x112" behind a comma is none of a figure's decimals.
    fn is_a_circle(self) -> bool {
        self.digits() == 1 && self.skip(1).peek() == Some('x') && self.skip(2).digits() == 3
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
            let decimal_comma = char == ',' && scan.skip(1).is_decimal_part() && !scan.skip(1).is_a_circle();
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
