//! The words of the log: what is read of a heap, seen at it and done to it.
//!
//! One vocabulary for the screen, files, devices and diagnosis. A kind is a variant of [`Tended`] with
//! its fields; where a hand or a nose judges, the words are closed lists (`words`).

use serde::{Deserialize, Serialize};

use super::heat::Pouring;
use crate::log::EntryKind;

mod check;
mod one;
mod words;

pub use check::LONGEST_NOTE;
use one::one_or_more;
pub use words::{AeratedBy, BeansGrew, CoverWith, ReadBy, Sign, Smell, Source, Spot, SqueezeFeel, StickFeel};

/// What was read, seen or done. What was put in is given as whatever the records, the API or the model
/// know of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "kebab-case", deny_unknown_fields)]
pub enum Tended<I> {
    /// A temperature at one point.
    Temperature {
        /// How warm, °C.
        temp_c: f64,
        /// Where.
        #[serde(default = "core")]
        place: Spot,
        /// How deep, cm.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        depth_cm: Option<f64>,
        /// By what.
        #[serde(default = "thermometer")]
        by: ReadBy,
    },
    /// A stick that stood in the middle.
    Stick {
        /// What it felt like.
        feel: StickFeel,
    },
    /// A handful squeezed.
    Squeeze {
        /// What it felt like.
        feel: SqueezeFeel,
        /// From where.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        place: Option<Spot>,
    },
    /// What it smelled of.
    Smell {
        /// Each smell; one alone may stand without a list.
        #[serde(deserialize_with = "one_or_more")]
        smell: Vec<Smell>,
    },
    /// How high it stood.
    Height {
        /// Above ground, cm.
        height_cm: f64,
    },
    /// What was seen.
    Seen {
        /// Each sign; one alone may stand without a list.
        #[serde(deserialize_with = "one_or_more")]
        signs: Vec<Sign>,
    },
    /// It was turned.
    Turn {
        /// How well outside and inside were mixed, 0 to 1.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        mixing: Option<f64>,
        /// Into which bay, in the person's words.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        to: Option<String>,
    },
    /// It was watered.
    Water {
        /// With so much, litres.
        litres: f64,
        /// How.
        #[serde(default = "even")]
        spread: Pouring,
    },
    /// More was put in.
    Add {
        /// What.
        items: Vec<I>,
    },
    /// It was covered.
    Cover {
        /// With what.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        with: Option<CoverWith>,
    },
    /// The cover was taken off.
    Uncover,
    /// It rained.
    Rain {
        /// How much, mm.
        mm: f64,
        /// For how long, hours.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        hours: Option<f64>,
    },
    /// Air was given without turning.
    Aerate {
        /// How.
        how: AeratedBy,
    },
    /// Worms were put in.
    Worms {
        /// How many, kg.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        kg: Option<f64>,
    },
    /// What a bin or worm bed was fed.
    Feed {
        /// What.
        items: Vec<I>,
    },
    /// Liquid that was drained or caught, and given back.
    Liquid {
        /// How much, litres.
        litres: f64,
        /// Where it went, in the person's words.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        to: Option<String>,
    },
    /// It was moved.
    Move,
    /// Something else worth keeping; the note says what.
    Note,
    /// A photo.
    Photo,
    /// A closed bag of it was opened.
    ClosedBag {
        /// What it smelled of.
        #[serde(deserialize_with = "one_or_more")]
        smell: Vec<Smell>,
        /// How long it had stood, days.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        days: Option<f64>,
    },
    /// Seeds that came up in it, beside as many in soil.
    Germination {
        /// Sown in it.
        sown: u32,
        /// Came up.
        up: u32,
        /// Sown in soil.
        control_sown: u32,
        /// Came up there.
        control_up: u32,
    },
    /// Beans grown in it.
    BeanTest {
        /// How.
        grew: BeansGrew,
    },
}

const fn core() -> Spot {
    Spot::Core
}

const fn thermometer() -> ReadBy {
    ReadBy::Thermometer
}

const fn even() -> Pouring {
    Pouring::Even
}

impl<I> Tended<I> {
    /// What happened, as a word.
    #[must_use]
    pub const fn kind(&self) -> EntryKind {
        match self {
            Self::Temperature { .. } => EntryKind::Temperature,
            Self::Stick { .. } => EntryKind::Stick,
            Self::Squeeze { .. } => EntryKind::Squeeze,
            Self::Smell { .. } => EntryKind::Smell,
            Self::Height { .. } => EntryKind::Height,
            Self::Seen { .. } => EntryKind::Seen,
            Self::Turn { .. } => EntryKind::Turn,
            Self::Water { .. } => EntryKind::Water,
            Self::Add { .. } => EntryKind::Add,
            Self::Cover { .. } => EntryKind::Cover,
            Self::Uncover => EntryKind::Uncover,
            Self::Rain { .. } => EntryKind::Rain,
            Self::Aerate { .. } => EntryKind::Aerate,
            Self::Worms { .. } => EntryKind::Worms,
            Self::Feed { .. } => EntryKind::Feed,
            Self::Liquid { .. } => EntryKind::Liquid,
            Self::Move => EntryKind::Move,
            Self::Note => EntryKind::Note,
            Self::Photo => EntryKind::Photo,
            Self::ClosedBag { .. } => EntryKind::ClosedBag,
            Self::Germination { .. } => EntryKind::Germination,
            Self::BeanTest { .. } => EntryKind::BeanTest,
        }
    }

    /// What was put in, of kinds that put something in.
    #[must_use]
    pub fn items(&self) -> &[I] {
        match self {
            Self::Add { items } | Self::Feed { items } => items,
            _ => &[],
        }
    }

    /// The same, with what was put in as somebody else knows it.
    ///
    /// # Errors
    /// What `other` refuses.
    pub fn with_items<J, E>(self, other: impl FnOnce(Vec<I>) -> Result<Vec<J>, E>) -> Result<Tended<J>, E> {
        Ok(match self {
            Self::Add { items } => Tended::Add { items: other(items)? },
            Self::Feed { items } => Tended::Feed { items: other(items)? },
            Self::Temperature { temp_c, place, depth_cm, by } => {
                Tended::Temperature { temp_c, place, depth_cm, by }
            }
            Self::Stick { feel } => Tended::Stick { feel },
            Self::Squeeze { feel, place } => Tended::Squeeze { feel, place },
            Self::Smell { smell } => Tended::Smell { smell },
            Self::Height { height_cm } => Tended::Height { height_cm },
            Self::Seen { signs } => Tended::Seen { signs },
            Self::Turn { mixing, to } => Tended::Turn { mixing, to },
            Self::Water { litres, spread } => Tended::Water { litres, spread },
            Self::Cover { with } => Tended::Cover { with },
            Self::Uncover => Tended::Uncover,
            Self::Rain { mm, hours } => Tended::Rain { mm, hours },
            Self::Aerate { how } => Tended::Aerate { how },
            Self::Worms { kg } => Tended::Worms { kg },
            Self::Liquid { litres, to } => Tended::Liquid { litres, to },
            Self::Move => Tended::Move,
            Self::Note => Tended::Note,
            Self::Photo => Tended::Photo,
            Self::ClosedBag { smell, days } => Tended::ClosedBag { smell, days },
            Self::Germination { sown, up, control_sown, control_up } => {
                Tended::Germination { sown, up, control_sown, control_up }
            }
            Self::BeanTest { grew } => Tended::BeanTest { grew },
        })
    }
}
