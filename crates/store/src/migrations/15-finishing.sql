-- When all of a heap was taken out, if it was.
ALTER TABLE heap ADD COLUMN emptied_ms INTEGER;

-- Compost that was taken out of a heap, as it stands: of the log.
CREATE TABLE compost (
    id           TEXT NOT NULL PRIMARY KEY CHECK (length(id) = 36),
    site_id      TEXT NOT NULL REFERENCES site (id),
    heap_id      TEXT NOT NULL CHECK (length(heap_id) = 36),
    name         TEXT NOT NULL CHECK (length(name) > 0),
    harvested_ms INTEGER NOT NULL,
    taken_l      REAL NOT NULL CHECK (taken_l > 0),  -- when it was taken out
    litres       REAL NOT NULL,                      -- what is left
    density_kg_l REAL NOT NULL CHECK (density_kg_l > 0),
    moisture     REAL NOT NULL CHECK (moisture >= 0 AND moisture < 1),
    mesh_mm      REAL,
    rejects_lot  TEXT,
    rejects_l    REAL,
    expected_l   REAL,                               -- what all of the heap should have given
    is_last      INTEGER NOT NULL CHECK (is_last IN (0, 1)),
    was_ready    INTEGER NOT NULL CHECK (was_ready IN (0, 1)),
    version      INTEGER NOT NULL
) STRICT;

CREATE INDEX compost_of_site ON compost (site_id, harvested_ms);
CREATE INDEX compost_of_heap ON compost (heap_id, harvested_ms);

-- What of it went where: of the log.
CREATE TABLE applied (
    id         TEXT NOT NULL PRIMARY KEY CHECK (length(id) = 36), -- of its entry
    site_id    TEXT NOT NULL REFERENCES site (id),
    compost_id TEXT NOT NULL CHECK (length(compost_id) = 36),
    ground_id  TEXT CHECK (length(ground_id) = 36),
    at_ms      INTEGER NOT NULL,
    litres     REAL NOT NULL CHECK (litres > 0),
    body       TEXT NOT NULL CHECK (json_valid(body))
) STRICT;

CREATE INDEX applied_of_compost ON applied (compost_id, at_ms);
CREATE INDEX applied_of_ground ON applied (ground_id, at_ms);

-- What laboratories and kits found, in compost and in soil: of the log.
CREATE TABLE lab_result (
    id         TEXT NOT NULL PRIMARY KEY CHECK (length(id) = 36), -- of its entry
    site_id    TEXT NOT NULL REFERENCES site (id),
    subject    TEXT NOT NULL CHECK (subject IN ('compost', 'ground')),
    subject_id TEXT NOT NULL CHECK (length(subject_id) = 36),
    made_on    TEXT NOT NULL,
    body       TEXT NOT NULL CHECK (json_valid(body))
) STRICT;

CREATE INDEX lab_result_of ON lab_result (subject, subject_id, made_on);

-- Where compost goes: beds, fields, trees, as a person writes them down.
CREATE TABLE ground (
    id           TEXT NOT NULL PRIMARY KEY CHECK (length(id) = 36),
    site_id      TEXT NOT NULL REFERENCES site (id),
    name         TEXT NOT NULL CHECK (length(name) > 0),
    kind         TEXT NOT NULL, -- a word of the core's list
    area_m2      REAL CHECK (area_m2 IS NULL OR area_m2 > 0),
    count        REAL CHECK (count IS NULL OR count > 0),
    crop         TEXT,
    touches_soil INTEGER NOT NULL CHECK (touches_soil IN (0, 1)),
    is_eaten_raw INTEGER NOT NULL CHECK (is_eaten_raw IN (0, 1)),
    harvest_on   TEXT,
    version      INTEGER NOT NULL DEFAULT 1,
    created_at   TEXT NOT NULL,
    updated_at   TEXT NOT NULL,
    removed_at   TEXT
) STRICT;

CREATE UNIQUE INDEX ground_name ON ground (site_id, name) WHERE removed_at IS NULL;
