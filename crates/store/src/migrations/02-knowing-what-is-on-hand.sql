-- Sites: where they are and what a year is like there.
ALTER TABLE site ADD COLUMN altitude_m REAL;
ALTER TABLE site ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
ALTER TABLE site ADD COLUMN removed_at TEXT;

CREATE TABLE site_month (
    site_id INTEGER NOT NULL REFERENCES site (id),
    month   INTEGER NOT NULL CHECK (month BETWEEN 1 AND 12),
    mean_c  REAL NOT NULL,
    swing_c REAL NOT NULL CHECK (swing_c >= 0), -- day above and night below the mean
    rain_mm REAL NOT NULL CHECK (rain_mm >= 0), -- in the whole month
    PRIMARY KEY (site_id, month)
) STRICT;

-- Measures: how the volume is known. litres stays what one holds as it is filled.
ALTER TABLE measure ADD COLUMN way TEXT NOT NULL DEFAULT 'litres'
    CHECK (way IN ('litres', 'cylinder', 'cone', 'box', 'counted', 'measures'));
ALTER TABLE measure ADD COLUMN across_cm REAL;  -- cylinder; top of a cone
ALTER TABLE measure ADD COLUMN bottom_cm REAL;  -- cone
ALTER TABLE measure ADD COLUMN length_cm REAL;  -- box
ALTER TABLE measure ADD COLUMN width_cm REAL;   -- box
ALTER TABLE measure ADD COLUMN height_cm REAL;
ALTER TABLE measure ADD COLUMN counted REAL;    -- how many go in
ALTER TABLE measure ADD COLUMN part_litres REAL; -- counted: what each holds, or litres as written, level
ALTER TABLE measure ADD COLUMN part_id INTEGER REFERENCES measure (id); -- measures: of which measure
ALTER TABLE measure ADD COLUMN heaped REAL NOT NULL DEFAULT 1;
ALTER TABLE measure ADD COLUMN removed_at TEXT;

UPDATE measure SET part_litres = litres;

DROP INDEX measure_name;
CREATE UNIQUE INDEX measure_name ON measure (site_id, name) WHERE removed_at IS NULL;

-- Lots: when it was gathered; NULL counts as the day it was written down.
ALTER TABLE lot ADD COLUMN gathered_on TEXT;

-- What came to a lot and what went from it. The lot's own amount is what is left.
CREATE TABLE lot_event (
    id             INTEGER PRIMARY KEY,
    lot_id         INTEGER NOT NULL REFERENCES lot (id),
    at             TEXT NOT NULL, -- RFC 3339, UTC
    kind           TEXT NOT NULL CHECK (kind IN ('start', 'delivery', 'use', 'spoiled', 'count', 'batch', 'give-back')),
    delta          REAL NOT NULL, -- in the unit
    amount         REAL NOT NULL CHECK (amount >= 0), -- left afterwards, in the unit
    unit           TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id     INTEGER REFERENCES measure (id),
    litres         REAL NOT NULL, -- the change as loose litres, should the unit change later
    batch_id       INTEGER REFERENCES batch (id),
    note           TEXT
) STRICT;

CREATE INDEX lot_event_of_lot ON lot_event (lot_id);
CREATE INDEX lot_event_of_batch ON lot_event (batch_id) WHERE batch_id IS NOT NULL;

INSERT INTO lot_event (lot_id, at, kind, delta, amount, unit, measure_id, litres)
SELECT id, created_at, 'start', amount, amount, unit, measure_id, 0 FROM lot;

-- Tests: what was read. What follows from it is reckoned anew each time.
CREATE TABLE field_test (
    id         INTEGER PRIMARY KEY,
    lot_id     INTEGER NOT NULL REFERENCES lot (id),
    kind       TEXT NOT NULL CHECK (kind IN ('weigh', 'drying', 'squeeze', 'bucket', 'bean')),
    made_on    TEXT NOT NULL, -- a day; of a bean test, the day it was sown
    readings   TEXT NOT NULL CHECK (json_valid(readings)), -- as zymarch-test/1
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    removed_at TEXT
) STRICT;

CREATE INDEX field_test_of_lot ON field_test (lot_id);

-- Materials of a person's own, with the columns of the reference table. Shares, not percent.
CREATE TABLE material (
    id            TEXT PRIMARY KEY,
    name          TEXT NOT NULL,
    name_es       TEXT NOT NULL,
    kind          TEXT NOT NULL,
    origin        TEXT NOT NULL, -- the group
    moisture      REAL NOT NULL,
    moisture_low  REAL NOT NULL,
    moisture_high REAL NOT NULL,
    nitrogen      REAL NOT NULL,
    nitrogen_low  REAL NOT NULL,
    nitrogen_high REAL NOT NULL,
    c_n           REAL NOT NULL,
    c_n_low       REAL NOT NULL,
    c_n_high      REAL NOT NULL,
    ash           REAL NOT NULL,
    lignin        REAL,
    density       REAL NOT NULL, -- kg/L, loose
    density_low   REAL NOT NULL,
    density_high  REAL NOT NULL,
    settle        REAL NOT NULL,
    phosphorus    REAL,
    potassium     REAL,
    degradability TEXT NOT NULL,
    particle      TEXT NOT NULL,
    structure     INTEGER NOT NULL,
    keeps_days    INTEGER,
    cautions      TEXT NOT NULL, -- codes between semicolons
    source        TEXT NOT NULL,
    note          TEXT NOT NULL,
    version       INTEGER NOT NULL DEFAULT 1,
    created_at    TEXT NOT NULL,
    updated_at    TEXT NOT NULL,
    removed_at    TEXT
) STRICT;

-- What was sorted out and not used, so that it can be shown that it was.
CREATE TABLE sorted_out (
    id         INTEGER PRIMARY KEY,
    site_id    INTEGER NOT NULL REFERENCES site (id),
    material   TEXT NOT NULL,
    label      TEXT,
    kg         REAL CHECK (kg >= 0),
    went_to    TEXT, -- in the person's words
    made_on    TEXT NOT NULL,
    created_at TEXT NOT NULL,
    removed_at TEXT
) STRICT;

CREATE INDEX sorted_out_of_site ON sorted_out (site_id);

-- Batches: the way they are composted, and when their amounts were taken from stock.
ALTER TABLE batch ADD COLUMN method TEXT;
ALTER TABLE batch ADD COLUMN taken_at TEXT;

-- Figures of an item that a test gave.
CREATE TABLE batch_item_test (
    batch_id INTEGER NOT NULL,
    position INTEGER NOT NULL,
    figure   TEXT NOT NULL CHECK (figure IN ('moisture', 'density', 'settle', 'herbicide')),
    value    REAL NOT NULL,
    kind     TEXT NOT NULL CHECK (kind IN ('weigh', 'drying', 'squeeze', 'bucket', 'bean')),
    made_on  TEXT NOT NULL,
    PRIMARY KEY (batch_id, position, figure),
    FOREIGN KEY (batch_id, position) REFERENCES batch_item (batch_id, position) ON DELETE CASCADE
) STRICT;
