//! Where things are looked up: a person's own materials and ways of composting
//! beside those of the book.

use std::collections::BTreeMap;

use crate::material::{self, Material};
use crate::method::{self, Method};

/// The book, and what a person put beside it.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Catalogue {
    own: BTreeMap<String, Material>,
    own_methods: BTreeMap<String, Method>,
}

impl Catalogue {
    /// The book alone.
    #[must_use]
    pub fn book() -> Self {
        Self::default()
    }

    /// The book, and rows of a person's own. A row that bears the id of the
    /// book's is left out: what the book says is not changed under it.
    pub fn with_own(
        own: impl IntoIterator<Item = Material>,
        own_methods: impl IntoIterator<Item = Method>,
    ) -> Self {
        let own = own
            .into_iter()
            .filter(|material| material::find(&material.id).is_none())
            .map(|material| (material.id.clone(), Material { is_own: true, ..material }))
            .collect();
        let own_methods = own_methods
            .into_iter()
            .filter(|own| method::find(&own.id).is_none())
            .map(|own| (own.id.clone(), own))
            .collect();
        Self { own, own_methods }
    }

    /// The material of an id.
    #[must_use]
    pub fn find(&self, id: &str) -> Option<&Material> {
        material::find(id).or_else(|| self.own.get(id))
    }

    /// Every material: the person's own first, then the table in its order.
    pub fn all(&self) -> impl Iterator<Item = &Material> {
        self.own.values().chain(material::all())
    }

    /// The way of composting of an id.
    #[must_use]
    pub fn method(&self, id: &str) -> Option<&Method> {
        method::find(id).or_else(|| self.own_methods.get(id))
    }

    /// Every way of composting: the person's own first, then the list in its order.
    pub fn methods(&self) -> impl Iterator<Item = &Method> {
        self.own_methods.values().chain(method::all())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::method::own::Changes;

    #[test]
    fn own_rows_stand_beside_the_book_and_never_in_its_place() {
        let straw = material::find("wheat-straw").expect("in the table");
        let renamed = |id: &str, n| {
            let mut row = Material { id: id.into(), ..straw.clone() };
            row.c_n.typical = n;
            row
        };
        let bays = method::find("bay-turned").expect("listed");
        let copied = |id: &str| Changes::of(bays).applied(bays, id, "Mine").expect("unchanged");
        let catalogue = Catalogue::with_own(
            [renamed("wheat-straw", 1.0), renamed("my-straw", 80.0)],
            [copied("bay-turned"), copied("my-bays")],
        );
        assert_eq!(catalogue.find("wheat-straw").map(|row| row.c_n.typical), Some(92.0));
        assert_eq!(catalogue.find("my-straw").map(|row| (row.c_n.typical, row.is_own)), Some((80.0, true)));
        assert_eq!(catalogue.all().count(), material::all().len() + 1);
        assert_eq!(catalogue.find("moon-dust"), None);
        assert_eq!(catalogue.method("bay-turned"), Some(bays));
        assert!(catalogue.method("my-bays").is_some_and(|own| own.name.as_deref() == Some("Mine")));
        assert_eq!(catalogue.methods().count(), method::all().len() + 1);
        assert_eq!(catalogue.method("moon-dance"), None);
    }
}
