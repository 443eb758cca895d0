//! A text taken apart: numbers, words, and what stands between them.

use crate::stock::material::folded;

/// What a token is.
#[derive(Debug, Clone, PartialEq)]
pub(super) enum Kind {
    /// A number in digits, as `4`, `2,5`, `1/2` or `½`.
    Number(f64),
    /// A word, in small letters and without accents.
    Word(String),
    /// A comma, a line's end and the like.
    Break,
    /// A colon, a dash or an equals sign: within a line, between a name and its amount.
    Dash,
}

/// A token and where it stands, in characters.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Token {
    pub(super) kind: Kind,
    pub(super) from: usize,
    pub(super) to: usize,
}

impl Token {
    /// The word, if it is one.
    pub(super) fn word(&self) -> Option<&str> {
        match &self.kind {
            Kind::Word(word) => Some(word),
            _ => None,
        }
    }
}

const fn fraction(letter: char) -> Option<f64> {
    match letter {
        '½' => Some(0.5),
        '¼' => Some(0.25),
        '¾' => Some(0.75),
        '⅓' => Some(1.0 / 3.0),
        '⅔' => Some(2.0 / 3.0),
        '⅛' => Some(0.125),
        _ => None,
    }
}

/// Takes a text apart.
pub(super) fn of(text: &str) -> Vec<Token> {
    let letters: Vec<char> = text.chars().collect();
    let mut tokens: Vec<Token> = Vec::new();
    let mut at = 0;
    while at < letters.len() {
        let from = at;
        let letter = letters[at];
        let is_minus = letter == '-'
            && letters.get(at + 1).is_some_and(char::is_ascii_digit)
            && (at == 0 || letters[at - 1].is_whitespace());
        let kind = if is_minus {
            let (value, to) = number(&letters, at + 1);
            at = to;
            Some(Kind::Number(-value))
        } else if letter.is_ascii_digit() {
            let (value, to) = number(&letters, at);
            at = to;
            Some(Kind::Number(value))
        } else if let Some(value) = fraction(letter) {
            at += 1;
            Some(Kind::Number(value))
        } else if letter.is_alphabetic() {
            while at < letters.len() && (letters[at].is_alphanumeric() || is_inside(&letters, at)) {
                at += 1;
            }
            Some(Kind::Word(folded(&letters[from..at].iter().collect::<String>())))
        } else {
            at += 1;
            match letter {
                ',' | ';' | '\n' | '+' | '&' | '•' | '*' | '|' => Some(Kind::Break),
                // A point ends a sentence; within a number it was read with it.
                '.' if at >= letters.len() || letters[at].is_whitespace() => Some(Kind::Break),
                ':' | '-' | '–' | '—' | '=' => Some(Kind::Dash),
                _ => None,
            }
        };
        if let Some(kind) = kind {
            tokens.push(Token { kind, from, to: at });
        }
    }
    tokens
}

/// An apostrophe or a hyphen between two letters is a part of the word.
fn is_inside(letters: &[char], at: usize) -> bool {
    matches!(letters[at], '\'' | '’' | '-')
        && letters.get(at + 1).is_some_and(|next| next.is_alphabetic())
        && at > 0
        && letters[at - 1].is_alphabetic()
}

/// A number that begins at a digit, and where it ends.
fn number(letters: &[char], mut at: usize) -> (f64, usize) {
    let whole = digits(letters, &mut at);
    let mut value = whole;
    // Thousands in groups of three: 1,050 and 12 000 are no decimals.
    while matches!(letters.get(at), Some(',')) && group(letters, at + 1) && value >= 1.0 {
        at += 1;
        value = value * 1000.0 + digits(letters, &mut at);
    }
    let is_decimal =
        matches!(letters.get(at), Some('.' | ',')) && letters.get(at + 1).is_some_and(char::is_ascii_digit);
    if is_decimal {
        at += 1;
        let start = at;
        let decimals = digits(letters, &mut at);
        value += decimals / 10_f64.powi((at - start) as i32);
    }
    if matches!(letters.get(at), Some('/' | '⁄')) && letters.get(at + 1).is_some_and(char::is_ascii_digit) {
        at += 1;
        let below = digits(letters, &mut at);
        return (if below > 0.0 { value / below } else { value }, at);
    }
    if let Some(part) = letters.get(at).copied().and_then(fraction) {
        return (value + part, at + 1);
    }
    (value, at)
}

/// Exactly three digits.
fn group(letters: &[char], at: usize) -> bool {
    let is_digit = |place: usize| letters.get(place).is_some_and(char::is_ascii_digit);
    (at..at + 3).all(is_digit) && !is_digit(at + 3)
}

/// Digits as a number; more than there can be of anything stay the largest there is.
fn digits(letters: &[char], at: &mut usize) -> f64 {
    let mut value = 0.0_f64;
    while let Some(digit) = letters.get(*at).and_then(|letter| letter.to_digit(10)) {
        value = (value * 10.0 + f64::from(digit)).min(1e15);
        *at += 1;
    }
    value
}
