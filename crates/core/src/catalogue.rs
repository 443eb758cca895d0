//! What a question is answered by: materials and methods, a person's own beside the book's.

use crate::plan::Methods;
use crate::plan::method::Method;
use crate::stock::Materials;
use crate::stock::material::Material;

/// Materials and methods.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Catalogue {
    /// The materials.
    pub materials: Materials,
    /// The methods.
    pub methods: Methods,
}

impl Catalogue {
    /// The book alone.
    #[must_use]
    pub fn book() -> Self {
        Self::default()
    }

    /// The book, and rows of a person's own.
    pub fn with_own(
        materials: impl IntoIterator<Item = Material>,
        methods: impl IntoIterator<Item = Method>,
    ) -> Self {
        Self { materials: Materials::with_own(materials), methods: Methods::with_own(methods) }
    }

    /// The material of an id.
    #[must_use]
    pub fn material(&self, id: &str) -> Option<&Material> {
        self.materials.find(id)
    }

    /// The method of an id.
    #[must_use]
    pub fn method(&self, id: &str) -> Option<&Method> {
        self.methods.find(id)
    }
}
