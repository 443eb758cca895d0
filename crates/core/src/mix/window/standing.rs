//! Where a mix stands in every window, and what of that is wrong, gravest first.

use super::{Flaw, ROWS, Row, Side, Standing, Window};

/// Where a mix stands in every window.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Standings(pub(super) [Standing; ROWS.len()]);

impl Standings {
    /// In one of them.
    #[must_use]
    pub const fn of(&self, window: Window) -> Standing {
        self.0[window as usize]
    }

    /// Whether everything is in its aim.
    #[must_use]
    pub fn are_right(&self) -> bool {
        self.0.iter().all(|standing| *standing == Standing::Right)
    }

    /// What is wrong, gravest first: the one order that every screen and list follows.
    #[must_use]
    pub fn complaints(&self) -> Vec<Complaint> {
        let mut found: Vec<(u8, Complaint)> = ROWS
            .iter()
            .filter_map(|row| {
                let standing = self.of(row.window);
                let side = row.side(standing)?;
                let is_far = matches!(standing, Standing::FarBelow | Standing::FarAbove);
                let gravity = side.gravity[usize::from(!is_far)];
                Some((gravity, Complaint { window: row.window, standing, flaw: side.flaw, is_far }))
            })
            .collect();
        found.sort_by_key(|(gravity, _)| *gravity);
        found.into_iter().map(|(_, complaint)| complaint).collect()
    }
}

impl Row {
    /// The side a standing is on; none if it is right.
    #[must_use]
    pub fn side(&self, standing: Standing) -> Option<Side> {
        match standing {
            Standing::Right => None,
            Standing::Below | Standing::FarBelow => Some(self.below),
            Standing::Above | Standing::FarAbove => self.above,
        }
    }
}

/// A window that a mix leaves.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Complaint {
    /// Which.
    pub window: Window,
    /// Where it stands.
    pub standing: Standing,
    /// What that is called.
    pub flaw: Flaw,
    /// Whether it no longer works.
    pub is_far: bool,
}
