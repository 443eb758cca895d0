-- What comes of tending a heap: temperatures by the thousand, photos, and the probes that send them.

-- A device that writes temperatures down by itself. What it holds is never kept, only what can be made of it.
CREATE TABLE probe (
    id           TEXT NOT NULL PRIMARY KEY,
    site_id      TEXT NOT NULL REFERENCES site (id),
    subject      TEXT NOT NULL, -- what it stands in, a word of the core's list: a heap, or a site for its air
    subject_id   TEXT NOT NULL CHECK (length(subject_id) = 36),
    name         TEXT NOT NULL CHECK (length(name) > 0),
    token        BLOB NOT NULL UNIQUE CHECK (length(token) = 32), -- SHA-256 of it
    is_simulated INTEGER NOT NULL CHECK (is_simulated IN (0, 1)),
    made_ms      INTEGER NOT NULL,
    seen_ms      INTEGER, -- when it sent something last
    ended_ms     INTEGER  -- when it was cut off
) STRICT;

CREATE INDEX probe_of_subject ON probe (subject_id);

-- Temperatures that came together: of a probe's day, or of a file. Its entry tells where they came from, and
-- taking that back takes all of them out.
CREATE TABLE reading_pack (
    id         INTEGER PRIMARY KEY,
    entry_id   TEXT NOT NULL UNIQUE REFERENCES entry (id),
    subject    TEXT NOT NULL,
    subject_id TEXT NOT NULL CHECK (length(subject_id) = 36),
    probe_id   TEXT REFERENCES probe (id),
    day        INTEGER NOT NULL,           -- since 1970, of a probe; of a file, that of its first reading
    readings   INTEGER NOT NULL DEFAULT 0, -- how many came so far
    low_c      REAL,                       -- the coldest and the hottest of them
    high_c     REAL
) STRICT;

CREATE INDEX reading_pack_of_subject ON reading_pack (subject_id, probe_id, day);

-- One temperature. It only grows, as the log does.
CREATE TABLE reading (
    pack        INTEGER NOT NULL REFERENCES reading_pack (id),
    at_ms       INTEGER NOT NULL, -- when it was read, since 1970, UTC
    place       TEXT NOT NULL,    -- a word of the core's list
    depth_cm    REAL NOT NULL,    -- below zero where it was not said
    temp_c      REAL NOT NULL,
    recorded_ms INTEGER NOT NULL, -- when it was written down here
    PRIMARY KEY (pack, at_ms, place, depth_cm)
) STRICT, WITHOUT ROWID;

CREATE TRIGGER reading_is_not_changed BEFORE UPDATE ON reading
BEGIN SELECT raise(ABORT, 'what was read stays'); END;
CREATE TRIGGER reading_is_not_deleted BEFORE DELETE ON reading
BEGIN SELECT raise(ABORT, 'what was read stays'); END;

-- What takes another back is looked for by what it takes back.
CREATE INDEX entry_taking_back ON entry (takes_back) WHERE takes_back IS NOT NULL;

-- When the last layer of a heap was laid.
ALTER TABLE heap ADD COLUMN built_ms INTEGER;

-- A photo that belongs to an entry, as it was resized on the device that took it.
CREATE TABLE photo (
    entry_id TEXT NOT NULL PRIMARY KEY REFERENCES entry (id),
    media    TEXT NOT NULL CHECK (media IN ('image/jpeg', 'image/webp', 'image/png')),
    bytes    BLOB NOT NULL CHECK (length(bytes) BETWEEN 1 AND 1048576)
) STRICT;
