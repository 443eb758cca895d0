//! A number in digits or words at a place of the text.

use super::tokens::{Kind, Token};
use super::words::{Role, is, roles};

/// The number that begins at a place, and where it ends; none if there is none.
pub(super) fn at(tokens: &[Token], start: usize) -> Option<(f64, usize)> {
    let (mut value, mut at) = one(tokens, start)?;
    // "a couple", "a hundred", "a half": the article counts nothing.
    if is_article(tokens, start)
        && let Some((more, to)) = one(tokens, at).or_else(|| Some((times(word(tokens, at)?)?, at + 1)))
    {
        (value, at) = (more, to);
    }
    while let Some(next) = tokens.get(at) {
        // "2 1/2"
        if let (Kind::Number(part), true) = (&next.kind, value.fract() == 0.0)
            && (0.0..1.0).contains(part)
        {
            value += part;
            at += 1;
            continue;
        }
        let Some(said) = next.word() else { break };
        if let Some(times) = times(said) {
            value *= times;
        } else if let (Some(part), true) = (part(said), value >= 1.0) {
            // "three quarters"
            value *= part;
        } else if let Some((more, to)) = and_a_half(tokens, at) {
            value += more;
            at = to;
            continue;
        } else if value < 1.0 && is_article(tokens, at) {
            // "half a barrow", "half a dozen"
        } else if value < 1.0 && is(said, &Role::Of) && is_article(tokens, at + 1) {
            // "a quarter of a barrow"
            at += 1;
        } else {
            break;
        }
        at += 1;
    }
    Some((value, at))
}

/// "and a half", "y medio": what is added to a number, or to one of a measure, and where it ends.
pub(super) fn and_a_half(tokens: &[Token], start: usize) -> Option<(f64, usize)> {
    if !word(tokens, start).is_some_and(|first| is(first, &Role::And)) {
        return None;
    }
    let at = if is_article(tokens, start + 1) { start + 2 } else { start + 1 };
    let part = part(word(tokens, at)?)?;
    // "and half a bucket of scraps" begins something else.
    (!is_article(tokens, at + 1)).then_some((part, at + 1))
}

fn word(tokens: &[Token], at: usize) -> Option<&str> {
    tokens.get(at).and_then(Token::word)
}

fn is_article(tokens: &[Token], at: usize) -> bool {
    word(tokens, at).is_some_and(|word| matches!(word, "a" | "an" | "un" | "una"))
}

fn one(tokens: &[Token], at: usize) -> Option<(f64, usize)> {
    match &tokens.get(at)?.kind {
        Kind::Number(value) => Some((*value, at + 1)),
        Kind::Word(word) => roles(word).iter().find_map(|role| match role {
            Role::Number(value) | Role::Part(value) => Some((*value, at + 1)),
            _ => None,
        }),
        _ => None,
    }
}

fn times(word: &str) -> Option<f64> {
    roles(word).iter().find_map(|role| match role {
        Role::Times(value) => Some(*value),
        // "two dozen", "half a dozen"
        Role::Number(value) if matches!(word, "dozen" | "docena") => Some(*value),
        _ => None,
    })
}

fn part(word: &str) -> Option<f64> {
    roles(word).iter().find_map(|role| match role {
        Role::Part(value) => Some(*value),
        _ => None,
    })
}
