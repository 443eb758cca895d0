//! How much there is of a lot, from what came to it and what went from it.
//!
//! A lot is never written over: it came, more was delivered, some was used, spoiled,
//! taken by a batch or heap, or it was counted anew. What there is is what these come
//! to in the order in which they happened, whatever order they were written down in.

/// What an amount is said in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum In<M> {
    /// Kilograms.
    Kilograms,
    /// Loose litres.
    Litres,
    /// A container.
    Measures(M),
}

/// Something that changed how much there is.
#[derive(Debug, Clone, PartialEq)]
pub enum Movement<M> {
    /// It came, or was counted: so much is there, whatever was before.
    Set {
        /// How much, in the unit.
        amount: f64,
        /// The unit.
        unit: In<M>,
        /// What one of its containers holds [L], if it is counted in one.
        litres_each: Option<f64>,
        /// The day it was gathered, if that was said.
        gathered_on: Option<String>,
    },
    /// More came or some went.
    Moved {
        /// By how much, below zero for what goes, in the unit it was said in.
        by: f64,
        /// That unit.
        unit: In<M>,
        /// The same as loose litres, should the lot be counted otherwise by then.
        litres: f64,
        /// The same in kilograms.
        kg: f64,
        /// Of a delivery: the day. What is delivered to an empty lot makes it fresh.
        fresh_on: Option<String>,
    },
    /// Only the day it was gathered was put right.
    Gathered {
        /// The day.
        on: String,
    },
}

/// How much there is.
#[derive(Debug, Clone, PartialEq)]
pub struct Balance<M> {
    /// How much, in the unit.
    pub amount: f64,
    /// The unit.
    pub unit: In<M>,
    /// What one of its containers holds [L].
    pub litres_each: Option<f64>,
    /// The day it was gathered.
    pub gathered_on: Option<String>,
}

impl<M: Copy + PartialEq> Balance<M> {
    /// Nothing, before anything came.
    #[must_use]
    pub const fn nothing() -> Self {
        Self { amount: 0.0, unit: In::Kilograms, litres_each: None, gathered_on: None }
    }

    /// What movements come to, in the order in which they happened.
    ///
    /// Nobody can use what is not there: what would fall below zero is zero, and
    /// the next count puts it right.
    ///
    /// # Example
    /// Three barrows came, one was used; two more were delivered.
    /// ```
    /// use zymarch_core::stock::ledger::{Balance, In, Movement};
    /// let moved = |by| Movement::Moved { by, unit: In::Measures(7), litres: by * 70.0, kg: by * 4.0, fresh_on: None };
    /// let came = Movement::Set { amount: 3.0, unit: In::Measures(7), litres_each: Some(70.0), gathered_on: None };
    /// let got = Balance::of([came, moved(-1.0), moved(2.0)]);
    /// assert_eq!((got.amount, got.unit), (4.0, In::Measures(7)));
    /// ```
    #[must_use]
    pub fn of(movements: impl IntoIterator<Item = Movement<M>>) -> Self {
        movements.into_iter().fold(Self::nothing(), Self::after)
    }

    /// The balance after one more movement.
    #[must_use]
    pub fn after(mut self, movement: Movement<M>) -> Self {
        match movement {
            Movement::Set { amount, unit, litres_each, gathered_on } => {
                let gathered_on = gathered_on.or(self.gathered_on);
                Self { amount, unit, litres_each, gathered_on }
            }
            Movement::Moved { by, unit, litres, kg, fresh_on } => {
                let was_empty = self.amount <= 0.0;
                self.amount = tidy(self.amount + self.said(by, unit, litres, kg));
                if was_empty && fresh_on.is_some() {
                    self.gathered_on = fresh_on;
                }
                self
            }
            Movement::Gathered { on } => Self { gathered_on: Some(on), ..self },
        }
    }

    /// An amount in the unit of this balance.
    fn said(&self, by: f64, unit: In<M>, litres: f64, kg: f64) -> f64 {
        match (self.unit, unit) {
            (own, other) if own == other => by,
            (In::Kilograms, _) => kg,
            (In::Litres, _) => litres,
            (In::Measures(_), _) => self.litres_each.map_or(0.0, |each| litres / each),
        }
    }
}

/// Tenths do not add up exactly in binary, and nothing is less than nothing.
fn tidy(amount: f64) -> f64 {
    let tidied = (amount * 1e9).round() / 1e9;
    tidied.max(0.0)
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn moved(by: f64, unit: In<u8>) -> Movement<u8> {
        // A container of 10 L, of stuff at 0.5 kg/L.
        let litres = match unit {
            In::Kilograms => by / 0.5,
            In::Litres => by,
            In::Measures(_) => by * 10.0,
        };
        Movement::Moved { by, unit, litres, kg: litres * 0.5, fresh_on: None }
    }

    fn set(amount: f64, unit: In<u8>) -> Movement<u8> {
        let litres_each = matches!(unit, In::Measures(_)).then_some(10.0);
        Movement::Set { amount, unit, litres_each, gathered_on: None }
    }

    #[test]
    fn what_was_said_in_another_unit_still_counts() {
        for (unit, whole) in [(In::Kilograms, 20.0), (In::Litres, 40.0), (In::Measures(1), 4.0)] {
            for (other, one) in [(In::Kilograms, 5.0), (In::Litres, 10.0), (In::Measures(2), 1.0)] {
                let got = Balance::of([set(whole, unit), moved(-one, other)]);
                assert!((got.amount - whole * 0.75).abs() < 1e-9, "{unit:?} {other:?} {got:?}");
            }
        }
    }

    #[test]
    fn nothing_is_less_than_nothing_and_a_count_puts_it_right() {
        let got = Balance::of([set(1.0, In::Litres), moved(-3.0, In::Litres), moved(2.0, In::Litres)]);
        assert_eq!(got.amount, 2.0);
        assert_eq!(Balance::of([moved(-3.0, In::Litres), set(7.0, In::Litres)]).amount, 7.0);
    }

    #[test]
    fn what_is_delivered_to_an_empty_lot_makes_it_fresh() {
        let fresh = |by, on: &str| match moved(by, In::Litres) {
            Movement::Moved { by, unit, litres, kg, .. } => {
                Movement::Moved { by, unit, litres, kg, fresh_on: Some(on.into()) }
            }
            other => other,
        };
        let old = |movements: Vec<Movement<u8>>| Balance::of(movements).gathered_on;
        let came = Movement::Set {
            amount: 2.0,
            unit: In::Litres,
            litres_each: None,
            gathered_on: Some("2026-03-01".into()),
        };
        assert_eq!(old(vec![came.clone(), fresh(5.0, "2026-03-09")]).as_deref(), Some("2026-03-01"));
        let used_up = vec![came, moved(-2.0, In::Litres), fresh(5.0, "2026-03-09")];
        assert_eq!(old(used_up).as_deref(), Some("2026-03-09"));
    }

    proptest! {
        #[test]
        fn what_comes_and_goes_in_one_unit_adds_up(start in 0.0..1000.0_f64, steps in prop::collection::vec(0.0..100.0_f64, 0..20)) {
            let mut movements = vec![set(start, In::Litres)];
            movements.extend(steps.iter().map(|by| moved(*by, In::Litres)));
            let got = Balance::of(movements).amount;
            prop_assert!((got - start - steps.iter().sum::<f64>()).abs() < 1e-6);
        }
    }
}
