//! What is wanted as the core takes it, every field checked.

use zymarch_core::base::fault::{At, Fault, FaultCode, Faults};
use zymarch_core::base::quantity::{self, Band, LARGEST_AMOUNT};
use zymarch_core::catalogue::Catalogue;
use zymarch_core::plan::formulate::{Capped, ShareCap, Wanted, default_caps};
use zymarch_core::plan::method::Method;
use zymarch_core::stock::material::{Kind, Material};
use zymarch_core::stock::{Checked, Lot};

use super::{FORMAT, FormulateLot, FormulateRequest, MOST_CAPS, MOST_KNOWN, MOST_LOTS};
use crate::field;
use crate::recipe::check::{Check, SaidAmount, SaidLot, litres_of};

/// What is wanted, with the material of each lot where it is known.
#[derive(Debug, Clone, PartialEq)]
pub struct Asked<'a> {
    /// As the core takes it.
    pub wanted: Wanted,
    /// In the order of the stock.
    pub materials: Vec<Option<&'a Material>>,
    /// The method it is meant for.
    pub method: Option<&'a Method>,
}

/// What was set, and what stands until something is.
fn with_default_caps(
    mut caps: Vec<ShareCap>,
    lots: &[Lot],
    materials: &[Option<&Material>],
    method: Option<&Method>,
) -> Vec<ShareCap> {
    let default = default_caps(lots, materials, &caps, method);
    caps.extend(default);
    caps
}

impl FormulateLot {
    fn said(&self) -> SaidLot<'_> {
        let is_weighed = self.kg_available.is_some() || self.litres_available.is_some();
        SaidLot {
            material: &self.material,
            amount: SaidAmount {
                kg: self.kg_available,
                litres: self.litres_available,
                count: self.amount,
                // What is weighed may still name the measure it is carried in.
                measure: self.measure.as_deref().filter(|_| !is_weighed),
                names: ("kg_available", "litres_available"),
            },
            given: self.given(),
            tests: &self.tests,
        }
    }
}

impl FormulateRequest {
    /// What is wanted as the core takes it.
    ///
    /// # Errors
    /// Every fault of the request.
    pub fn asked<'a>(&self, catalogue: &'a Catalogue) -> Result<Asked<'a>, Faults> {
        let mut check = Check::new(catalogue);
        field::is_format(&self.format, FORMAT, &mut check.found);
        if self.stock.is_empty() {
            return Err(Faults::one("stock", FaultCode::Empty));
        }
        At::ROOT.key("stock").holds(self.stock.len(), MOST_LOTS)?;
        At::ROOT.key("share_caps").holds(self.share_caps.len(), MOST_CAPS)?;
        At::ROOT.key("known").holds(self.known.len(), MOST_KNOWN)?;
        let volume_l = self.volume(&mut check.found);
        let step = self.whole_step.unwrap_or(1.0);
        if step != 1.0 && step != 0.5 {
            check.found.push(Fault::of("whole_step", FaultCode::NotAStep).with("got", step));
        }
        if let Some(most) = self.water_max_l
            && let Err(fault) = quantity::within(most, 0.0, LARGEST_AMOUNT)
        {
            check.found.push(At::ROOT.key("water_max_l").put(fault));
        }
        check.measures(&self.measures)?;
        if let Some(id) = &self.water_measure
            && litres_of(&self.measures, id).is_none()
        {
            let fault = Fault::of("water_measure", FaultCode::UnknownMeasure);
            check.found.push(fault.with("got", id.as_str()));
        }
        let known = At::ROOT.key("known");
        for (place, _) in self.known.iter().enumerate().filter(|(_, id)| catalogue.material(id).is_none()) {
            check.found.push(known.index(place).fault(FaultCode::NoSuchMaterial));
        }
        let caps = self.caps(catalogue, &mut check.found);
        let method = self.method.as_deref().and_then(|id| check.method(id));
        let windows = check.windows(&self.target.clone().into(), method);
        let list = At::ROOT.key("stock");
        let checked: Vec<Option<Checked<'a>>> = self
            .stock
            .iter()
            .enumerate()
            .map(|(place, lot)| check.lot(&list.index(place), &lot.said(), &self.measures))
            .collect();
        let lots: Vec<Lot> = self
            .stock
            .iter()
            .zip(&checked)
            .enumerate()
            .filter_map(|(place, (lot, checked))| {
                Some(self.lot(lot, checked.as_ref()?, step, &list.index(place), &mut check.found))
            })
            .collect();
        let water_step =
            self.water_measure.as_ref().and_then(|id| litres_of(&self.measures, id)).unwrap_or(1.0);
        let materials: Vec<Option<&Material>> = checked.iter().flatten().map(|lot| lot.material).collect();
        Faults::or(check.found, || Asked {
            wanted: Wanted {
                windows,
                volume_l,
                caps: with_default_caps(caps, &lots, &materials, method),
                lots,
                aim: self.aim,
                is_cautious: self.cautious,
                water_max_l: self.water_max_l,
                water_step_l: self.whole_measures.then_some(water_step),
            },
            materials,
            method,
        })
    }

    fn volume(&self, found: &mut Vec<Fault>) -> Option<Band> {
        let (target, name) = (At::ROOT.key("target"), "volume_l");
        match self.target.volume_l {
            None => {
                if self.aim.needs_size() {
                    found.push(target.key(name).fault(FaultCode::NeedsSize).with("aim", self.aim.as_str()));
                }
                None
            }
            Some([low, high]) if low >= 0.0 && high <= LARGEST_AMOUNT && low <= high && high > 0.0 => {
                Band::new(low, high).ok()
            }
            Some([low, high]) => {
                let fault = target.key(name).fault(FaultCode::NotABand).with("least", 0.0);
                found.push(fault.with("most", LARGEST_AMOUNT).with("low", low).with("high", high));
                None
            }
        }
    }

    fn caps(&self, catalogue: &Catalogue, found: &mut Vec<Fault>) -> Vec<ShareCap> {
        let mut caps = Vec::new();
        let list = At::ROOT.key("share_caps");
        for (place, cap) in self.share_caps.iter().enumerate() {
            let at = list.index(place);
            let most = match quantity::within(cap.max_wet_pct, 0.0, 100.0) {
                Ok(percent) => percent / 100.0,
                Err(fault) => {
                    found.push(at.key("max_wet_pct").put(fault));
                    continue;
                }
            };
            match (cap.kind, &cap.material) {
                (Some(kind), None) => caps.push(ShareCap::of_mass(Capped::Kind(kind), most)),
                (None, Some(material)) => {
                    let is_of_it = |lot: &FormulateLot| lot.material == *material;
                    if !self.stock.iter().any(is_of_it) && catalogue.material(material).is_none() {
                        let fault = at.key("material").fault(FaultCode::NoSuchReference);
                        found.push(fault.with("got", material.as_str()));
                    }
                    let places = (0..self.stock.len()).filter(|place| is_of_it(&self.stock[*place]));
                    caps.extend(places.map(|place| ShareCap::of_mass(Capped::Lot(place), most)));
                }
                _ => found.push(at.fault(FaultCode::OneOfKindAndMaterial)),
            }
        }
        caps
    }

    /// A lot as the core takes it: its limits in kilograms, pins as a least and most.
    fn lot(
        &self,
        lot: &FormulateLot,
        checked: &Checked<'_>,
        step: f64,
        at: &At<'_>,
        found: &mut Vec<Fault>,
    ) -> Lot {
        for (name, value) in [
            ("kg_min", lot.kg_min),
            ("kg_fixed", lot.kg_fixed),
            ("cost_per_kg", lot.cost_per_kg),
            ("urgency", lot.urgency),
        ] {
            if let Some(value) = value
                && let Err(fault) = quantity::within(value, 0.0, LARGEST_AMOUNT)
            {
                found.push(at.key(name).put(fault));
            }
        }
        // What must not go in is no stock to mix from.
        let available = if checked.figures.must_not_go_in { 0.0 } else { checked.wet_mass_kg };
        let least_kg = lot.kg_fixed.or(lot.kg_min).unwrap_or(0.0);
        if least_kg > available * (1.0 + 1e-9) {
            let name = if lot.kg_fixed.is_some() { "kg_fixed" } else { "kg_min" };
            let fault = at.key(name).fault(FaultCode::MoreThanThereIs);
            found.push(fault.with("got", least_kg).with("most", available));
        }
        let measure = lot.measure.as_ref().and_then(|id| litres_of(&self.measures, id));
        if self.whole_measures && measure.is_none() {
            found.push(at.key("measure").fault(FaultCode::MeasureMissing));
        }
        // What is pinned stays as it was said, whole or not.
        let step_kg = measure
            .filter(|_| self.whole_measures && lot.kg_fixed.is_none())
            .map(|litres| litres * checked.figures.density_kg_l.value * step);
        let kind = lot.kind.or(checked.material.map(|row| row.kind)).unwrap_or(Kind::Brown);
        Lot {
            uncertainty: Some(checked.uncertainty),
            least_kg,
            cost_per_kg: lot.cost_per_kg.unwrap_or(0.0),
            urgency: lot.urgency.unwrap_or(0.0),
            ..Lot::up_to(lot.kg_fixed.unwrap_or(available), checked.figures, kind).in_steps(step_kg)
        }
    }
}
