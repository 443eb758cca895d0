//! What each kind of entry holds, and how it is written down: one JSON object a kind.

use serde::{Deserialize, Serialize};
use uuid::Uuid;
use zymarch_core::log::EntryKind;
use zymarch_core::plan::layers::LayerRole;
use zymarch_core::stock::field_test::TestKind;
use zymarch_core::tend::entry::{Source, Tended};

use super::finish::{Applied, Found, Harvested, Stored};
use crate::error::StoreError;
use crate::held::Held;
use crate::id::{BatchId, HeapId, LotId, ProbeId};
use crate::item::Item;
use crate::shape::KeptShape;

/// So much is there, whatever was before.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Set {
    /// How much.
    #[serde(flatten)]
    pub held: Held,
    /// What one of its containers holds [L], if it is counted in one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub litres_each: Option<f64>,
    /// The day it was gathered, if that was said.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub gathered_on: Option<String>,
}

/// More came or some went.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Moved {
    /// By how much, below zero for what goes.
    #[serde(flatten)]
    pub held: Held,
    /// The same as loose litres.
    pub litres: f64,
    /// The same in kilograms.
    pub kg: f64,
    /// Of a delivery: the day.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub on: Option<String>,
    /// The person's words.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// What takes from stock, and gives back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(tag = "of", content = "id", rename_all = "lowercase")]
pub enum Taker {
    /// A batch, by its recipe.
    Batch(BatchId),
    /// A heap, by what went into it.
    Heap(HeapId),
}

impl Taker {
    /// Its key.
    #[must_use]
    pub const fn key(self) -> Uuid {
        match self {
            Self::Batch(BatchId(id)) | Self::Heap(HeapId(id)) => id,
        }
    }
}

/// A batch or heap took some, or gave some back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Taken {
    /// What took it.
    pub by: Taker,
    /// By how much the lot changed: below zero for what was taken.
    #[serde(flatten)]
    pub moved: Moved,
}

/// A test, as it was read so far.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Tested {
    /// On which lot.
    pub lot: LotId,
    /// Which test.
    pub kind: TestKind,
    /// The day it was made; of a bean test, the day it was sown.
    pub made_on: String,
    /// What was read, as zymarch-test/1.
    pub readings: serde_json::Value,
}

/// A layer or a load.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Step {
    /// What it is for.
    pub role: LayerRole,
    /// Which repeat or load, from 1.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cycle: Option<u32>,
    /// What goes in.
    pub portions: Vec<Portion>,
    /// Water [L].
    pub water_l: f64,
    /// What is no part of the mix [L].
    #[serde(default)]
    pub beside_l: f64,
}

/// So much of one item, in the item's unit.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Portion {
    /// The item, by its place in the heap.
    pub item: u32,
    /// How much.
    pub amount: f64,
}

/// A heap, as it was begun.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Begun {
    /// The batch it is built of.
    pub batch: Option<BatchId>,
    /// What it is called.
    pub name: String,
    /// Its shape.
    #[serde(flatten)]
    pub shape: KeptShape,
    /// The method it is composted by.
    pub method: Option<String>,
    /// What may go in.
    pub items: Vec<Item>,
    /// What is to come.
    pub steps: Vec<Step>,
}

/// A layer or load that was laid, or put right afterwards.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Laid {
    /// Which, from 0.
    pub at: u32,
    /// What really went in.
    pub step: Step,
    /// Things that nobody had planned.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub items: Vec<Item>,
}

/// What was sorted out and not used.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SortedOut {
    /// Id of the material.
    pub material: String,
    /// The person's own name for it.
    pub label: Option<String>,
    /// How much [kg], if it was weighed.
    pub kg: Option<f64>,
    /// Where it went, in the person's words.
    pub went_to: Option<String>,
    /// The day.
    pub made_on: String,
}

/// What was read at a heap, seen or done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Tending {
    /// What.
    pub what: Tended<Item>,
    /// The person's words.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// Many temperatures, which stand beside the entry.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Readings {
    /// Where they come from.
    pub source: Source,
    /// What the probe or the file is called.
    pub name: String,
    /// The probe, if one sent them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub probe: Option<ProbeId>,
}

/// What happened, with what belongs to it.
#[derive(Debug, Clone, PartialEq)]
pub enum Body {
    /// A lot was written down.
    Came(Set),
    /// More came.
    Delivered(Moved),
    /// Some was used.
    Used(Moved),
    /// Some spoiled.
    Spoiled(Moved),
    /// It was counted anew.
    Counted(Set),
    /// The day it was gathered was put right.
    Gathered {
        /// The day.
        on: String,
    },
    /// A batch or heap took some, or gave some back.
    Taken(Taken),
    /// A test was made, or read on.
    Tested(Tested),
    /// A heap was begun.
    Begun(Begun),
    /// What is to come from a step on was planned anew.
    Planned {
        /// The first step it is about.
        from: u32,
        /// All that is to come.
        steps: Vec<Step>,
    },
    /// A step was laid.
    Laid(Laid),
    /// The heap was ended where it stands, before this step.
    Ended {
        /// The first step that is left out.
        from: u32,
    },
    /// It was taken off the list.
    Removed,
    /// What goes in was taken from stock.
    StockTaken,
    /// It was given back.
    StockReturned,
    /// Something was sorted out.
    SortedOut(SortedOut),
    /// An entry was taken back.
    Undone,
    /// Something was read at a heap, seen or done.
    Tended(Box<Tending>),
    /// Many temperatures came at once.
    Readings(Readings),
    /// Compost was taken out of a heap.
    Harvested(Harvested),
    /// What was taken out was put down as compost.
    Stored(Stored),
    /// Compost went to where it is used.
    Applied(Applied),
    /// A laboratory or a kit found something.
    LabResult(Found),
}

/// Bodies that are one number or list.
#[derive(Serialize, Deserialize)]
struct Planned {
    from: u32,
    steps: Vec<Step>,
}

#[derive(Serialize, Deserialize)]
struct From {
    from: u32,
}

#[derive(Serialize, Deserialize)]
struct On {
    on: String,
}

#[derive(Serialize, Deserialize)]
struct Nothing {}

impl Body {
    /// What happened, as a word.
    #[must_use]
    pub const fn kind(&self) -> EntryKind {
        match self {
            Self::Came(_) => EntryKind::Came,
            Self::Delivered(_) => EntryKind::Delivered,
            Self::Used(_) => EntryKind::Used,
            Self::Spoiled(_) => EntryKind::Spoiled,
            Self::Counted(_) => EntryKind::Counted,
            Self::Gathered { .. } => EntryKind::Gathered,
            Self::Taken(_) => EntryKind::Taken,
            Self::Tested(_) => EntryKind::Tested,
            Self::Begun(_) => EntryKind::Begun,
            Self::Planned { .. } => EntryKind::Planned,
            Self::Laid(_) => EntryKind::Laid,
            Self::Ended { .. } => EntryKind::Ended,
            Self::Removed => EntryKind::Removed,
            Self::StockTaken => EntryKind::StockTaken,
            Self::StockReturned => EntryKind::StockReturned,
            Self::SortedOut(_) => EntryKind::SortedOut,
            Self::Undone => EntryKind::Undone,
            Self::Tended(of) => of.what.kind(),
            Self::Readings(_) => EntryKind::Readings,
            Self::Harvested(_) => EntryKind::Harvested,
            Self::Stored(_) => EntryKind::Stored,
            Self::Applied(_) => EntryKind::Applied,
            Self::LabResult(_) => EntryKind::LabResult,
        }
    }

    pub(crate) fn to_json(&self) -> Result<String, StoreError> {
        let text = match self {
            Self::Came(of) | Self::Counted(of) => serde_json::to_string(of),
            Self::Delivered(of) | Self::Used(of) | Self::Spoiled(of) => serde_json::to_string(of),
            Self::Gathered { on } => serde_json::to_string(&On { on: on.clone() }),
            Self::Taken(of) => serde_json::to_string(of),
            Self::Tested(of) => serde_json::to_string(of),
            Self::Begun(of) => serde_json::to_string(of),
            Self::Planned { from, steps } => {
                serde_json::to_string(&Planned { from: *from, steps: steps.clone() })
            }
            Self::Laid(of) => serde_json::to_string(of),
            Self::Ended { from } => serde_json::to_string(&From { from: *from }),
            Self::SortedOut(of) => serde_json::to_string(of),
            Self::Tended(of) => serde_json::to_string(of),
            Self::Readings(of) => serde_json::to_string(of),
            Self::Harvested(of) => serde_json::to_string(of),
            Self::Stored(of) => serde_json::to_string(of),
            Self::Applied(of) => serde_json::to_string(of),
            Self::LabResult(of) => serde_json::to_string(of),
            Self::Removed | Self::StockTaken | Self::StockReturned | Self::Undone => {
                serde_json::to_string(&Nothing {})
            }
        };
        text.map_err(|error| StoreError::Unreadable(error.to_string()))
    }

    pub(crate) fn from_json(kind: EntryKind, text: &str) -> Result<Self, StoreError> {
        fn read<'a, T: Deserialize<'a>>(text: &'a str) -> Result<T, StoreError> {
            serde_json::from_str(text).map_err(|error| StoreError::Unreadable(error.to_string()))
        }
        Ok(match kind {
            EntryKind::Came => Self::Came(read(text)?),
            EntryKind::Delivered => Self::Delivered(read(text)?),
            EntryKind::Used => Self::Used(read(text)?),
            EntryKind::Spoiled => Self::Spoiled(read(text)?),
            EntryKind::Counted => Self::Counted(read(text)?),
            EntryKind::Gathered => Self::Gathered { on: read::<On>(text)?.on },
            EntryKind::Taken => Self::Taken(read(text)?),
            EntryKind::Tested => Self::Tested(read(text)?),
            EntryKind::Begun => Self::Begun(read(text)?),
            EntryKind::Planned => {
                let Planned { from, steps } = read(text)?;
                Self::Planned { from, steps }
            }
            EntryKind::Laid => Self::Laid(read(text)?),
            EntryKind::Ended => Self::Ended { from: read::<From>(text)?.from },
            EntryKind::Removed => Self::Removed,
            EntryKind::StockTaken => Self::StockTaken,
            EntryKind::StockReturned => Self::StockReturned,
            EntryKind::SortedOut => Self::SortedOut(read(text)?),
            EntryKind::Undone => Self::Undone,
            EntryKind::Readings => Self::Readings(read(text)?),
            EntryKind::Harvested => Self::Harvested(read(text)?),
            EntryKind::Stored => Self::Stored(read(text)?),
            EntryKind::Applied => Self::Applied(read(text)?),
            EntryKind::LabResult => Self::LabResult(read(text)?),
            EntryKind::Temperature
            | EntryKind::Stick
            | EntryKind::Squeeze
            | EntryKind::Smell
            | EntryKind::Height
            | EntryKind::Seen
            | EntryKind::Turn
            | EntryKind::Water
            | EntryKind::Add
            | EntryKind::Cover
            | EntryKind::Uncover
            | EntryKind::Rain
            | EntryKind::Aerate
            | EntryKind::Worms
            | EntryKind::Feed
            | EntryKind::Liquid
            | EntryKind::Move
            | EntryKind::Note
            | EntryKind::Photo
            | EntryKind::ClosedBag
            | EntryKind::Germination
            | EntryKind::BeanTest => Self::Tended(Box::new(read(text)?)),
        })
    }
}
