-- Heaps of every shape. The table is made anew, since a CHECK cannot be changed;
-- what refers to it by name finds the new one.
CREATE TABLE batch_new (
    id          INTEGER PRIMARY KEY,
    site_id     INTEGER NOT NULL REFERENCES site (id),
    name        TEXT NOT NULL CHECK (length(name) > 0),
    water_l     REAL NOT NULL CHECK (water_l >= 0),
    shape       TEXT NOT NULL
        CHECK (shape IN ('box', 'ring', 'pile', 'windrow', 'drum', 'lying-drum', 'tower')),
    length_cm   REAL, -- of a box, a pile, a windrow, a lying drum
    width_cm    REAL, -- of a box, a pile, a windrow
    top_cm      REAL, -- of a pile
    diameter_cm REAL, -- of a ring, a drum, a tower
    height_cm   REAL, -- of all but a lying drum
    columns     INTEGER, -- of a tower
    method      TEXT,
    taken_at    TEXT,
    build_on    TEXT, -- the day it is to be built
    starters    TEXT NOT NULL DEFAULT '', -- words of the core's list, between semicolons
    version     INTEGER NOT NULL DEFAULT 1,
    created_at  TEXT NOT NULL,
    updated_at  TEXT NOT NULL,
    removed_at  TEXT,
    CHECK ((shape IN ('box', 'pile', 'windrow', 'lying-drum')) = (length_cm IS NOT NULL)),
    CHECK ((shape IN ('box', 'pile', 'windrow')) = (width_cm IS NOT NULL)),
    CHECK ((shape = 'pile') = (top_cm IS NOT NULL)),
    CHECK ((shape IN ('ring', 'drum', 'lying-drum', 'tower')) = (diameter_cm IS NOT NULL)),
    CHECK ((shape = 'lying-drum') = (height_cm IS NULL)),
    CHECK ((shape = 'tower') = (columns IS NOT NULL))
) STRICT;

INSERT INTO batch_new (id, site_id, name, water_l, shape, length_cm, width_cm, diameter_cm, height_cm,
                       method, taken_at, version, created_at, updated_at, removed_at)
SELECT id, site_id, name, water_l, shape, length_cm, width_cm, diameter_cm, height_cm,
       method, taken_at, version, created_at, updated_at, removed_at
FROM batch;

DROP TABLE batch;
ALTER TABLE batch_new RENAME TO batch;
CREATE UNIQUE INDEX batch_name ON batch (site_id, name) WHERE removed_at IS NULL;
