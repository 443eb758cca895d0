//! Where practitioners differ: questions with more than one good answer, of which a site follows one.
//!
//! An answer is a row of `data/schools.csv`, with the figures that follow from it. What is usual is followed
//! where a site has not chosen; why each is held stands with its words.
//!
//! # Source
//! Hours at 55 °C: 40 CFR 503, appendix B asks for fifteen days of what is turned; that three days after each
//! of three turns do as much in a small heap is practice, weaker, and many rules do not know it. Moisture: 50 to
//! 60 % after Rynk 1992 (NRAES-54), 40 to 50 where rain is feared, about 60 where the frame is coarse (Haug
//! 1993). Heat: over 65 °C fewer kinds of microbes work (Strom 1985, Appl. Environ. Microbiol. 50), up to 68
//! more is killed.

use std::sync::LazyLock;

use crate::base::words::closed_list;

closed_list! {
    /// A question on which schools differ, in the order of the table.
    Question {
        /// How long at 55 °C.
        HotHours = "hot-hours",
        /// When it is turned.
        TurnBy = "turn-by",
        /// Whether it is covered.
        Cover = "cover",
        /// How moist it is kept.
        Moisture = "moisture",
        /// How hot it may get.
        Heat = "heat",
    }
}

closed_list! {
    /// An answer to one of them.
    SchoolId {
        /// Fifteen days, with five turns.
        FifteenDays = "fifteen-days",
        /// Three days after each of three turns.
        ThreeDaysEach = "three-days-each",
        /// When the heap asks for it: too hot, or hot and falling.
        ByHeat = "by-heat",
        /// When so many days are over.
        ByCalendar = "by-calendar",
        /// Covered against rain and sun.
        Covered = "covered",
        /// Open, but in long rain.
        Open = "open",
        /// 50 to 60 %.
        FiftyToSixty = "fifty-to-sixty",
        /// 40 to 50 %.
        FortyToFifty = "forty-to-fifty",
        /// 55 to 65 %.
        AboutSixty = "about-sixty",
        /// Up to 68 °C.
        Hot = "hot",
        /// Up to 60 °C.
        Mild = "mild",
    }
}

/// An answer, with what follows from it.
#[derive(Debug, Clone, PartialEq)]
pub struct School {
    /// To which question.
    pub question: Question,
    /// Which.
    pub id: SchoolId,
    /// Whether it is followed where nothing was chosen.
    pub is_usual: bool,
    /// A figure from which on: hours at 55 °C, % of water.
    pub low: Option<f64>,
    /// A figure up to which: % of water, °C.
    pub high: Option<f64>,
}

impl SchoolId {
    /// Its row.
    #[must_use]
    pub fn row(self) -> &'static School {
        &LIST[self as usize]
    }
}

/// Every answer, question by question.
#[must_use]
pub fn all() -> &'static [School] {
    &LIST
}

/// The answers that are followed: one to each question.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Schools([SchoolId; Question::ALL.len()]);

impl Default for Schools {
    fn default() -> Self {
        Self::chosen(&[])
    }
}

impl Schools {
    /// What was chosen, and the usual answer to the rest; of two to one question the later counts.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::tend::school::{Question, SchoolId, Schools};
    /// let mild = Schools::chosen(&[SchoolId::Mild]);
    /// assert_eq!(mild.of(Question::Heat).high, Some(60.0));
    /// assert_eq!(mild.of(Question::TurnBy).id, SchoolId::ByHeat);
    /// ```
    #[must_use]
    pub fn chosen(ids: &[SchoolId]) -> Self {
        let answer = |question: &Question| {
            let chosen = ids.iter().rev().find(|id| id.row().question == *question).copied();
            let usual = || all().iter().find(|row| row.question == *question && row.is_usual);
            chosen.or_else(|| usual().map(|row| row.id)).unwrap_or(SchoolId::FifteenDays)
        };
        let mut of = [SchoolId::FifteenDays; Question::ALL.len()];
        for (place, question) in Question::ALL.iter().enumerate() {
            of[place] = answer(question);
        }
        Self(of)
    }

    /// The answer to a question.
    #[must_use]
    pub fn of(&self, question: Question) -> &'static School {
        self.0[question as usize].row()
    }

    /// Whether it is the one followed.
    #[must_use]
    pub fn follows(&self, id: SchoolId) -> bool {
        self.of(id.row().question).id == id
    }

    /// The core is turned over this [°C].
    #[must_use]
    pub fn turn_over_c(&self) -> f64 {
        self.of(Question::Heat).high.unwrap_or(68.0)
    }
}

static LIST: LazyLock<Vec<School>> = LazyLock::new(|| {
    read(include_str!("../../data/schools.csv")).expect("the shipped table is read by a test of this module")
});

fn read(text: &str) -> Result<Vec<School>, String> {
    let mut reader = csv::Reader::from_reader(text.as_bytes());
    reader
        .records()
        .map(|record| {
            let record = record.map_err(|error| error.to_string())?;
            let bad = || format!("{record:?}");
            let figure = |text: &str| match text {
                "" => Ok(None),
                text => text.parse().map(Some).map_err(|_| bad()),
            };
            Ok(School {
                question: Question::parse(&record[0]).ok_or_else(bad)?,
                id: SchoolId::parse(&record[1]).ok_or_else(bad)?,
                is_usual: &record[2] == "yes",
                low: figure(&record[3])?,
                high: figure(&record[4])?,
            })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_question_has_answers_and_one_of_them_is_usual() {
        let rows = read(include_str!("../../data/schools.csv")).unwrap_or_else(|bad| panic!("{bad}"));
        assert_eq!(rows.iter().map(|row| row.id).collect::<Vec<_>>(), SchoolId::ALL);
        for question in Question::ALL {
            let of: Vec<_> = rows.iter().filter(|row| row.question == *question).collect();
            assert!(of.len() >= 2, "{question:?}");
            assert_eq!(of.iter().filter(|row| row.is_usual).count(), 1, "{question:?}");
        }
    }

    #[test]
    fn of_two_answers_to_one_question_the_later_counts() {
        let of = Schools::chosen(&[SchoolId::Open, SchoolId::Mild, SchoolId::Covered]);
        assert!(of.follows(SchoolId::Covered) && of.follows(SchoolId::Mild) && !of.follows(SchoolId::Open));
        assert_eq!(of.turn_over_c(), 60.0);
        assert_eq!(Schools::default().turn_over_c(), 68.0);
    }
}
