//! People: who asks, how they come in, who else there is, and what was noted of it.

use axum::http::StatusCode;
use axum::http::header::{HeaderValue, SET_COOKIE};
use axum::response::{IntoResponse, Response};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use zymarch_core::people::Deed;
use zymarch_farm::access::{Wish, Wished as _};
use zymarch_farm::command::{Change, Remove, Restore};
use zymarch_farm::people::{
    self, CodeMade, First, Me, PassphraseFields, Person, PersonFields, Secret, SecurityEntry, SignIn,
    SignedIn,
};
use zymarch_store::id::{PersonId, SessionId};

use crate::http::asking::{Anybody, Asking, cookie_name};
use crate::http::body::{Body, Id};
use crate::http::problem::{ApiError, Refusals};
use crate::http::qr::Qr;
use crate::state::Answer;

/// A change of a person that was read at a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub(super) struct PersonChange {
    /// The version that was read.
    version: i64,
    /// What they are now.
    person: PersonFields,
}

/// How somebody may come in here.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Door {
    /// Whether somebody must sign in: there are people.
    has_people: bool,
    /// Whether the first owner can be made from where this is asked.
    may_make_first: bool,
}

/// A code that lets somebody in, with what leads there. It is told once.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Invitation {
    /// The code, and until when it holds.
    #[serde(flatten)]
    code: CodeMade,
    /// The address that a phone opens; the code stands behind the `#` and is sent to nobody.
    link: String,
    /// The same as a picture for a phone's camera.
    qr: Qr,
    /// Where a phone that was never here learns to trust the farm first, if it has to.
    trust: Option<Address>,
}

/// An address, and the same for a phone's camera.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Address {
    /// The address.
    link: String,
    /// The same as a picture.
    qr: Qr,
}

impl Address {
    fn of(link: String) -> Self {
        Self { qr: Qr::of(&link), link }
    }
}

/// How other devices reach the farm.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Reached {
    /// Where; none if only the machine itself does.
    at: Option<Address>,
    /// Where a phone that was never here learns to trust the farm first, if it has to.
    trust: Option<Address>,
}

/// How other devices reach the farm
#[utoipa::path(get, operation_id = "network_get", tag = "people", path = "/api/network", responses((status = 200, body = Reached), Refusals))]
pub(super) async fn network(asking: Asking) -> Answer<Reached> {
    let ways = asking.app.ways.clone();
    let host = asking.host.clone();
    asking
        .ask(Deed::LetIn.anywhere(), move |_, _| {
            let at = ways.is_for_others().then(|| Address::of(ways.best_origin(&host)));
            Ok(Reached { at, trust: ways.door().map(Address::of) })
        })
        .await
}

/// Somebody new, and what lets them in.
#[derive(Debug, Serialize, ToSchema)]
pub(super) struct Invited {
    /// Who.
    person: Person,
    /// How they come in.
    invitation: Invitation,
}

impl Invitation {
    fn of(asking: &Asking, code: CodeMade) -> Self {
        let link = format!("{}/join#{}", asking.app.ways.best_origin(&asking.host), code.code);
        let trust = asking.app.ways.door().map(Address::of);
        Self { qr: Qr::of(&link), link, code, trust }
    }
}

/// How long a browser keeps what it is known by; the server may end it before [s].
const KEPT_S: i64 = 180 * 24 * 3600;

/// What a browser is told to be known by, or to forget.
fn cookie(is_sealed: bool, token: Option<&Secret>) -> Result<HeaderValue, ApiError> {
    let (value, age) = token.map_or(("", 0), |token| (token.letters(), KEPT_S));
    let secure = if is_sealed { "; Secure" } else { "" };
    let name = cookie_name(is_sealed);
    let text = format!("{name}={value}; Path=/; HttpOnly; SameSite=Strict; Max-Age={age}{secure}");
    let broken = |error: axum::http::header::InvalidHeaderValue| {
        zymarch_core::base::fault::Fault::new(zymarch_core::base::fault::FaultCode::Broken)
            .with("why", error.to_string())
    };
    Ok(HeaderValue::from_str(&text).map_err(broken)?)
}

fn came_in(asking: &Asking, signed_in: SignedIn) -> Result<Response, ApiError> {
    let cookie = cookie(asking.is_sealed, Some(&signed_in.token))?;
    Ok(([(SET_COOKIE, cookie)], axum::Json(signed_in.me)).into_response())
}

/// Who asks, and what they may
#[utoipa::path(get, operation_id = "me_get", tag = "people", path = "/api/me", responses((status = 200, body = Me), Refusals))]
pub(super) async fn me(asking: Asking) -> Answer<Me> {
    asking.ask(Deed::Look.anywhere(), people::me).await
}

/// How somebody may come in here
#[utoipa::path(get, operation_id = "sign_in_door", tag = "people", path = "/api/sign-in", responses((status = 200, body = Door), Refusals))]
pub(super) async fn door(Anybody(asking): Anybody) -> Result<axum::Json<Door>, ApiError> {
    let has_people = asking.app.gate.is_anybody().await?;
    Ok(axum::Json(Door { has_people, may_make_first: !has_people && asking.by.address.is_empty() }))
}

/// Come in, by a code or by name and passphrase
#[utoipa::path(post, operation_id = "sign_in", tag = "people", path = "/api/sign-in", request_body = SignIn, responses((status = 200, body = Me), Refusals))]
pub(super) async fn sign_in(
    Anybody(asking): Anybody,
    Body(shown): Body<SignIn>,
) -> Result<Response, ApiError> {
    came_in(&asking, asking.app.gate.sign_in(&asking.by, shown).await?)
}

/// Go: this device is no longer known
#[utoipa::path(post, operation_id = "sign_out", tag = "people", path = "/api/sign-out", responses((status = 204), Refusals))]
pub(super) async fn sign_out(asking: Asking) -> Result<Response, ApiError> {
    let by = asking.by.clone();
    asking.did(Deed::Look.anywhere(), move |tx, who| people::leave(tx, who, &by)).await?;
    Ok((StatusCode::NO_CONTENT, [(SET_COOKIE, cookie(asking.is_sealed, None)?)]).into_response())
}

/// Make the first owner, on the machine itself
#[utoipa::path(post, operation_id = "people_first", tag = "people", path = "/api/people/first", request_body = First, responses((status = 200, body = Me), Refusals))]
pub(super) async fn first(Anybody(asking): Anybody, Body(first): Body<First>) -> Result<Response, ApiError> {
    came_in(&asking, asking.app.gate.first(&asking.by, first).await?)
}

/// Set one's own passphrase; all other devices of one's own are signed out
#[utoipa::path(put, operation_id = "passphrase_set", tag = "people", path = "/api/me/passphrase", request_body = PassphraseFields, responses((status = 200, body = Me), Refusals))]
pub(super) async fn set_passphrase(
    asking: Asking,
    Body(fields): Body<PassphraseFields>,
) -> Result<Response, ApiError> {
    came_in(&asking, asking.app.gate.set_passphrase(&asking.by, fields).await?)
}

/// Those within one's reach, oneself on top
#[utoipa::path(get, operation_id = "person_list", tag = "people", path = "/api/people", responses((status = 200, body = Vec<Person>), Refusals))]
pub(super) async fn list(asking: Asking) -> Answer<Vec<Person>> {
    asking.ask(Deed::Look.anywhere(), people::list).await
}

/// Somebody new, with a code that lets them in
#[utoipa::path(post, operation_id = "person_create", tag = "people", path = "/api/people", request_body = PersonFields, responses((status = 201, body = Invited), Refusals))]
pub(super) async fn create(
    asking: Asking,
    Body(fields): Body<PersonFields>,
) -> Result<(StatusCode, axum::Json<Invited>), ApiError> {
    let by = asking.by.clone();
    let new = asking.did(Deed::LetIn.anywhere(), move |tx, who| people::add(tx, who, (&by, fields))).await?;
    let invited = Invited { person: new.person, invitation: Invitation::of(&asking, new.code) };
    Ok((StatusCode::CREATED, axum::Json(invited)))
}

/// Change what somebody is, or where
#[utoipa::path(put, operation_id = "person_change", tag = "people", path = "/api/people/{id}", params(("id" = PersonId, Path)), request_body = PersonChange, responses((status = 200, body = Person), Refusals))]
pub(super) async fn change(
    asking: Asking,
    Id(id): Id<PersonId>,
    Body(body): Body<PersonChange>,
) -> Answer<Person> {
    let by = asking.by.clone();
    let change = Change { id, version: body.version, to: body.person };
    asking
        .act(Wish::with_somebody(Deed::LetIn, id), move |tx, who| people::change(tx, who, (&by, change)))
        .await
}

/// Take somebody off the list; they can be brought back
#[utoipa::path(delete, operation_id = "person_remove", tag = "people", path = "/api/people/{id}", params(("id" = PersonId, Path)), responses((status = 204), Refusals))]
pub(super) async fn remove(asking: Asking, Id(id): Id<PersonId>) -> Result<StatusCode, ApiError> {
    let by = asking.by.clone();
    asking
        .done(Wish::with_somebody(Deed::LetIn, id), move |tx, who| people::remove(tx, who, (&by, Remove(id))))
        .await
}

/// Bring somebody back; they sign in anew
#[utoipa::path(post, operation_id = "person_restore", tag = "people", path = "/api/people/{id}/restore", params(("id" = PersonId, Path)), responses((status = 200, body = Person), Refusals))]
pub(super) async fn restore(asking: Asking, Id(id): Id<PersonId>) -> Answer<Person> {
    let by = asking.by.clone();
    asking
        .act(Wish::with_somebody(Deed::LetIn, id), move |tx, who| {
            people::restore(tx, who, (&by, Restore(id)))
        })
        .await
}

/// A code for somebody, in place of any before: for another device, or to come in again
#[utoipa::path(post, operation_id = "person_code", tag = "people", path = "/api/people/{id}/code", params(("id" = PersonId, Path)), responses((status = 201, body = Invitation), Refusals))]
pub(super) async fn make_code(
    asking: Asking,
    Id(id): Id<PersonId>,
) -> Result<(StatusCode, axum::Json<Invitation>), ApiError> {
    let by = asking.by.clone();
    let wish = Wish::with_somebody(Deed::Look, id);
    let code = asking.did(wish, move |tx, who| people::make_code(tx, who, &by, id)).await?;
    Ok((StatusCode::CREATED, axum::Json(Invitation::of(&asking, code))))
}

/// Withdraw the code of somebody
#[utoipa::path(delete, operation_id = "person_code_withdraw", tag = "people", path = "/api/people/{id}/code", params(("id" = PersonId, Path)), responses((status = 204), Refusals))]
pub(super) async fn withdraw_code(asking: Asking, Id(id): Id<PersonId>) -> Result<StatusCode, ApiError> {
    let by = asking.by.clone();
    asking
        .done(Wish::with_somebody(Deed::Look, id), move |tx, who| people::withdraw(tx, who, (&by, id)))
        .await
}

/// Cut a device of somebody off
#[utoipa::path(delete, operation_id = "device_cut_off", tag = "people", path = "/api/people/{id}/devices/{device}", params(("id" = PersonId, Path), ("device" = SessionId, Path)), responses((status = 204), Refusals))]
pub(super) async fn cut_off(
    asking: Asking,
    Id((id, device)): Id<(PersonId, SessionId)>,
) -> Result<StatusCode, ApiError> {
    let by = asking.by.clone();
    asking
        .done(Wish::with_somebody(Deed::Look, id), move |tx, who| people::cut_off(tx, who, (&by, id, device)))
        .await
}

/// What was noted of comings and goings, newest on top
#[utoipa::path(get, operation_id = "security_list", tag = "people", path = "/api/security", responses((status = 200, body = Vec<SecurityEntry>), Refusals))]
pub(super) async fn noted(asking: Asking) -> Answer<Vec<SecurityEntry>> {
    asking.ask(Deed::Govern.anywhere(), |tx, _| people::log(tx)).await
}
