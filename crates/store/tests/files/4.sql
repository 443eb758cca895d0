PRAGMA user_version = 4;
BEGIN TRANSACTION;
CREATE TABLE "batch" (
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
INSERT INTO "batch" VALUES(1,1,'Terrace heap',72.0,'box',110.0,110.0,NULL,NULL,120.0,NULL,'bay-turned','2026-03-05T08:00:00Z',NULL,'',1,'2026-03-02T08:00:00Z','2026-03-02T09:00:00Z',NULL);
INSERT INTO "batch" VALUES(2,1,'Free heap',40.0,'pile',180.0,160.0,90.0,NULL,130.0,NULL,'layered-heap',NULL,'2026-03-20','farm-ferment;charcoal',1,'2026-03-06T08:00:00Z','2026-03-06T08:00:00Z',NULL);
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
INSERT INTO "batch_item_test" VALUES(1,0,'moisture',0.14,'drying','2026-03-01');
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
INSERT INTO "field_test" VALUES(1,1,'squeeze','2026-03-04','{"kind":"squeeze","feel":"holds"}',1,'2026-03-04T08:00:00Z','2026-03-04T08:00:00Z',NULL);
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
    removed_at   TEXT, gathered_on TEXT, price REAL CHECK (price IS NULL OR (price >= 0 AND price <= 1000000)),
    FOREIGN KEY (site_id, measure_id) REFERENCES measure (site_id, id), -- a measure of the same site
    CHECK ((unit = 'measure') = (measure_id IS NOT NULL))
) STRICT;
INSERT INTO "lot" VALUES(1,1,'barley-straw',NULL,3.0,'measure',1,0.15,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'2026-03-01T08:00:02Z','2026-03-02T08:00:00Z',NULL,'2026-02-20',0.5);
INSERT INTO "lot" VALUES(2,1,'wood-ash','stove ash',3.5,'kg',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'2026-03-01T08:00:03Z','2026-03-02T08:00:00Z','2026-03-03T08:00:00Z',NULL,NULL);
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
INSERT INTO "lot_event" VALUES(1,1,'2026-03-01T08:00:02Z','start',4.0,4.0,'measure',1,0.0,NULL,NULL);
INSERT INTO "lot_event" VALUES(2,2,'2026-03-01T08:00:03Z','start',3.5,3.5,'kg',NULL,0.0,NULL,NULL);
INSERT INTO "lot_event" VALUES(3,1,'2026-03-04T08:00:00Z','delivery',3.0,7.0,'measure',1,0.0,NULL,'from the neighbour');
INSERT INTO "lot_event" VALUES(4,1,'2026-03-05T08:00:00Z','batch',-4.0,3.0,'measure',1,-280.0,1,NULL);
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
CREATE TABLE measure (
    id         INTEGER PRIMARY KEY,
    site_id    INTEGER NOT NULL REFERENCES site (id),
    name       TEXT NOT NULL CHECK (length(name) > 0), -- one of them: "barrow"
    plural     TEXT NOT NULL,                          -- many of them: "barrows"
    litres     REAL NOT NULL CHECK (litres > 0),       -- what one holds, level full
    glyph      TEXT NOT NULL,                          -- sign it is drawn with
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL, way TEXT NOT NULL DEFAULT 'litres'
    CHECK (way IN ('litres', 'cylinder', 'cone', 'box', 'counted', 'measures')), across_cm REAL, bottom_cm REAL, length_cm REAL, width_cm REAL, height_cm REAL, counted REAL, part_litres REAL, part_id INTEGER REFERENCES measure (id), heaped REAL NOT NULL DEFAULT 1, removed_at TEXT,
    UNIQUE (site_id, id)
) STRICT;
INSERT INTO "measure" VALUES(1,1,'barrow','barrows',70.0,'barrow',1,'2026-03-01T08:00:01Z','2026-03-01T08:00:01Z','litres',NULL,NULL,NULL,NULL,NULL,NULL,70.0,NULL,1.0,NULL);
INSERT INTO "measure" VALUES(2,1,'cart','carts',420.0,'cart',1,'2026-03-04T08:00:00Z','2026-03-04T08:00:00Z','measures',NULL,NULL,NULL,NULL,NULL,6.0,NULL,1,1.0,NULL);
CREATE TABLE site (
    id         INTEGER PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    created_at TEXT NOT NULL -- RFC 3339, UTC
, altitude_m REAL, version INTEGER NOT NULL DEFAULT 1, removed_at TEXT) STRICT;
INSERT INTO "site" VALUES(1,'Velluma Terraces','2026-03-01T08:00:00Z',2900.0,1,NULL);
CREATE TABLE site_month (
    site_id INTEGER NOT NULL REFERENCES site (id),
    month   INTEGER NOT NULL CHECK (month BETWEEN 1 AND 12),
    mean_c  REAL NOT NULL,
    swing_c REAL NOT NULL CHECK (swing_c >= 0), -- day above and night below the mean
    rain_mm REAL NOT NULL CHECK (rain_mm >= 0), -- in the whole month
    PRIMARY KEY (site_id, month)
) STRICT;
INSERT INTO "site_month" VALUES(1,1,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,2,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,3,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,4,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,5,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,6,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,7,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,8,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,9,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,10,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,11,12.0,6.0,80.0);
INSERT INTO "site_month" VALUES(1,12,12.0,6.0,80.0);
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
INSERT INTO "sorted_out" VALUES(1,1,'pet-faeces',NULL,1.5,'the pit','2026-03-04','2026-03-04T08:00:00Z',NULL);
CREATE INDEX lot_of_site ON lot (site_id);
CREATE UNIQUE INDEX measure_name ON measure (site_id, name) WHERE removed_at IS NULL;
CREATE INDEX lot_event_of_lot ON lot_event (lot_id);
CREATE INDEX lot_event_of_batch ON lot_event (batch_id) WHERE batch_id IS NOT NULL;
CREATE INDEX field_test_of_lot ON field_test (lot_id);
CREATE INDEX sorted_out_of_site ON sorted_out (site_id);
CREATE UNIQUE INDEX batch_name ON batch (site_id, name) WHERE removed_at IS NULL;
COMMIT;
