//! The methods of the book, and copies of a person's own.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::base::fault::{Fault, FaultCode, Faults};
use zymarch_core::plan::method;
use zymarch_formats::material::slug;
use zymarch_formats::method::{Method, MethodFields};
use zymarch_store::method::{self as store, OwnMethod};

use crate::command::{Change, Remove, Restore};
use crate::words;
use crate::{Transaction, Who};

/// A method, and the version of a person's own.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ListedMethod {
    /// Counts changes; none for a method of the book.
    pub version: Option<i64>,
    /// What it is.
    #[serde(flatten)]
    pub method: Method,
}

/// A copy of a method, with figures of a person's own.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MethodCopy {
    /// The method that is copied, as `bay-turned`.
    pub base: String,
    /// Its figures.
    pub method: MethodFields,
}

impl From<OwnMethod> for ListedMethod {
    fn from(own: OwnMethod) -> Self {
        Self { version: Some(own.version), method: (&own.method).into() }
    }
}

/// The methods: a person's own first, then those of the book.
///
/// # Errors
/// The records cannot be read.
pub fn list(tx: &Transaction<'_>) -> Result<Vec<ListedMethod>, Faults> {
    let book = method::all().iter().map(|one| ListedMethod { version: None, method: one.into() });
    Ok(store::all(tx.conn)?.into_iter().map(ListedMethod::from).chain(book).collect())
}

/// A copy of a method, changed.
///
/// # Errors
/// Its figures, or a method that is not known.
pub fn copy(
    tx: &mut Transaction<'_>,
    _who: &Who,
    MethodCopy { base, method }: MethodCopy,
) -> Result<ListedMethod, Faults> {
    let missing = || Fault::of("base", FaultCode::NoSuchMethod).with("got", base.as_str());
    let base = tx.catalogue().method(&base).ok_or_else(missing)?;
    let fields = named(method)?;
    // The id of one that was removed is still named by batches.
    let short = slug(&fields.name, "own-method");
    let id = std::iter::once(short.clone())
        .chain((2..).map(|number| format!("{short}-{number}")))
        .find(|id| tx.catalogue().method(id).is_none())
        .unwrap_or(short);
    Ok(store::insert(tx.conn, &fields.checked(base, &id)?, &tx.now_text())?.into())
}

/// Changes a method of one's own.
///
/// # Errors
/// Its figures, or that it was changed elsewhere since.
pub fn change(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Change { id, version, to }: Change<String, MethodFields>,
) -> Result<ListedMethod, Faults> {
    let fields = named(to)?;
    let was = store::get(tx.conn, &id)?.method;
    let base = was.base.as_deref().and_then(method::find).unwrap_or(&was);
    Ok(store::update(tx.conn, version, &fields.checked(base, &id)?, &tx.now_text())?.into())
}

fn named(fields: MethodFields) -> Result<MethodFields, Fault> {
    let name = words::name("name", &fields.name)?;
    Ok(MethodFields { name, ..fields })
}

/// Removes a method of one's own; batches by it keep it.
///
/// # Errors
/// There is none.
pub fn remove(tx: &mut Transaction<'_>, _who: &Who, Remove(id): Remove<String>) -> Result<(), Faults> {
    Ok(store::remove(tx.conn, &id, &tx.now_text())?)
}

/// Brings a removed method back.
///
/// # Errors
/// There was never one.
pub fn restore(
    tx: &mut Transaction<'_>,
    _who: &Who,
    Restore(id): Restore<String>,
) -> Result<ListedMethod, Faults> {
    Ok(store::restore(tx.conn, &id)?.into())
}
