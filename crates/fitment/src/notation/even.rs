//! The text made even: what looks different and means the same is made the same, and every sign keeps the byte where it
//! stood, so that a piece can be shown as it was written.

use super::spoken;

/// A character as the readers see it, and the byte where it stood.
#[derive(Debug, Clone, Copy)]
pub(super) struct Placed {
    pub(super) char: char,
    /// Texts are no longer than [`LONGEST_TEXT`](super::LONGEST_TEXT).
    at: u16,
    /// What the readers ask of it at every step, told once: [`Self::CAPITAL`], [`Self::OF_A_WORD`], [`Self::FIGURE`].
    marks: u8,
    /// How many figures stand in a row from here on.
    pub(super) figures: u8,
}

impl Placed {
    const CAPITAL: u8 = 1;
    const OF_A_WORD: u8 = 2;
    const FIGURE: u8 = 4;

    /// Every plain sign made even: nearly all of a text is these.
    const PLAIN: [Self; 128] = {
        let mut plain = [Self { char: ' ', at: 0, marks: 0, figures: 0 }; 128];
        let mut code = 0_u8;
        while code < 128 {
            let char = match code {
                b'\t' | b'_' => ' ',
                b'\r' => '\n',
                _ => code.to_ascii_lowercase() as char,
            };
            let capital = if code.is_ascii_uppercase() { Self::CAPITAL } else { 0 };
            let of_a_word = if code.is_ascii_alphanumeric() { Self::OF_A_WORD } else { 0 };
            let figure = if code.is_ascii_digit() { Self::FIGURE } else { 0 };
            plain[code as usize] = Self { char, marks: capital | of_a_word | figure, at: 0, figures: 0 };
            code += 1;
        }
        plain
    };

    pub(super) fn new(char: char, at: usize, capital: bool) -> Self {
        let at = u16::try_from(at).unwrap_or(u16::MAX);
        let capital = u8::from(capital) * Self::CAPITAL;
        match Self::PLAIN.get(char as usize) {
            Some(plain) => Self { marks: plain.marks | capital, at, ..*plain },
            None => {
                let of_a_word = u8::from(char.is_alphanumeric()) * Self::OF_A_WORD;
                Self { char, at, marks: of_a_word | capital, figures: 0 }
            }
        }
    }

    /// The byte where it stood.
    pub(super) fn at(self) -> usize {
        usize::from(self.at)
    }

    /// Whether it was written as a capital: names are, units and most other words are not.
    pub(super) fn is_capital(self) -> bool {
        self.marks & Self::CAPITAL != 0
    }

    /// Whether it is a letter or a figure.
    pub(super) fn is_of_a_word(self) -> bool {
        self.marks & Self::OF_A_WORD != 0
    }

    /// Whether it is a figure.
    pub(super) fn is_figure(self) -> bool {
        self.marks & Self::FIGURE != 0
    }
}

/// A text made even: lower case without accents, one multiplication sign, one minus, one slash, one quote, full-width
/// signs as plain ones, fractions and spoken figures written out.
#[derive(Debug)]
pub(crate) struct EvenText {
    pub(super) chars: Vec<Placed>,
    pub(super) bytes: usize,
}

impl EvenText {
    pub(crate) fn new(text: &str) -> Self {
        let mut chars = Vec::with_capacity(text.len());
        for (at, original) in text.char_indices() {
            if original.is_ascii() {
                chars.push(Placed::new(original, at, false));
                continue;
            }
            // What our own lines are parted by needs no table.
            if original == '·' {
                chars.push(Placed { char: '·', ..Placed::new(' ', at, false) });
                continue;
            }
            let capital = original.is_uppercase();
            let written_out = written_out(original);
            if !written_out.is_empty() {
                chars.extend(written_out.chars().map(|char| Placed::new(char, at, false)));
            } else if let Some(char) = even(original) {
                chars.push(Placed::new(char, at, capital));
            }
        }
        stars_between_figures(&mut chars);
        let mut chars = spoken::figures(chars);
        let mut figures = 0_u8;
        for placed in chars.iter_mut().rev() {
            figures = if placed.is_figure() { figures.saturating_add(1) } else { 0 };
            placed.figures = figures;
        }
        Self { chars, bytes: text.len() }
    }
}

/// "18*8.5" is a multiplication; a star anywhere else is a mark.
fn stars_between_figures(chars: &mut [Placed]) {
    let is_figure = |placed: Option<&Placed>| placed.is_some_and(|placed| placed.is_figure());
    for at in 0..chars.len() {
        if chars[at].char == '*'
            && is_figure(chars[..at].iter().rev().find(|placed| placed.char != ' '))
            && is_figure(chars[at + 1..].iter().find(|placed| placed.char != ' '))
        {
            chars[at] = Placed::new('x', chars[at].at(), false);
        }
    }
}

/// Fractions written as one sign.
fn written_out(char: char) -> &'static str {
    match char {
        '½' => ".5",
        '¼' => ".25",
        '¾' => ".75",
        '⅛' => ".125",
        '⅜' => ".375",
        '⅝' => ".625",
        '⅞' => ".875",
        _ => "",
    }
}

/// The sign that the readers know; `None` for signs that are not seen.
fn even(char: char) -> Option<char> {
    Some(match char {
        '\u{feff}' | '\u{200b}' | '\u{200c}' | '\u{200d}' | '\u{2060}' | '\u{ad}' => return None,
        // Full-width forms lie at a fixed distance from the plain ones.
        '\u{ff01}'..='\u{ff5e}' => {
            return even(char::from_u32(char as u32 - 0xfee0).unwrap_or(' '));
        }
        '×' | '✕' | '✖' => 'x',
        '−' | '–' | '—' | '‐' | '‑' | '‒' | '―' => '-',
        '∕' | '⁄' => '/',
        '”' | '“' | '″' | '„' | '‟' => '"',
        '’' | '‘' | '′' => '\'',
        '\u{a0}' | '\u{2000}'..='\u{200a}' | '\u{202f}' | '\u{205f}' | '\u{3000}' => ' ',
        'Ø' | 'ø' | '⌀' => 'ø',
        // Letters of other scripts that look the same and were meant for these.
        'а' | 'А' => 'a',
        'е' | 'Е' => 'e',
        'о' | 'О' => 'o',
        'р' | 'Р' => 'p',
        'с' | 'С' => 'c',
        'т' | 'Т' => 't',
        'х' | 'Х' => 'x',
        'В' => 'b',
        'Н' => 'h',
        'к' | 'К' => 'k',
        'м' | 'М' => 'm',
        'à' | 'á' | 'â' | 'ã' | 'ä' | 'å' | 'À' | 'Á' | 'Â' | 'Ã' | 'Ä' | 'Å' | 'ą' | 'Ą' => {
            'a'
        }
        'è' | 'é' | 'ê' | 'ë' | 'È' | 'É' | 'Ê' | 'Ë' | 'ę' | 'Ę' => 'e',
        'ì' | 'í' | 'î' | 'ï' | 'Ì' | 'Í' | 'Î' | 'Ï' => 'i',
        'ò' | 'ó' | 'ô' | 'õ' | 'ö' | 'Ò' | 'Ó' | 'Ô' | 'Õ' | 'Ö' => 'o',
        'ù' | 'ú' | 'û' | 'ü' | 'Ù' | 'Ú' | 'Û' | 'Ü' => 'u',
        'ç' | 'Ç' | 'ć' | 'Ć' | 'č' | 'Č' => 'c',
        'ñ' | 'Ñ' | 'ń' | 'Ń' => 'n',
        'ł' | 'Ł' => 'l',
        'š' | 'Š' | 'ś' | 'Ś' => 's',
        'ž' | 'Ž' | 'ź' | 'Ź' | 'ż' | 'Ż' => 'z',
        other => other.to_lowercase().next().unwrap_or(other),
    })
}
