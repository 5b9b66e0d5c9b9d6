//! The text made even: what looks different and means the same is made the same, and every sign keeps the byte where it
//! stood, so that a piece can be shown as it was written.

use super::placed::Placed;
use super::spoken;

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
                // A slash that leans the other way is a slip of the same key.
                let sign = if original == '\\' { '/' } else { original };
                chars.push(Placed::new(sign, at, false));
                continue;
            }
            // What our own lines are parted by needs no table.
            if original == '·' {
                chars.push(Placed::new(' ', at, false).shown_as('·'));
                continue;
            }
            let capital = original.is_uppercase();
            let written_out = written_out(original);
            if !written_out.is_empty() {
                // A fraction by itself: "¼" is 0.25; behind a figure it is its part.
                if !ends_in_a_whole_figure(&chars) {
                    chars.push(Placed::new('0', at, false));
                }
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

/// Whether a figure stands last that a fraction may be of: one or two digits by themselves, as the 8 of "8 ½"; not the 17 of "R17 ⅜".
fn ends_in_a_whole_figure(chars: &[Placed]) -> bool {
    let blanks = chars.iter().rev().take_while(|placed| placed.char == ' ').count();
    let figures = chars.iter().rev().skip(blanks).take_while(|placed| placed.is_figure()).count();
    let before = chars.len().checked_sub(blanks + figures + 1).and_then(|at| chars.get(at));
    let is_of_more = |placed: &Placed| {
        placed.char.is_alphanumeric() && placed.char != 'x' || matches!(placed.char, '/' | '.' | ',')
    };
    (1..=2).contains(&figures) && !before.is_some_and(is_of_more)
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
        'Ø' | 'ø' | '⌀' | 'φ' | 'Φ' => 'ø',
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
