//! A character and where it stood.

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

    /// The same by another sign, of the marks that it had.
    pub(super) fn shown_as(self, char: char) -> Self {
        Self { char, ..self }
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
