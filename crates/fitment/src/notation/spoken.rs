//! Figures said as words: "two twenty five forty five seventeen", "eighteen by eight and a half plus thirty five".
//!
//! The words are replaced by figures before anything is read, each standing where its first word stood. Which figures
//! belong together is how the trade speaks: a digit before a ten, a teen or an "oh" makes hundreds (two twenty five is
//! 225, two oh five 205), everything else stands alone (forty five, seventeen).

use super::placed::Placed;

/// A word of the text: where it begins and ends among the signs, and what number it says.
#[derive(Debug, Clone, Copy)]
struct Word {
    from: usize,
    to: usize,
    says: Option<Says>,
}

#[derive(Debug, Clone, Copy, PartialEq)]
enum Says {
    /// One to nine.
    Digit(u32),
    /// Ten to nineteen.
    Teen(u32),
    /// Twenty to ninety.
    Tens(u32),
    /// Zero, said between a digit and a digit.
    Oh,
    /// "hundred".
    Hundred,
    /// "point".
    Point,
}

fn says(signs: &[Placed]) -> Option<Says> {
    // Most words of a text are figures; the longest below has nine letters.
    if !signs[0].char.is_ascii_lowercase() || signs.len() > 9 {
        return None;
    }
    let is =
        |word: &str| word.len() == signs.len() && word.chars().eq(signs.iter().map(|placed| placed.char));
    const DIGITS: [&str; 9] = ["one", "two", "three", "four", "five", "six", "seven", "eight", "nine"];
    const TEENS: [&str; 10] = [
        "ten",
        "eleven",
        "twelve",
        "thirteen",
        "fourteen",
        "fifteen",
        "sixteen",
        "seventeen",
        "eighteen",
        "nineteen",
    ];
    const TENS: [&str; 8] = ["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"];
    const OTHERS: [(&str, Says); 5] = [
        ("oh", Says::Oh),
        ("o", Says::Oh),
        ("hundred", Says::Hundred),
        ("point", Says::Point),
        ("fourty", Says::Tens(40)),
    ];
    let place = |list: &[&str]| list.iter().position(|known| is(known)).map(|at| at as u32);
    OTHERS
        .iter()
        .find_map(|(word, says)| is(word).then_some(*says))
        .or_else(|| place(&DIGITS).map(|at| Says::Digit(at + 1)))
        .or_else(|| place(&TEENS).map(|at| Says::Teen(at + 10)))
        .or_else(|| place(&TENS).map(|at| Says::Tens((at + 2) * 10)))
}

/// The text with its spoken figures as figures.
pub(super) fn figures(chars: Vec<Placed>) -> Vec<Placed> {
    // Hardly anybody says them: that is seen without a list of the words.
    let says_any = chars.chunk_by(|a, b| a.is_of_a_word() == b.is_of_a_word());
    if !says_any.into_iter().any(|signs| says(signs).is_some()) {
        return chars;
    }
    let words = words(&chars);
    let mut out: Vec<Placed> = Vec::with_capacity(chars.len());
    let mut copied = 0;
    let mut at = 0;
    while at < words.len() {
        let Some((shown, past)) = number(&words, at).filter(|_| is_a_figure(&words, at)) else {
            at += 1;
            continue;
        };
        let (from, to) = (words[at].from, words[past - 1].to);
        out.extend_from_slice(&chars[copied..from]);
        let place = chars[from].at();
        out.extend(shown.chars().map(|char| Placed::new(char, place, false)));
        copied = to;
        at = past;
    }
    out.extend_from_slice(&chars[copied..]);
    out
}

/// "one" and "o" are words of any sentence, "all four" names axles: alone they are no figures.
fn is_a_figure(words: &[Word], at: usize) -> bool {
    let alone = words.get(at + 1).is_none_or(|next| next.says.is_none());
    match words[at].says {
        Some(Says::Digit(1)) => !alone,
        Some(Says::Digit(4)) if alone => at == 0 || !words[at - 1].is("all"),
        Some(Says::Digit(_) | Says::Teen(_) | Says::Tens(_)) => true,
        _ => false,
    }
}

/// The number that begins with this word, as figures, and the word past it.
fn number(words: &[Word], at: usize) -> Option<(String, usize)> {
    let says = |at: usize| words.get(at).and_then(|word| word.says);
    let below_hundred = |at: usize| -> Option<(u32, usize)> {
        match (says(at)?, says(at + 1)) {
            (Says::Tens(tens), Some(Says::Digit(digit))) => Some((tens + digit, at + 2)),
            (Says::Tens(value) | Says::Teen(value), _) => Some((value, at + 1)),
            _ => None,
        }
    };
    let (whole, mut past) = match says(at)? {
        Says::Digit(hundreds) => match says(at + 1) {
            Some(Says::Oh) if matches!(says(at + 2), Some(Says::Digit(_))) => match says(at + 2) {
                Some(Says::Digit(digit)) => (hundreds * 100 + digit, at + 3),
                _ => return None,
            },
            Some(Says::Hundred) => match below_hundred(at + 2) {
                Some((rest, past)) => (hundreds * 100 + rest, past),
                None => (hundreds * 100, at + 2),
            },
            // "five forty" is no section width anybody says; up to "four" a digit before a ten makes hundreds.
            Some(Says::Tens(_) | Says::Teen(_)) if hundreds <= 4 => {
                let (rest, past) = below_hundred(at + 1)?;
                (hundreds * 100 + rest, past)
            }
            _ => (hundreds, at + 1),
        },
        _ => below_hundred(at)?,
    };
    let mut shown = whole.to_string();
    if says(past) == Some(Says::Point) {
        let mut digits = String::new();
        let mut next = past + 1;
        while let Some(said) = says(next) {
            match said {
                Says::Digit(digit) => digits.push_str(&digit.to_string()),
                Says::Oh => digits.push('0'),
                Says::Teen(value) | Says::Tens(value) if digits.is_empty() => {
                    digits.push_str(&value.to_string())
                }
                _ => break,
            }
            next += 1;
        }
        if !digits.is_empty() {
            shown.push('.');
            shown.push_str(&digits);
            past = next;
        }
    } else if (6..=16).contains(&whole)
        && says(past) == Some(Says::Tens(50))
        && says(past + 1).is_some_and(|next| !matches!(next, Says::Digit(_)))
        && at > 0
        && words[at - 1].says.is_some()
    {
        // "thirty three twelve fifty fifteen": widths of flotation tires are said with their half.
        shown.push_str(".50");
        past += 1;
    }
    Some((shown, past))
}

impl Word {
    fn is(&self, word: &str) -> bool {
        self.says.is_none() && word == "all" && self.to - self.from == 3
    }
}

/// Runs of letters with what number each says. Words joined by a hyphen ("forty-five") are two.
fn words(chars: &[Placed]) -> Vec<Word> {
    let mut words = Vec::new();
    let mut at = 0;
    while at < chars.len() {
        if !chars[at].is_of_a_word() {
            // Anything but blanks and hyphens between two words parts them for good.
            if !matches!(chars[at].char, ' ' | '-') {
                words.push(Word { from: at, to: at + 1, says: None });
            }
            at += 1;
            continue;
        }
        let from = at;
        while at < chars.len() && chars[at].is_of_a_word() {
            at += 1;
        }
        words.push(Word { from, to: at, says: says(&chars[from..at]) });
    }
    words
}

#[cfg(test)]
mod tests {
    use super::super::normalize::EvenText;

    #[test]
    fn figures_are_said_the_way_the_trade_says_them() {
        // Common practice, no published source.
        for (said, figures) in [
            ("two twenty five forty five seventeen", "225 45 17"),
            ("two oh five fifty-five sixteen", "205 55 16"),
            ("Three oh five thirty nineteen", "305 30 19"),
            ("thirty three twelve fifty fifteen", "33 12.50 15"),
            ("eighteen by eight and a half plus thirty five", "18 by 8 and a half plus 35"),
            ("nineteen by ten point five", "19 by 10.5"),
            ("five by one fourteen point three", "5 by 114.3"),
            ("one hundred ten", "110"),
            ("all four, this one", "all four, this one"),
            ("set of four", "set of 4"),
        ] {
            let even: String = EvenText::new(said).chars.iter().map(|placed| placed.char).collect();
            assert_eq!(even, figures, "{said}");
        }
    }
}
