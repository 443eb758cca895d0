//! One thing after another: how much, in what, of what.

use super::names::{LikeName, Names};
use super::number;
use super::tokens::{Kind, Token};
use super::words::{Role, Words, is, roles};
use super::{NotSaid, Place, SaidItem, SaidOf, Saying, Unknown};

pub(super) struct Reader<'r, 'a> {
    pub(super) tokens: &'r [Token],
    pub(super) words: &'r Words<'a>,
    pub(super) names: &'r Names<'a>,
}

/// An amount as it was said.
#[derive(Debug, Clone, PartialEq)]
enum Amount {
    Of(SaidOf),
    /// So many of a word that is no measure, which stands at this token.
    Strange(f64, usize),
    /// Some.
    Vague,
}

impl Reader<'_, '_> {
    pub(super) fn read(&self) -> Saying {
        let mut said = Saying::default();
        let (mut last, mut each): (Option<SaidOf>, Option<SaidOf>) = (None, None);
        let mut at = 0;
        while at < self.tokens.len() {
            if self.is_between(at) {
                at += 1;
                continue;
            }
            at = self.one(at, &mut last, &mut each, &mut said).max(at + 1);
        }
        said
    }

    fn word(&self, at: usize) -> Option<&str> {
        self.tokens.get(at).and_then(Token::word)
    }

    fn has(&self, at: usize, role: &Role) -> bool {
        self.word(at).is_some_and(|word| is(word, role))
    }

    /// What stands between two things and says nothing.
    fn is_between(&self, at: usize) -> bool {
        match &self.tokens[at].kind {
            Kind::Break | Kind::Dash => true,
            Kind::Word(word) => is(word, &Role::And) || is(word, &Role::Have),
            Kind::Number(_) => false,
        }
    }

    /// Reads one thing that begins at a place, and says where it ends.
    fn one(
        &self,
        start: usize,
        last: &mut Option<SaidOf>,
        each: &mut Option<SaidOf>,
        said: &mut Saying,
    ) -> usize {
        let (amount, mut at) = self.amount(start, last.as_ref());
        while self.has(at, &Role::Of) {
            at += 1;
        }
        let (mut like, mut end) = self.name(at);
        let mut words_end = end;
        let mut amount = amount;
        // "straw: 4 barrows": the amount follows its name.
        if amount.is_none() {
            let after =
                (end..self.tokens.len()).find(|&next| self.tokens[next].kind != Kind::Dash).unwrap_or(end);
            let is_beside =
                after == end || !matches!(self.tokens.get(end).map(|one| &one.kind), Some(Kind::Break));
            if is_beside
                && let (Some(found), to) = self.amount(after, None)
                && self.ends(to)
            {
                amount = Some(found);
                words_end = end;
                end = to;
            }
        }
        let text = Place { from: self.tokens[start].from, to: self.tokens[(end.max(start + 1)) - 1].to };
        match &amount {
            Some(Amount::Of(of)) => {
                *last = Some(of.clone());
                // "two buckets each of ash and lime"
                *each = (start..at).any(|at| self.has(at, &Role::Each)).then(|| of.clone());
            }
            Some(_) => *each = None,
            None => amount = each.clone().map(Amount::Of),
        }
        if self.is_water(at, words_end)
            && let Some(litres) = amount.as_ref().and_then(|amount| self.litres(amount))
        {
            said.water_l += litres;
            return end;
        }
        if words_end == at {
            like = None;
        }
        self.put(said, (at, words_end), text, like, amount);
        end
    }

    /// So much water [L].
    fn litres(&self, amount: &Amount) -> Option<f64> {
        let Amount::Of(of) = amount else { return None };
        let litres = match of {
            SaidOf::Litres(litres) | SaidOf::Kilograms(litres) => *litres,
            SaidOf::Measures(count, id) => count * self.words.litres(id)?,
            SaidOf::Number(_) => return None,
        };
        (litres >= 0.0).then_some(litres)
    }

    fn put(
        &self,
        said: &mut Saying,
        (at, end): (usize, usize),
        text: Place,
        like: Option<LikeName<'_>>,
        amount: Option<Amount>,
    ) {
        let of = match &amount {
            Some(Amount::Of(of)) => Some(of.clone()),
            Some(Amount::Strange(count, _)) => Some(SaidOf::Number(*count)),
            Some(Amount::Vague) | None => None,
        };
        let what = match (&like, &amount) {
            (None, _) => NotSaid::Material,
            (_, None | Some(Amount::Vague)) => NotSaid::Amount,
            (_, Some(Amount::Of(of))) if of.count() <= 0.0 => NotSaid::Amount,
            (_, Some(Amount::Strange(..) | Amount::Of(SaidOf::Number(_)))) => NotSaid::Measure,
            (Some(like), Some(Amount::Of(of))) => {
                said.items.push(SaidItem {
                    material: like.material.to_owned(),
                    lot: like.lot.map(str::to_owned),
                    of: of.clone(),
                    place: text,
                });
                return;
            }
        };
        let spoken: Vec<&str> = self.tokens[at..end].iter().filter_map(Token::word).collect();
        let nearest = match (what, &amount) {
            // To look for the nearest is dear, and nobody is asked a hundred things.
            _ if said.unknown.len() >= MOST_ASKED => Vec::new(),
            (NotSaid::Material, _) if !spoken.is_empty() => self
                .names
                .nearest(&spoken.join(" "), 3)
                .into_iter()
                .map(|like| like.material.to_owned())
                .collect(),
            (NotSaid::Measure, Some(Amount::Strange(_, at))) => {
                self.words.nearest(self.word(*at).unwrap_or_default())
            }
            (NotSaid::Measure, _) => self.words.nearest(""),
            _ => Vec::new(),
        };
        said.unknown.push(Unknown {
            what,
            place: text,
            material: like.map(|like| like.material.to_owned()),
            lot: like.and_then(|like| like.lot).map(str::to_owned),
            of,
            nearest,
        });
    }

    /// An amount that begins at a place, and where it ends. "2 of" counts in what was counted before.
    fn amount(&self, start: usize, last: Option<&SaidOf>) -> (Option<Amount>, usize) {
        let mut at = self.skipped(start);
        // "some", "a few": there is some, and how much is to be asked.
        let vague = if self.has(at, &Role::Vague) {
            Some(at)
        } else {
            Some(at + 1).filter(|&at| self.has(at, &Role::Vague))
        };
        if let Some(vague) = vague.filter(|&vague| vague == at || number::at(self.tokens, at).is_some()) {
            let after = self.skipped(vague + 1);
            return (Some(Amount::Vague), self.unit(after).map_or(after, |(_, to)| to));
        }
        let number = number::at(self.tokens, at);
        if let Some((_, to)) = number {
            at = self.skipped(to);
            // "a couple of barrows"
            if self.has(at, &Role::Of) && self.unit(at + 1).is_some() {
                at += 1;
            }
        }
        let count = number.map(|(value, _)| value);
        if let Some((of, to)) = self.unit(at) {
            // "a barrow and a half of", where nothing else begins.
            let more = number::and_a_half(self.tokens, to).filter(|(_, to)| self.unit(*to).is_none());
            let (count, to) = match (count, more) {
                (count, Some((more, to))) => (count.unwrap_or(1.0) + more, to),
                (Some(count), None) => (count, to),
                // A measure alone is one of it, a unit alone is nothing.
                (None, None) if matches!(of, SaidOf::Measures(..)) => (1.0, to),
                (None, None) => return (None, start),
            };
            let of = match of {
                SaidOf::Measures(_, id) => SaidOf::Measures(count, id),
                SaidOf::Kilograms(each) => SaidOf::Kilograms(count * each),
                SaidOf::Litres(each) => SaidOf::Litres(count * each),
                SaidOf::Number(_) => SaidOf::Number(count),
            };
            return (Some(Amount::Of(of)), self.skipped(to));
        }
        let Some(count) = count else { return (None, start) };
        // "3 skips of straw": a word for a measure that is not known.
        if self.word(at).is_some() && self.has(at + 1, &Role::Of) && self.name(at).0.is_none() {
            return (Some(Amount::Strange(count, at)), at + 1);
        }
        let of = match last {
            Some(SaidOf::Measures(_, id)) => SaidOf::Measures(count, id.clone()),
            Some(SaidOf::Kilograms(_)) if self.has(at, &Role::Of) => SaidOf::Kilograms(count),
            Some(SaidOf::Litres(_)) if self.has(at, &Role::Of) => SaidOf::Litres(count),
            _ => SaidOf::Number(count),
        };
        (Some(Amount::Of(of)), at)
    }

    fn skipped(&self, mut at: usize) -> usize {
        while self.has(at, &Role::Skip) || self.has(at, &Role::Each) {
            at += 1;
        }
        at
    }

    /// A unit or a measure of one or two words, and where it ends.
    fn unit(&self, at: usize) -> Option<(SaidOf, usize)> {
        let first = self.word(at)?;
        let two = self.word(at + 1).map(|second| format!("{first} {second}"));
        for (said, to) in two.as_deref().map(|two| (two, at + 2)).into_iter().chain([(first, at + 1)]) {
            if let Some(id) = self.words.measure(said) {
                return Some((SaidOf::Measures(1.0, id.to_owned()), to));
            }
            let unit = roles(said).iter().find_map(|role| match role {
                Role::Kilograms(each) => Some(SaidOf::Kilograms(*each)),
                Role::Litres(each) => Some(SaidOf::Litres(*each)),
                _ => None,
            });
            if let Some(unit) = unit {
                return Some((unit, to));
            }
        }
        // A slip of the pen, where something follows that it could be of.
        let is_of = self.has(at + 1, &Role::Of);
        let misspelt = self.words.misspelt(first).filter(|_| is_of && self.names.exact(&[first]).is_none());
        misspelt.map(|id| (SaidOf::Measures(1.0, id.to_owned()), at + 1))
    }

    /// What is named at a place, and where the name ends.
    fn name(&self, at: usize) -> (Option<LikeName<'_>>, usize) {
        let hard = |place: usize| matches!(self.tokens[place].kind, Kind::Break | Kind::Dash);
        let is_stop = |place: usize| {
            hard(place) || matches!(self.tokens[place].kind, Kind::Number(_)) || self.has(place, &Role::And)
        };
        let end = (at..self.tokens.len()).find(|&place| is_stop(place)).unwrap_or(self.tokens.len());
        let words = |to: usize| -> Vec<&str> { self.tokens[at..to].iter().filter_map(Token::word).collect() };
        // A name may hold an "and" or a comma, as "twigs and brushwood".
        let longest = (at + MOST_WORDS).min(self.tokens.len());
        for to in ((end + 1)..=longest).rev().filter(|&to| self.is_name_to(end, to)) {
            if let Some(like) = self.names.exact(&words(to)) {
                return (Some(like), to);
            }
        }
        if end == at {
            return (None, at);
        }
        let all = words(end);
        // Where it comes from is no part of its name.
        let told = (at..end).find(|&place| place > at && self.has(place, &Role::From));
        let named = told.map_or_else(|| all.clone(), words);
        let like = self.names.meant(&all).or_else(|| self.names.meant(&named));
        if like.is_some() {
            return (like, end);
        }
        // Nothing stands between two things: "straw a bucket of scraps".
        for to in (at + 1..end.min(at + 2 * MOST_WORDS)).rev() {
            if self.begins_amount(to)
                && let Some(like) = self.names.meant(&words(to))
            {
                return (Some(like), to);
            }
        }
        (None, end)
    }

    /// Whether a name may go on from one token to another: words, and with a word at its end.
    fn is_name_to(&self, from: usize, to: usize) -> bool {
        let is_word = |at: usize| !matches!(self.tokens[at].kind, Kind::Number(_) | Kind::Dash);
        (from..to).all(is_word)
            && self.word(to - 1).is_some_and(|last| !is(last, &Role::And) && !is(last, &Role::Of))
    }

    /// Whether a new amount begins: a number and a measure.
    fn begins_amount(&self, at: usize) -> bool {
        number::at(self.tokens, at).is_some_and(|(_, to)| self.unit(self.skipped(to)).is_some())
    }

    /// Whether a thing may end here.
    fn ends(&self, at: usize) -> bool {
        at >= self.tokens.len()
            || matches!(self.tokens[at].kind, Kind::Break)
            || self.has(at, &Role::And)
            || self.word(at).is_some() && !self.has(at, &Role::Of)
    }

    /// Whether what is named is water, wherever it comes from; water hyacinth is none.
    fn is_water(&self, at: usize, end: usize) -> bool {
        let end = (at + 1..end).find(|&place| self.has(place, &Role::From)).unwrap_or(end);
        let said =
            (at..end).filter(|&place| !self.has(place, &Role::Trim)).filter_map(|place| self.word(place));
        is(&said.collect::<Vec<_>>().join(" "), &Role::Water)
    }
}

/// So many things are asked back with what is nearest.
const MOST_ASKED: usize = 20;

/// Words of the longest name.
const MOST_WORDS: usize = 8;
