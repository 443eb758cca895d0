//! Keys of records. One type each, so that a lot is never taken for a batch.

macro_rules! ids {
    ($($(#[$doc:meta])* $name:ident),* $(,)?) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
        pub struct $name(pub i64);

        impl rusqlite::ToSql for $name {
            fn to_sql(&self) -> rusqlite::Result<rusqlite::types::ToSqlOutput<'_>> {
                self.0.to_sql()
            }
        }

        impl rusqlite::types::FromSql for $name {
            fn column_result(value: rusqlite::types::ValueRef<'_>) -> rusqlite::types::FromSqlResult<Self> {
                i64::column_result(value).map(Self)
            }
        }
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
    /// Something that came to a lot or went from it.
    LotEventId,
    /// A test on a lot.
    FieldTestId,
    /// A record of something sorted out.
    SortedOutId,
}
