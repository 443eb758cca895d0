-- People, what they are and where, how they come in, and what was noted of it.

CREATE TABLE person (
    id         TEXT NOT NULL PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    name_key   TEXT NOT NULL, -- the name in small letters: two that differ in that only are one
    role       TEXT NOT NULL, -- a word of the core's list
    passphrase TEXT,          -- an Argon2id hash with its salt and its cost
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL,
    removed_at TEXT
) STRICT;

CREATE UNIQUE INDEX person_name ON person (name_key) WHERE removed_at IS NULL;

-- The sites that were given to somebody. An owner has all of them without a row.
CREATE TABLE person_site (
    person_id TEXT NOT NULL REFERENCES person (id),
    site_id   TEXT NOT NULL REFERENCES site (id),
    PRIMARY KEY (person_id, site_id)
) STRICT;

CREATE INDEX person_of_site ON person_site (site_id);

-- A device that somebody signed in on. What it holds is never kept, only what can be made of it.
CREATE TABLE session (
    id        TEXT NOT NULL PRIMARY KEY,
    token     BLOB NOT NULL UNIQUE CHECK (length(token) = 32), -- SHA-256 of it
    person_id TEXT NOT NULL REFERENCES person (id),
    device    TEXT NOT NULL, -- as it calls itself
    begun_ms  INTEGER NOT NULL,
    seen_ms   INTEGER NOT NULL,
    ends_ms   INTEGER NOT NULL, -- whatever happens
    ended_ms  INTEGER           -- when it was cut off or left
) STRICT;

CREATE INDEX session_of_person ON session (person_id);

-- A code that lets somebody in, once.
CREATE TABLE sign_in_code (
    id         TEXT NOT NULL PRIMARY KEY,
    code       BLOB NOT NULL UNIQUE CHECK (length(code) = 32), -- SHA-256 of it
    person_id  TEXT NOT NULL REFERENCES person (id),
    made_by    TEXT NOT NULL, -- a person; empty for the machine itself
    made_ms    INTEGER NOT NULL,
    ends_ms    INTEGER NOT NULL,
    spent_ms   INTEGER -- when it was used or withdrawn
) STRICT;

CREATE INDEX sign_in_code_of_person ON sign_in_code (person_id);

-- Failures to come in, by what they have in common, so that guessing is slow and stays so.
CREATE TABLE failed_sign_in (
    key      TEXT NOT NULL PRIMARY KEY, -- a name or an address
    failures INTEGER NOT NULL,
    last_ms  INTEGER NOT NULL
) STRICT;

-- What was noted of comings and goings. It only grows.
CREATE TABLE security_entry (
    id      INTEGER PRIMARY KEY,
    at_ms   INTEGER NOT NULL,
    kind    TEXT NOT NULL, -- a word of the core's list
    person  TEXT,          -- who did it
    about   TEXT,          -- the person it was done to
    device  TEXT NOT NULL,
    address TEXT NOT NULL  -- where from; empty for the machine itself
) STRICT;

CREATE TRIGGER security_entry_is_not_changed BEFORE UPDATE ON security_entry
BEGIN SELECT raise(ABORT, 'what was noted stays'); END;
CREATE TRIGGER security_entry_is_not_deleted BEFORE DELETE ON security_entry
BEGIN SELECT raise(ABORT, 'what was noted stays'); END;
