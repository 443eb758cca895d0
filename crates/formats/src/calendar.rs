//! iCalendar (RFC 5545): days on which something is to be done, for the calendar of a phone.
//!
//! An event keeps its id for as long as it is the same task, so that a calendar moves it when its day changes
//! and does not show it twice.

use icalendar::{Calendar, Component, Event, EventLike, Property};
use jiff::Timestamp;
use jiff::civil::Date;

/// The media type of a calendar.
pub const MEDIA_TYPE: &str = "text/calendar; charset=utf-8";

/// Whose ids they are.
const DOMAIN: &str = "zymarch.invalid";

/// Something to do on a day.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Day {
    /// The same for as long as it is the same task.
    pub id: String,
    /// The day.
    pub on: Date,
    /// In a few words.
    pub summary: String,
    /// Why, with what, how much.
    pub description: String,
    /// Where.
    pub place: String,
    /// Of what kind.
    pub category: String,
}

/// A calendar of days, as it was at a time.
///
/// # Example
/// ```
/// use zymarch_formats::calendar::{Day, write};
/// let turn = Day {
///     id: "heap-1/turn/2".into(), on: "2026-03-14".parse()?, summary: "Lower bay: turn it".into(),
///     description: String::new(), place: "Terraces".into(), category: "turn".into(),
/// };
/// let text = write("Terraces", &[turn], "2026-03-12T08:00:00Z".parse()?);
/// assert!(text.contains("UID:heap-1-turn-2@zymarch.invalid\r\n"));
/// assert!(text.contains("DTSTART;VALUE=DATE:20260314\r\n"));
/// # Ok::<(), jiff::Error>(())
/// ```
#[must_use]
pub fn write(name: &str, days: &[Day], now: Timestamp) -> String {
    let mut calendar = Calendar::empty();
    for (property, value) in [
        ("VERSION", "2.0"),
        ("PRODID", "-//Zymarch//Tasks//EN"),
        ("CALSCALE", "GREGORIAN"),
        ("METHOD", "PUBLISH"),
    ] {
        calendar.append_property(Property::new(property, value));
    }
    calendar.name(name);
    calendar
        .append_property(Property::new("REFRESH-INTERVAL", "PT4H").add_parameter("VALUE", "DURATION").done());
    calendar.append_property(Property::new("X-PUBLISHED-TTL", "PT4H"));
    for day in days {
        calendar.push(event(day, now));
    }
    calendar.done().to_string()
}

fn event(day: &Day, now: Timestamp) -> Event {
    let mut event = Event::new();
    event
        .uid(&format!("{}@{DOMAIN}", day.id.replace(['/', ' '], "-")))
        .summary(&day.summary)
        .add_property("DTSTAMP", now.strftime("%Y%m%dT%H%M%SZ").to_string())
        .append_property(date("DTSTART", day.on))
        .append_property(date("DTEND", day.on.saturating_add(jiff::Span::new().days(1))))
        .add_property("TRANSP", "TRANSPARENT")
        .add_property("CATEGORIES", &day.category);
    if !day.description.is_empty() {
        event.description(&day.description);
    }
    if !day.place.is_empty() {
        event.location(&day.place);
    }
    event.done()
}

fn date(name: &str, day: Date) -> Property {
    Property::new(name, day.strftime("%Y%m%d").to_string()).add_parameter("VALUE", "DATE").done()
}
