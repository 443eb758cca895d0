//! Where methods are looked up: a person's own beside those of the book.

use std::collections::BTreeMap;

use super::method::{self, Method};

/// The book's methods, and a person's own copies beside them.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Methods {
    own: BTreeMap<String, Method>,
}

impl Methods {
    /// The book alone.
    #[must_use]
    pub fn book() -> Self {
        Self::default()
    }

    /// The book, and a person's own. One that bears an id of the book's is left out.
    pub fn with_own(own: impl IntoIterator<Item = Method>) -> Self {
        let own = own.into_iter().filter(|own| method::find(&own.id).is_none());
        Self { own: own.map(|own| (own.id.clone(), own)).collect() }
    }

    /// The method of an id.
    #[must_use]
    pub fn find(&self, id: &str) -> Option<&Method> {
        method::find(id).or_else(|| self.own.get(id))
    }

    /// Every method: the person's own first, then the list in its order.
    pub fn all(&self) -> impl Iterator<Item = &Method> {
        self.own.values().chain(method::all())
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::method::own::Changes;

    #[test]
    fn own_methods_stand_beside_the_book_and_never_in_its_place() {
        let bays = method::find("bay-turned").expect("listed");
        let copied = |id: &str| Changes::of(bays).applied(bays, id, "Mine").expect("unchanged");
        let methods = Methods::with_own([copied("bay-turned"), copied("my-bays")]);
        assert_eq!(methods.find("bay-turned"), Some(bays));
        assert!(methods.find("my-bays").is_some_and(|own| own.name.as_deref() == Some("Mine")));
        assert_eq!(methods.all().count(), method::all().len() + 1);
        assert_eq!(methods.find("moon-dance"), None);
    }
}
