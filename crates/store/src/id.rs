//! Keys. One type each, so that a lot is never taken for a batch, and all of them
//! such that any device can give a new one without asking (UUID version 7).

use uuid::Uuid;

macro_rules! ids {
    ($($(#[$doc:meta])* $name:ident),* $(,)?) => {$(
        $(#[$doc])*
        #[derive(
            Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, serde::Serialize, serde::Deserialize,
        )]
        #[serde(transparent)]
        pub struct $name(pub Uuid);

        impl From<Uuid> for $name {
            fn from(id: Uuid) -> Self {
                Self(id)
            }
        }

        impl $name {
            /// A key that nobody has, and that sorts after those made before it.
            #[must_use]
            pub fn fresh() -> Self {
                Self(Uuid::now_v7())
            }
        }

        impl std::fmt::Display for $name {
            fn fmt(&self, to: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
                self.0.hyphenated().fmt(to)
            }
        }

        impl rusqlite::ToSql for $name {
            fn to_sql(&self) -> rusqlite::Result<rusqlite::types::ToSqlOutput<'_>> {
                Ok(self.0.hyphenated().to_string().into())
            }
        }

        impl rusqlite::types::FromSql for $name {
            fn column_result(value: rusqlite::types::ValueRef<'_>) -> rusqlite::types::FromSqlResult<Self> {
                let text = value.as_str()?;
                Uuid::parse_str(text)
                    .map(Self)
                    .map_err(|error| rusqlite::types::FromSqlError::Other(Box::new(error)))
            }
        }

        #[cfg(feature = "schema")]
        impl utoipa::PartialSchema for $name {
            fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
                use utoipa::openapi::schema::{ObjectBuilder, SchemaFormat, Type};
                ObjectBuilder::new()
                    .schema_type(Type::String)
                    .format(Some(SchemaFormat::Custom("uuid".into())))
                    .into()
            }
        }

        #[cfg(feature = "schema")]
        impl utoipa::ToSchema for $name {}
    )*};
}

ids! {
    /// A farm or plot with its own stock.
    SiteId,
    /// A container of a site.
    MeasureId,
    /// An amount of a material on hand.
    LotId,
    /// A saved batch.
    BatchId,
    /// A heap.
    HeapId,
    /// A test on a lot.
    TestId,
    /// A record of something sorted out.
    SortedOutId,
    /// An entry of the log.
    EntryId,
    /// Somebody.
    PersonId,
    /// A device that somebody signed in on.
    SessionId,
    /// A code that lets somebody in.
    CodeId,
    /// A probe.
    ProbeId,
    /// Compost that was taken out of a heap.
    CompostId,
    /// A place that compost goes to.
    GroundId,
}
