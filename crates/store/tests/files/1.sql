PRAGMA user_version = 1;
BEGIN TRANSACTION;
CREATE TABLE batch (
    id          INTEGER PRIMARY KEY,
    site_id     INTEGER NOT NULL REFERENCES site (id),
    name        TEXT NOT NULL CHECK (length(name) > 0),
    water_l     REAL NOT NULL CHECK (water_l >= 0),
    shape       TEXT NOT NULL CHECK (shape IN ('box', 'ring')),
    length_cm   REAL, -- of a box
    width_cm    REAL, -- of a box
    diameter_cm REAL, -- of a ring
    height_cm   REAL NOT NULL,
    version     INTEGER NOT NULL DEFAULT 1,
    created_at  TEXT NOT NULL,
    updated_at  TEXT NOT NULL,
    removed_at  TEXT,
    CHECK ((shape = 'box') = (length_cm IS NOT NULL AND width_cm IS NOT NULL)),
    CHECK ((shape = 'ring') = (diameter_cm IS NOT NULL))
) STRICT;
INSERT INTO "batch" VALUES(1,1,'Terrace heap',72.0,'box',110.0,110.0,NULL,120.0,1,'2026-03-02T08:00:00Z','2026-03-02T09:00:00Z',NULL);
CREATE TABLE batch_item (
    batch_id       INTEGER NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    position       INTEGER NOT NULL,
    lot_id         INTEGER REFERENCES lot (id),
    material       TEXT NOT NULL,
    label          TEXT,
    amount         REAL NOT NULL CHECK (amount >= 0),
    unit           TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id     INTEGER REFERENCES measure (id),
    measure_litres REAL, -- what one held when the batch was saved
    moisture       REAL,
    nitrogen       REAL,
    c_n            REAL,
    ash            REAL,
    lignin         REAL,
    density_kg_l   REAL,
    settle         REAL,
    chopped        INTEGER NOT NULL DEFAULT 0 CHECK (chopped IN (0, 1)),
    PRIMARY KEY (batch_id, position),
    CHECK ((unit = 'measure') = (measure_id IS NOT NULL AND measure_litres IS NOT NULL))
) STRICT;
INSERT INTO "batch_item" VALUES(1,0,1,'barley-straw',NULL,4.0,'measure',1,70.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
CREATE TABLE lot (
    id           INTEGER PRIMARY KEY,
    site_id      INTEGER NOT NULL REFERENCES site (id),
    material     TEXT NOT NULL,           -- id in the reference table
    label        TEXT,                    -- the person's own name for it
    amount       REAL NOT NULL CHECK (amount >= 0),
    unit         TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id   INTEGER,
    moisture     REAL, -- own figures, NULL where the book's are used; share of fresh mass
    nitrogen     REAL, -- share of dry matter
    c_n          REAL, -- by mass
    ash          REAL, -- share of dry matter
    lignin       REAL, -- share of dry matter
    density_kg_l REAL, -- loose
    settle       REAL, -- share of loose volume
    chopped      INTEGER NOT NULL DEFAULT 0 CHECK (chopped IN (0, 1)),
    version      INTEGER NOT NULL DEFAULT 1,
    created_at   TEXT NOT NULL,
    updated_at   TEXT NOT NULL,
    removed_at   TEXT,
    FOREIGN KEY (site_id, measure_id) REFERENCES measure (site_id, id), -- a measure of the same site
    CHECK ((unit = 'measure') = (measure_id IS NOT NULL))
) STRICT;
INSERT INTO "lot" VALUES(1,1,'barley-straw',NULL,4.0,'measure',1,0.15,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'2026-03-01T08:00:02Z','2026-03-02T08:00:00Z',NULL);
INSERT INTO "lot" VALUES(2,1,'wood-ash','stove ash',3.5,'kg',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'2026-03-01T08:00:03Z','2026-03-02T08:00:00Z','2026-03-03T08:00:00Z');
CREATE TABLE measure (
    id         INTEGER PRIMARY KEY,
    site_id    INTEGER NOT NULL REFERENCES site (id),
    name       TEXT NOT NULL CHECK (length(name) > 0), -- one of them: "barrow"
    plural     TEXT NOT NULL,                          -- many of them: "barrows"
    litres     REAL NOT NULL CHECK (litres > 0),       -- what one holds, level full
    glyph      TEXT NOT NULL,                          -- sign it is drawn with
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL,
    UNIQUE (site_id, id)
) STRICT;
INSERT INTO "measure" VALUES(1,1,'barrow','barrows',70.0,'barrow',1,'2026-03-01T08:00:01Z','2026-03-01T08:00:01Z');
CREATE TABLE site (
    id         INTEGER PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    created_at TEXT NOT NULL -- RFC 3339, UTC
) STRICT;
INSERT INTO "site" VALUES(1,'Velluma Terraces','2026-03-01T08:00:00Z');
CREATE UNIQUE INDEX measure_name ON measure (site_id, name);
CREATE INDEX lot_of_site ON lot (site_id);
CREATE UNIQUE INDEX batch_name ON batch (site_id, name) WHERE removed_at IS NULL;
COMMIT;
