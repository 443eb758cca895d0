//! Where in an input something stands.

use std::fmt;

use super::{Fault, FaultCode};

/// A step of a path.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Seg {
    /// A field.
    Key(std::borrow::Cow<'static, str>),
    /// A place in a list, from 0.
    Index(usize),
}

/// Where in an input something stands, as `items[1].moisture_pct`; empty for the whole.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Path(Vec<Seg>);

impl Path {
    /// A path from its steps.
    #[must_use]
    pub fn new(steps: Vec<Seg>) -> Self {
        Self(steps)
    }

    /// Its steps, from the outside in.
    #[must_use]
    pub fn steps(&self) -> &[Seg] {
        &self.0
    }

    /// Whether it is the whole.
    #[must_use]
    pub fn is_whole(&self) -> bool {
        self.0.is_empty()
    }
}

impl From<&'static str> for Path {
    fn from(field: &'static str) -> Self {
        if field.is_empty() { Self::default() } else { Self(vec![Seg::Key(field.into())]) }
    }
}

impl fmt::Display for Path {
    fn fmt(&self, to: &mut fmt::Formatter<'_>) -> fmt::Result {
        for (place, step) in self.0.iter().enumerate() {
            match step {
                Seg::Key(key) if place == 0 => write!(to, "{key}")?,
                Seg::Key(key) => write!(to, ".{key}")?,
                Seg::Index(index) => write!(to, "[{index}]")?,
            }
        }
        Ok(())
    }
}

/// A place on the way down into an input. Costs nothing until a fault asks for its path.
///
/// # Example
/// ```
/// use zymarch_core::base::fault::At;
/// let (root, items) = (At::ROOT, At::ROOT.key("items"));
/// let second = items.index(1);
/// assert_eq!(second.key("moisture_pct").path().to_string(), "items[1].moisture_pct");
/// assert_eq!(root.path().to_string(), "");
/// ```
#[derive(Debug, Clone, Copy)]
pub struct At<'a> {
    up: Option<&'a At<'a>>,
    step: Option<Here>,
}

#[derive(Debug, Clone, Copy)]
enum Here {
    Key(&'static str),
    Index(usize),
}

impl<'a> At<'a> {
    /// The whole.
    pub const ROOT: At<'static> = At { up: None, step: None };

    /// A field of what stands here.
    #[must_use]
    pub const fn key(&'a self, key: &'static str) -> Self {
        Self { up: Some(self), step: Some(Here::Key(key)) }
    }

    /// That the list which stands here holds no more than it may.
    ///
    /// # Errors
    /// [`FaultCode::TooMany`].
    pub fn holds(&self, got: usize, most: usize) -> Result<(), Fault> {
        if got <= most {
            return Ok(());
        }
        Err(self.fault(FaultCode::TooMany).with("got", got).with("most", most))
    }

    /// A place in the list that stands here.
    #[must_use]
    pub const fn index(&'a self, index: usize) -> Self {
        Self { up: Some(self), step: Some(Here::Index(index)) }
    }

    /// The path to here.
    #[must_use]
    pub fn path(&self) -> Path {
        let mut steps = Vec::new();
        let mut at = Some(self);
        while let Some(here) = at {
            steps.extend(here.step.map(|step| match step {
                Here::Key(key) => Seg::Key(key.into()),
                Here::Index(index) => Seg::Index(index),
            }));
            at = here.up;
        }
        steps.reverse();
        Path(steps)
    }

    /// A fault here.
    #[must_use]
    pub fn fault(&self, code: FaultCode) -> Fault {
        Fault { path: self.path(), ..Fault::new(code) }
    }

    /// A fault found further down, with the path to here before its own.
    #[must_use]
    pub fn put(&self, mut fault: Fault) -> Fault {
        let mut path = self.path();
        path.0.append(&mut fault.path.0);
        Fault { path, ..fault }
    }
}
