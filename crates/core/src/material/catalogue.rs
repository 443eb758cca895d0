//! Where a material is looked up: a person's own rows beside the reference table.

use std::collections::BTreeMap;

use super::{Material, all, find};

/// The reference table, and what a person put beside it.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Catalogue {
    own: BTreeMap<String, Material>,
}

impl Catalogue {
    /// The reference table alone.
    #[must_use]
    pub fn book() -> Self {
        Self::default()
    }

    /// The reference table, and rows of a person's own. A row that bears the id
    /// of the table's is left out: what the book says is not changed under it.
    pub fn with_own(own: impl IntoIterator<Item = Material>) -> Self {
        let own = own
            .into_iter()
            .filter(|material| find(&material.id).is_none())
            .map(|material| (material.id.clone(), Material { is_own: true, ..material }))
            .collect();
        Self { own }
    }

    /// The material of an id.
    #[must_use]
    pub fn find(&self, id: &str) -> Option<&Material> {
        find(id).or_else(|| self.own.get(id))
    }

    /// Every material: the person's own first, then the table in its order.
    pub fn all(&self) -> impl Iterator<Item = &Material> {
        self.own.values().chain(all())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn own_rows_stand_beside_the_book_and_never_in_its_place() {
        let straw = find("wheat-straw").expect("in the table");
        let renamed = |id: &str, n| {
            let mut row = Material { id: id.into(), ..straw.clone() };
            row.c_n.typical = n;
            row
        };
        let catalogue = Catalogue::with_own([renamed("wheat-straw", 1.0), renamed("my-straw", 80.0)]);
        assert_eq!(catalogue.find("wheat-straw").map(|row| row.c_n.typical), Some(92.0));
        assert_eq!(catalogue.find("my-straw").map(|row| (row.c_n.typical, row.is_own)), Some((80.0, true)));
        assert_eq!(catalogue.all().count(), all().len() + 1);
        assert_eq!(catalogue.find("moon-dust"), None);
    }
}
