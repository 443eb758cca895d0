//! The causes of trouble, as rows of `data/causes.csv`.
//!
//! `needs` holds alternatives with `|`, each of clues joined by `&`; `for` and `against` hold clues with how
//! much each weighs; `never` what rules the cause out.

use std::sync::LazyLock;

use super::clue::Clue;
use super::remedy::ActKind;
use crate::base::words::closed_list;

closed_list! {
    /// What may be wrong with a heap, in the order of the table.
    CauseCode {
        /// It may catch fire by itself.
        FireRisk = "fire-risk",
        /// Liquid runs away.
        Leaking = "leaking",
        /// Over 70 °C life dies back.
        TooHot = "too-hot",
        /// It holds a weed-killer that persists.
        WeedKiller = "weed-killer",
        /// Scraps lie open to flies and rats.
        ScrapsExposed = "scraps-exposed",
        /// Water fills the voids.
        TooWet = "too-wet",
        /// No air, though it is not sodden.
        Packed = "packed",
        /// It heated, then dried.
        DriedOut = "dried-out",
        /// It never warmed, or died down, for want of water.
        TooDry = "too-dry",
        /// It heated, then its air was used up.
        AirUsedUp = "air-used-up",
        /// Ash or lime drives ammonia off.
        AshWithManure = "ash-with-manure",
        /// More nitrogen than the carbon can hold.
        TooGreen = "too-green",
        /// Nitrogen is short.
        TooBrown = "too-brown",
        /// It cannot keep its heat.
        TooSmall = "too-small",
        /// Its pieces have too little surface.
        TooCoarse = "too-coarse",
        /// The air takes its heat.
        ColdWeather = "cold-weather",
        /// The middle is done, the outside is not.
        OutsideRaw = "outside-raw",
        /// Seeds live in it.
        WasNotHot = "was-not-hot",
        /// Its food is used up.
        Done = "done",
        /// It is too young to be warm.
        TooSoon = "too-soon",
    }
}

closed_list! {
    /// What would decide.
    Check {
        /// A thermometer in the middle.
        Thermometer = "thermometer",
        /// A look at the ground around it.
        LookBelow = "look-below",
        /// Beans grown in it.
        BeanTest = "bean-test",
        /// It is opened and looked into.
        LookInside = "look-inside",
        /// A handful from an arm deep is squeezed.
        SqueezeInside = "squeeze-inside",
        /// What ash and lime went in is counted.
        CountAsh = "count-ash",
        /// A handful from the middle is smelled at.
        SmellInside = "smell-inside",
        /// What really went in is counted.
        CountIn = "count-in",
        /// It is measured.
        MeasureHeight = "measure-height",
        /// It is turned, watered and watched for three days.
        TurnAndWatch = "turn-and-watch",
        /// A stick stands in it for ten minutes.
        Stick = "stick",
    }
}

/// A cause.
#[derive(Debug, Clone, PartialEq)]
pub struct Cause {
    /// Which.
    pub code: CauseCode,
    /// How grave what it may lead to is: 1 the gravest.
    pub gravity: u8,
    /// Whether nothing is wrong where it holds.
    pub is_harmless: bool,
    /// Groups of clues, of one of which all must be found.
    pub needs: Vec<Vec<Clue>>,
    /// What speaks for it, and how much.
    pub speaks_for: Vec<(Clue, f64)>,
    /// What speaks against it, and how much.
    pub speaks_against: Vec<(Clue, f64)>,
    /// What rules it out.
    pub never: Vec<Clue>,
    /// What would decide.
    pub check: Check,
    /// What mends it.
    pub acts: Vec<ActKind>,
}

impl CauseCode {
    /// Its row.
    #[must_use]
    pub fn row(self) -> &'static Cause {
        &all()[self as usize]
    }
}

/// Every cause, in the order of the table.
#[must_use]
pub fn all() -> &'static [Cause] {
    &LIST
}

static LIST: LazyLock<Vec<Cause>> = LazyLock::new(|| {
    read(include_str!("../../../data/causes.csv"))
        .expect("the shipped table is read by a test of this module")
});

fn read(text: &str) -> Result<Vec<Cause>, String> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    reader.records().map(|record| row(&record.map_err(|error| error.to_string())?)).collect()
}

fn row(record: &csv::StringRecord) -> Result<Cause, String> {
    let cells: Vec<&str> = record.iter().collect();
    let [code, gravity, harmless, needs, speaks_for, against, never, check, acts] = cells[..] else {
        return Err(format!("{record:?}: nine cells"));
    };
    let bad = |what: &str| format!("{code}: {what}");
    let clue = |word: &str| Clue::parse(word).ok_or_else(|| bad(word));
    let list = |text: &str| -> Vec<String> {
        text.split(';').filter(|word| !word.is_empty()).map(str::to_owned).collect()
    };
    let weighed = |text: &str| -> Result<Vec<(Clue, f64)>, String> {
        let each = list(text);
        let pairs = each.iter().map(|pair| {
            let (word, weight) = pair.split_once(':').ok_or_else(|| bad(pair))?;
            let weight: f64 = weight.parse().map_err(|_| bad(pair))?;
            if (0.0..1.0).contains(&weight) { Ok((clue(word)?, weight)) } else { Err(bad(pair)) }
        });
        pairs.collect()
    };
    Ok(Cause {
        code: CauseCode::parse(code).ok_or_else(|| bad("unknown"))?,
        gravity: gravity.parse().map_err(|_| bad("gravity"))?,
        is_harmless: harmless == "yes",
        needs: needs
            .split('|')
            .map(|group| group.split('&').map(clue).collect())
            .collect::<Result<_, _>>()?,
        speaks_for: weighed(speaks_for)?,
        speaks_against: weighed(against)?,
        never: list(never).iter().map(|word| clue(word)).collect::<Result<_, _>>()?,
        check: Check::parse(check).ok_or_else(|| bad(check))?,
        acts: list(acts)
            .iter()
            .map(|word| ActKind::parse(word).ok_or_else(|| bad(word)))
            .collect::<Result<_, _>>()?,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_table_reads_and_every_cause_stands_at_its_place() {
        let rows = read(include_str!("../../../data/causes.csv")).unwrap_or_else(|bad| panic!("{bad}"));
        let codes: Vec<CauseCode> = rows.iter().map(|row| row.code).collect();
        assert_eq!(codes, CauseCode::ALL);
    }

    /// What rules a cause out speaks neither for it nor against it, and what it needs speaks for it.
    #[test]
    fn every_row_hangs_together() {
        for row in all() {
            let code = row.code.as_str();
            assert!(!row.acts.is_empty(), "{code}");
            for clue in &row.never {
                let is_weighed = |list: &[(Clue, f64)]| list.iter().any(|(other, _)| other == clue);
                assert!(!is_weighed(&row.speaks_for) && !is_weighed(&row.speaks_against), "{code}: {clue:?}");
            }
            for group in &row.needs {
                let speaks = group.iter().any(|clue| row.speaks_for.iter().any(|(other, _)| other == clue));
                assert!(speaks, "{code}: {group:?}");
            }
        }
    }

    #[test]
    fn a_row_that_cannot_be_read_is_named() {
        let head = "code,gravity,harmless,needs,for,against,never,check,acts\n";
        for (bad, told) in [
            ("too-wet,4,no,hail,cool:0.5,,,stick,turn", "hail"),
            ("too-wet,4,no,cool,cool:1.5,,,stick,turn", "cool:1.5"),
            ("too-wet,4,no,cool,cool:0.5,,,stick,sing", "sing"),
        ] {
            let error = read(&format!("{head}{bad}\n")).expect_err("refused");
            assert!(error.contains(told), "{error}");
        }
    }
}
