//! Where materials are looked up: a person's own beside those of the book.

use std::collections::BTreeMap;

use super::material::{self, Material, in_book, key, name_key, own_names, words};

/// The book's materials, and what a person put beside them.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Materials {
    own: BTreeMap<String, Material>,
    /// The ids of these by the keys of their names.
    by_name: BTreeMap<String, String>,
}

impl Materials {
    /// The book alone.
    #[must_use]
    pub fn book() -> Self {
        Self::default()
    }

    /// The book, and rows of a person's own. A row that bears an id of the
    /// book's is left out: what the book says is not changed under it.
    pub fn with_own(own: impl IntoIterator<Item = Material>) -> Self {
        let own: BTreeMap<String, Material> = own
            .into_iter()
            .filter(|material| material::find(&material.id).is_none())
            .map(|material| (material.id.clone(), Material { is_own: true, ..material }))
            .collect();
        let named = |row: &Material| -> Vec<_> {
            own_names(row)
                .map(|name| (name_key(&name), row.id.clone()))
                .filter(|(key, _)| !key.is_empty())
                .collect()
        };
        let by_name = own.values().flat_map(named).collect();
        Self { own, by_name }
    }

    /// The material of an id.
    #[must_use]
    pub fn find(&self, id: &str) -> Option<&Material> {
        material::find(id).or_else(|| self.own.get(id))
    }

    /// The material of an id or of any name people have for it, to the letter; a person's own first.
    ///
    /// # Example
    /// ```
    /// use zymarch_core::stock::Materials;
    /// let id = |name| Materials::book().named(name).map(|row| row.id.clone());
    /// assert_eq!(id("corn stalks").as_deref(), Some("maize-stover"));
    /// assert_eq!(id("estiércol de vaca").as_deref(), Some("cattle-manure-fresh"));
    /// ```
    #[must_use]
    pub fn named(&self, name: &str) -> Option<&Material> {
        let known = self.find(name);
        if known.is_some() || name.len() > LONGEST_SLIP {
            return known;
        }
        let words = words(name);
        let words: Vec<&str> = words.iter().map(String::as_str).collect();
        let turned: Vec<&str> = words.iter().rev().copied().collect();
        [key(&words), key(&turned)].iter().find_map(|key| {
            let own = self.by_name.get(key).map(String::as_str);
            own.or_else(|| in_book(key)).and_then(|id| self.find(id))
        })
    }

    /// The person's own alone.
    pub fn own(&self) -> impl Iterator<Item = &Material> {
        self.own.values()
    }

    /// Every material: the person's own first, then the table in its order.
    pub fn all(&self) -> impl Iterator<Item = &Material> {
        self.own.values().chain(material::all())
    }

    /// The material whose id is spelled most nearly so, if one is near at all.
    #[must_use]
    pub fn nearest(&self, id: &str) -> Option<&Material> {
        // No id is half as long, and likeness costs by length times length.
        if id.len() > LONGEST_SLIP {
            return None;
        }
        self.all()
            .map(|material| (strsim::jaro_winkler(&material.id, id), material))
            .max_by(|a, b| a.0.total_cmp(&b.0))
            .filter(|(likeness, _)| *likeness > NEAR)
            .map(|(_, material)| material)
    }
}

/// How alike two ids must be to be taken for a slip of the pen, by Jaro and Winkler [-].
const NEAR: f64 = 0.85;

/// Longer than this nothing is a slip of the pen.
const LONGEST_SLIP: usize = 80;

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn own_rows_stand_beside_the_book_and_never_in_its_place() {
        let straw = material::find("wheat-straw").expect("in the table");
        let renamed = |id: &str, n| {
            let mut row = Material { id: id.into(), ..straw.clone() };
            row.c_n.typical = n;
            row
        };
        let materials = Materials::with_own([renamed("wheat-straw", 1.0), renamed("my-straw", 80.0)]);
        assert_eq!(materials.find("wheat-straw").map(|row| row.c_n.typical), Some(92.0));
        assert_eq!(materials.find("my-straw").map(|row| (row.c_n.typical, row.is_own)), Some((80.0, true)));
        assert_eq!(materials.all().count(), material::all().len() + 1);
        assert_eq!(materials.find("moon-dust"), None);
    }

    #[test]
    fn a_slip_of_the_pen_is_guessed_and_nonsense_is_not() {
        let materials = Materials::book();
        assert_eq!(materials.nearest("weat-straw").map(|row| row.id.as_str()), Some("wheat-straw"));
        assert_eq!(materials.nearest("moondust"), None);
    }
}
