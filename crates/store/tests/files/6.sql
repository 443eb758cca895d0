PRAGMA user_version = 6;
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
INSERT INTO "batch" VALUES(1,1,'Terrace heap',72.0,'box',110.0,110.0,NULL,NULL,120.0,NULL,'bay-turned',NULL,NULL,'',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "batch" VALUES(2,1,'Training plot ring',36.0,'ring',NULL,NULL,NULL,110.0,100.0,NULL,'wire-ring','2026-03-14T08:00:00Z',NULL,'',2,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
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
INSERT INTO "batch_item" VALUES(1,0,1,'barley-straw',NULL,18.0,'measure',4,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES(1,1,2,'faba-bean-haulm',NULL,10.0,'measure',4,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES(1,2,4,'sheep-manure',NULL,2.0,'measure',2,70.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES(1,3,5,'guinea-pig-manure',NULL,2.0,'measure',2,70.0,0.48,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES(1,4,7,'vegetable-scraps','Kitchen scraps',4.0,'measure',1,12.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES(2,0,1,'barley-straw',NULL,9.0,'measure',4,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES(2,1,6,'donkey-manure',NULL,1.0,'measure',5,160.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES(2,2,9,'green-weeds',NULL,2.0,'measure',3,90.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
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
INSERT INTO "field_test" VALUES(1,1,'weigh','2026-03-06','{"kind":"weigh","litres":60.0,"full_kg":3.4,"empty_kg":0.4}',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "field_test" VALUES(2,4,'drying','2026-03-08','{"kind":"drying","dish_g":180.0,"wet_g":480.0,"dried_g":[352.0,312.0,311.0]}',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "field_test" VALUES(3,4,'squeeze','2026-03-08','{"kind":"squeeze","feel":"holds"}',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "field_test" VALUES(4,6,'bean','2026-03-05','{"kind":"bean","sown":10,"up":0,"deformed":0,"control_sown":10,"control_up":0,"control_deformed":0,"judged_on":null}',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "field_test" VALUES(5,9,'squeeze','2026-03-13','{"kind":"squeeze","feel":"stream"}',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "field_test" VALUES(6,4,'squeeze','2026-03-13','{"kind":"squeeze","feel":"drops"}',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "field_test" VALUES(7,5,'weigh','2026-03-12','{"kind":"weigh","litres":12.0,"full_kg":6.4,"empty_kg":0.8}',2,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','2026-03-14T08:00:00Z');
CREATE TABLE heap (
    id          INTEGER PRIMARY KEY,
    site_id     INTEGER NOT NULL REFERENCES site (id),
    batch_id    INTEGER REFERENCES batch (id),
    name        TEXT NOT NULL CHECK (length(name) > 0),
    shape       TEXT NOT NULL
        CHECK (shape IN ('box', 'ring', 'pile', 'windrow', 'drum', 'lying-drum', 'tower')),
    length_cm   REAL,
    width_cm    REAL,
    top_cm      REAL,
    diameter_cm REAL,
    height_cm   REAL,
    columns     INTEGER,
    method      TEXT,
    taken_at    TEXT, -- when what went in was taken from stock
    version     INTEGER NOT NULL DEFAULT 1,
    created_at  TEXT NOT NULL,
    updated_at  TEXT NOT NULL,
    removed_at  TEXT
) STRICT;
INSERT INTO "heap" VALUES(1,1,1,'Terrace heap','box',110.0,110.0,NULL,NULL,120.0,NULL,'bay-turned','2026-03-14T08:00:00Z',12,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
CREATE TABLE heap_act (
    id        INTEGER PRIMARY KEY,
    heap_id   INTEGER NOT NULL REFERENCES heap (id) ON DELETE CASCADE,
    kind      TEXT NOT NULL CHECK (kind IN ('planned', 'laid')),
    from_step INTEGER NOT NULL CHECK (from_step >= 0), -- the step laid, or the first one planned
    made_at   TEXT NOT NULL
) STRICT;
INSERT INTO "heap_act" VALUES(1,1,'planned',0,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(2,1,'laid',0,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(3,1,'laid',1,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(4,1,'laid',2,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(5,1,'laid',3,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(6,1,'planned',4,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(7,1,'laid',4,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(8,1,'laid',5,'2026-03-14T08:00:00Z');
INSERT INTO "heap_act" VALUES(9,1,'planned',6,'2026-03-14T08:00:00Z');
CREATE TABLE heap_item (
    heap_id        INTEGER NOT NULL REFERENCES heap (id) ON DELETE CASCADE,
    position       INTEGER NOT NULL,
    lot_id         INTEGER REFERENCES lot (id),
    material       TEXT NOT NULL,
    label          TEXT,
    amount         REAL NOT NULL CHECK (amount >= 0),
    unit           TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id     INTEGER REFERENCES measure (id),
    measure_litres REAL,
    moisture       REAL,
    nitrogen       REAL,
    c_n            REAL,
    ash            REAL,
    lignin         REAL,
    density_kg_l   REAL,
    settle         REAL,
    chopped        INTEGER NOT NULL DEFAULT 0 CHECK (chopped IN (0, 1)),
    PRIMARY KEY (heap_id, position),
    CHECK ((unit = 'measure') = (measure_id IS NOT NULL AND measure_litres IS NOT NULL))
) STRICT;
INSERT INTO "heap_item" VALUES(1,0,1,'barley-straw',NULL,18.0,'measure',4,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "heap_item" VALUES(1,1,2,'faba-bean-haulm',NULL,10.0,'measure',4,60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "heap_item" VALUES(1,2,4,'sheep-manure',NULL,2.0,'measure',2,70.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "heap_item" VALUES(1,3,5,'guinea-pig-manure',NULL,2.0,'measure',2,70.0,0.48,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "heap_item" VALUES(1,4,7,'vegetable-scraps','Kitchen scraps',4.0,'measure',1,12.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "heap_item" VALUES(1,5,9,'green-weeds',NULL,2.0,'measure',3,90.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
CREATE TABLE heap_item_test (
    heap_id  INTEGER NOT NULL,
    position INTEGER NOT NULL,
    figure   TEXT NOT NULL CHECK (figure IN ('moisture', 'density', 'settle', 'herbicide')),
    value    REAL NOT NULL,
    kind     TEXT NOT NULL CHECK (kind IN ('weigh', 'drying', 'squeeze', 'bucket', 'bean')),
    made_on  TEXT NOT NULL,
    PRIMARY KEY (heap_id, position, figure),
    FOREIGN KEY (heap_id, position) REFERENCES heap_item (heap_id, position) ON DELETE CASCADE
) STRICT;
CREATE TABLE heap_portion (
    act_id   INTEGER NOT NULL,
    position INTEGER NOT NULL, -- of the step
    place    INTEGER NOT NULL, -- in the step
    item     INTEGER NOT NULL, -- position of the item in the heap
    amount   REAL NOT NULL CHECK (amount >= 0), -- in the item's unit
    PRIMARY KEY (act_id, position, place),
    FOREIGN KEY (act_id, position) REFERENCES heap_step (act_id, position) ON DELETE CASCADE
) STRICT;
INSERT INTO "heap_portion" VALUES(1,0,0,0,8.0);
INSERT INTO "heap_portion" VALUES(1,1,0,1,5.0);
INSERT INTO "heap_portion" VALUES(1,2,0,4,2.0);
INSERT INTO "heap_portion" VALUES(1,3,0,2,1.0);
INSERT INTO "heap_portion" VALUES(1,4,0,3,1.0);
INSERT INTO "heap_portion" VALUES(1,5,0,0,8.0);
INSERT INTO "heap_portion" VALUES(1,6,0,1,5.0);
INSERT INTO "heap_portion" VALUES(1,7,0,4,2.0);
INSERT INTO "heap_portion" VALUES(1,8,0,2,1.0);
INSERT INTO "heap_portion" VALUES(1,9,0,3,1.0);
INSERT INTO "heap_portion" VALUES(1,10,0,0,2.0);
INSERT INTO "heap_portion" VALUES(2,0,0,0,8.0);
INSERT INTO "heap_portion" VALUES(3,0,0,1,5.0);
INSERT INTO "heap_portion" VALUES(4,0,0,4,2.0);
INSERT INTO "heap_portion" VALUES(5,0,0,2,4.0);
INSERT INTO "heap_portion" VALUES(6,0,0,3,1.0);
INSERT INTO "heap_portion" VALUES(6,1,0,0,8.0);
INSERT INTO "heap_portion" VALUES(6,2,0,1,5.0);
INSERT INTO "heap_portion" VALUES(6,3,0,4,2.0);
INSERT INTO "heap_portion" VALUES(6,4,0,2,1.0);
INSERT INTO "heap_portion" VALUES(6,5,0,3,1.0);
INSERT INTO "heap_portion" VALUES(6,6,0,0,2.0);
INSERT INTO "heap_portion" VALUES(7,0,0,3,1.0);
INSERT INTO "heap_portion" VALUES(7,0,1,5,2.0);
INSERT INTO "heap_portion" VALUES(8,0,0,0,8.0);
CREATE TABLE heap_step (
    act_id   INTEGER NOT NULL REFERENCES heap_act (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    role     TEXT NOT NULL CHECK (role IN ('foundation', 'mix', 'separator', 'cap')),
    cycle    INTEGER,
    water_l  REAL NOT NULL CHECK (water_l >= 0),
    beside_l REAL NOT NULL CHECK (beside_l >= 0),
    PRIMARY KEY (act_id, position)
) STRICT;
INSERT INTO "heap_step" VALUES(1,0,'mix',1,18.399,0.0);
INSERT INTO "heap_step" VALUES(1,1,'mix',1,11.952,0.0);
INSERT INTO "heap_step" VALUES(1,2,'mix',1,0.0,0.0);
INSERT INTO "heap_step" VALUES(1,3,'mix',1,0.0,0.0);
INSERT INTO "heap_step" VALUES(1,4,'mix',1,3.349,0.0);
INSERT INTO "heap_step" VALUES(1,5,'mix',2,18.399,0.0);
INSERT INTO "heap_step" VALUES(1,6,'mix',2,11.952,0.0);
INSERT INTO "heap_step" VALUES(1,7,'mix',2,0.0,0.0);
INSERT INTO "heap_step" VALUES(1,8,'mix',2,0.0,0.0);
INSERT INTO "heap_step" VALUES(1,9,'mix',2,3.349,0.0);
INSERT INTO "heap_step" VALUES(1,10,'cap',NULL,4.6,0.0);
INSERT INTO "heap_step" VALUES(2,0,'mix',1,18.399,0.0);
INSERT INTO "heap_step" VALUES(3,0,'mix',1,11.952,0.0);
INSERT INTO "heap_step" VALUES(4,0,'mix',1,0.0,0.0);
INSERT INTO "heap_step" VALUES(5,0,'mix',1,0.0,0.0);
INSERT INTO "heap_step" VALUES(6,0,'mix',1,0.774,0.0);
INSERT INTO "heap_step" VALUES(6,1,'mix',2,5.135,0.0);
INSERT INTO "heap_step" VALUES(6,2,'mix',2,3.314,0.0);
INSERT INTO "heap_step" VALUES(6,3,'mix',2,0.0,0.0);
INSERT INTO "heap_step" VALUES(6,4,'mix',2,0.0,0.0);
INSERT INTO "heap_step" VALUES(6,5,'mix',2,0.774,0.0);
INSERT INTO "heap_step" VALUES(6,6,'cap',NULL,1.284,0.0);
INSERT INTO "heap_step" VALUES(7,0,'mix',1,5.0,0.0);
INSERT INTO "heap_step" VALUES(8,0,'mix',2,5.135,0.0);
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
INSERT INTO "lot" VALUES(1,1,'barley-straw',NULL,0.0,'measure',4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,7,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-01-20',0.8);
INSERT INTO "lot" VALUES(2,1,'faba-bean-haulm',NULL,9.0,'measure',4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,6,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-02-18',NULL);
INSERT INTO "lot" VALUES(3,1,'quinoa-amaranth-stalks','Quinoa stalks',6.0,'measure',4,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-02-25',NULL);
INSERT INTO "lot" VALUES(4,1,'sheep-manure',NULL,1.0,'measure',2,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,6,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-03-02',NULL);
INSERT INTO "lot" VALUES(5,1,'guinea-pig-manure',NULL,2.0,'measure',2,0.48,NULL,NULL,NULL,NULL,NULL,NULL,0,6,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-03-09',NULL);
INSERT INTO "lot" VALUES(6,1,'donkey-manure',NULL,0.5,'measure',5,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,5,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-03-05',1.5);
INSERT INTO "lot" VALUES(7,1,'vegetable-scraps','Kitchen scraps',3.0,'measure',1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,6,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-03-11',NULL);
INSERT INTO "lot" VALUES(8,1,'potato-haulm',NULL,4.0,'measure',3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-03-12',NULL);
INSERT INTO "lot" VALUES(9,1,'green-weeds',NULL,0.0,'measure',3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,7,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-03-13',NULL);
INSERT INTO "lot" VALUES(10,1,'layer-hen-manure','Hen house sweepings',2.0,'measure',1,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,2,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','2026-03-10',0.5);
INSERT INTO "lot" VALUES(11,1,'eucalyptus-leaves','Leaves from the windbreak',1.0,'measure',3,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,2,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-02-01',NULL);
INSERT INTO "lot" VALUES(12,1,'wood-ash','stove ash',20.0,'litre',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,2,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,'2026-02-20',NULL);
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
, heap_id INTEGER REFERENCES heap (id)) STRICT;
INSERT INTO "lot_event" VALUES(1,1,'2026-03-14T08:00:00Z','start',24.0,24.0,'measure',4,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(2,2,'2026-03-14T08:00:00Z','start',14.0,14.0,'measure',4,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(3,3,'2026-03-14T08:00:00Z','start',6.0,6.0,'measure',4,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(4,4,'2026-03-14T08:00:00Z','start',5.0,5.0,'measure',2,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(5,5,'2026-03-14T08:00:00Z','start',3.0,3.0,'measure',2,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(6,6,'2026-03-14T08:00:00Z','start',2.0,2.0,'measure',5,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(7,7,'2026-03-14T08:00:00Z','start',5.0,5.0,'measure',1,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(8,8,'2026-03-14T08:00:00Z','start',4.0,4.0,'measure',3,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(9,9,'2026-03-14T08:00:00Z','start',3.0,3.0,'measure',3,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(10,10,'2026-03-14T08:00:00Z','start',2.0,2.0,'measure',1,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(11,11,'2026-03-14T08:00:00Z','start',2.0,2.0,'measure',3,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(12,12,'2026-03-14T08:00:00Z','start',4.0,4.0,'kg',NULL,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(13,1,'2026-03-14T08:00:00Z','batch',-8.0,16.0,'measure',4,-480.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(14,2,'2026-03-14T08:00:00Z','batch',-5.00000000000000088817e+00,9.0,'measure',4,-3.00000000000000056833e+02,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(15,4,'2026-03-14T08:00:00Z','batch',-4.0,1.0,'measure',2,-280.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(16,5,'2026-03-14T08:00:00Z','batch',-1.0,2.0,'measure',2,-70.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(17,7,'2026-03-14T08:00:00Z','batch',-2.0,3.0,'measure',1,-24.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(18,9,'2026-03-14T08:00:00Z','batch',-2.0,1.0,'measure',3,-180.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(19,1,'2026-03-14T08:00:00Z','give-back',8.0,24.0,'measure',4,480.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(20,2,'2026-03-14T08:00:00Z','give-back',5.00000000000000088817e+00,14.0,'measure',4,3.00000000000000056833e+02,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(21,4,'2026-03-14T08:00:00Z','give-back',4.0,5.0,'measure',2,280.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(22,5,'2026-03-14T08:00:00Z','give-back',1.0,3.0,'measure',2,70.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(23,7,'2026-03-14T08:00:00Z','give-back',2.0,5.0,'measure',1,24.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(24,9,'2026-03-14T08:00:00Z','give-back',2.0,3.0,'measure',3,180.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(25,1,'2026-03-14T08:00:00Z','batch',-16.0,8.0,'measure',4,-960.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(26,2,'2026-03-14T08:00:00Z','batch',-5.00000000000000088817e+00,9.0,'measure',4,-3.00000000000000056833e+02,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(27,4,'2026-03-14T08:00:00Z','batch',-4.0,1.0,'measure',2,-280.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(28,5,'2026-03-14T08:00:00Z','batch',-1.0,2.0,'measure',2,-70.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(29,7,'2026-03-14T08:00:00Z','batch',-2.0,3.0,'measure',1,-24.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(30,9,'2026-03-14T08:00:00Z','batch',-2.0,1.0,'measure',3,-180.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(31,1,'2026-03-14T08:00:00Z','give-back',16.0,24.0,'measure',4,960.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(32,2,'2026-03-14T08:00:00Z','give-back',5.00000000000000088817e+00,14.0,'measure',4,3.00000000000000056833e+02,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(33,4,'2026-03-14T08:00:00Z','give-back',4.0,5.0,'measure',2,280.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(34,5,'2026-03-14T08:00:00Z','give-back',1.0,3.0,'measure',2,70.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(35,7,'2026-03-14T08:00:00Z','give-back',2.0,5.0,'measure',1,24.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(36,9,'2026-03-14T08:00:00Z','give-back',2.0,3.0,'measure',3,180.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(37,1,'2026-03-14T08:00:00Z','batch',-16.0,8.0,'measure',4,-960.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(38,2,'2026-03-14T08:00:00Z','batch',-5.00000000000000088817e+00,9.0,'measure',4,-3.00000000000000056833e+02,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(39,4,'2026-03-14T08:00:00Z','batch',-4.0,1.0,'measure',2,-280.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(40,5,'2026-03-14T08:00:00Z','batch',-1.0,2.0,'measure',2,-70.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(41,7,'2026-03-14T08:00:00Z','batch',-2.0,3.0,'measure',1,-24.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(42,9,'2026-03-14T08:00:00Z','batch',-2.0,1.0,'measure',3,-180.0,NULL,NULL,1);
INSERT INTO "lot_event" VALUES(43,1,'2026-03-14T08:00:00Z','batch',-8.0,0.0,'measure',4,-480.0,2,NULL,NULL);
INSERT INTO "lot_event" VALUES(44,6,'2026-03-14T08:00:00Z','batch',-1.0,1.0,'measure',5,-160.0,2,NULL,NULL);
INSERT INTO "lot_event" VALUES(45,9,'2026-03-14T08:00:00Z','batch',-1.0,0.0,'measure',3,-90.0,2,NULL,NULL);
INSERT INTO "lot_event" VALUES(47,6,'2026-03-14T08:00:00Z','use',-0.5,2.5,'measure',5,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(48,11,'2026-03-14T08:00:00Z','spoiled',-1.0,1.0,'measure',3,0.0,NULL,NULL,NULL);
INSERT INTO "lot_event" VALUES(49,12,'2026-03-14T08:00:00Z','count',0.0,20.0,'litre',NULL,0.0,NULL,NULL,NULL);
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
INSERT INTO "measure" VALUES(1,1,'bucket','buckets',12.0,'bucket',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','litres',NULL,NULL,NULL,NULL,NULL,NULL,12.0,NULL,1.0,NULL);
INSERT INTO "measure" VALUES(2,1,'barrow','barrows',70.0,'barrow',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','litres',NULL,NULL,NULL,NULL,NULL,NULL,70.0,NULL,1.0,NULL);
INSERT INTO "measure" VALUES(3,1,'potato sack','potato sacks',90.0,'sack',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','litres',NULL,NULL,NULL,NULL,NULL,NULL,90.0,NULL,1.0,NULL);
INSERT INTO "measure" VALUES(4,1,'carrying cloth','carrying cloths',60.0,'cloth',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','litres',NULL,NULL,NULL,NULL,NULL,NULL,60.0,NULL,1.0,NULL);
INSERT INTO "measure" VALUES(5,1,'pannier pair','pannier pairs',160.0,'pannier',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','litres',NULL,NULL,NULL,NULL,NULL,NULL,160.0,NULL,1.0,NULL);
CREATE TABLE method (
    id                 TEXT PRIMARY KEY CHECK (length(id) > 0),
    base               TEXT NOT NULL, -- an id of the core's list
    name               TEXT NOT NULL CHECK (length(name) > 0),
    c_n                TEXT NOT NULL,
    moisture           TEXT NOT NULL,
    free_air_space_min REAL NOT NULL,
    volume_l           TEXT NOT NULL,
    height_cm          TEXT NOT NULL,
    first_turn_day     INTEGER,
    turn_every_days    TEXT,
    check_days         TEXT NOT NULL,
    active_weeks       TEXT NOT NULL,
    cure_weeks         TEXT NOT NULL,
    volume_left        TEXT NOT NULL,
    mass_left          TEXT NOT NULL,
    nitrogen_kept      TEXT NOT NULL,
    build_h_m3         TEXT NOT NULL,
    turn_h_m3          TEXT,
    pattern            TEXT NOT NULL, -- words of the core's list, between semicolons
    foundation_cm      REAL NOT NULL,
    cap_cm             REAL NOT NULL,
    version            INTEGER NOT NULL DEFAULT 1,
    created_at         TEXT NOT NULL,
    updated_at         TEXT NOT NULL,
    removed_at         TEXT
) STRICT;
CREATE TABLE site (
    id         INTEGER PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    created_at TEXT NOT NULL -- RFC 3339, UTC
, altitude_m REAL, version INTEGER NOT NULL DEFAULT 1, removed_at TEXT) STRICT;
INSERT INTO "site" VALUES(1,'Velluma Terraces','2026-03-14T08:00:00Z',2900.0,1,NULL);
CREATE TABLE site_month (
    site_id INTEGER NOT NULL REFERENCES site (id),
    month   INTEGER NOT NULL CHECK (month BETWEEN 1 AND 12),
    mean_c  REAL NOT NULL,
    swing_c REAL NOT NULL CHECK (swing_c >= 0), -- day above and night below the mean
    rain_mm REAL NOT NULL CHECK (rain_mm >= 0), -- in the whole month
    PRIMARY KEY (site_id, month)
) STRICT;
INSERT INTO "site_month" VALUES(1,1,13.2,6.5,118.0);
INSERT INTO "site_month" VALUES(1,2,13.0,6.3,110.0);
INSERT INTO "site_month" VALUES(1,3,12.9,6.6,98.0);
INSERT INTO "site_month" VALUES(1,4,12.5,7.6,46.0);
INSERT INTO "site_month" VALUES(1,5,11.4,9.0,12.0);
INSERT INTO "site_month" VALUES(1,6,10.3,9.6,5.0);
INSERT INTO "site_month" VALUES(1,7,10.0,9.9,6.0);
INSERT INTO "site_month" VALUES(1,8,11.0,9.7,10.0);
INSERT INTO "site_month" VALUES(1,9,12.3,8.9,24.0);
INSERT INTO "site_month" VALUES(1,10,13.3,8.4,42.0);
INSERT INTO "site_month" VALUES(1,11,13.6,8.0,58.0);
INSERT INTO "site_month" VALUES(1,12,13.5,7.1,96.0);
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
INSERT INTO "sorted_out" VALUES(1,1,'pet-faeces',NULL,1.5,'the pit','2026-03-13','2026-03-14T08:00:00Z',NULL);
INSERT INTO "sorted_out" VALUES(2,1,'coal-ash','stove',NULL,NULL,'2026-03-12','2026-03-14T08:00:00Z','2026-03-14T08:00:00Z');
CREATE INDEX lot_of_site ON lot (site_id);
CREATE UNIQUE INDEX measure_name ON measure (site_id, name) WHERE removed_at IS NULL;
CREATE INDEX lot_event_of_lot ON lot_event (lot_id);
CREATE INDEX lot_event_of_batch ON lot_event (batch_id) WHERE batch_id IS NOT NULL;
CREATE INDEX field_test_of_lot ON field_test (lot_id);
CREATE INDEX sorted_out_of_site ON sorted_out (site_id);
CREATE UNIQUE INDEX batch_name ON batch (site_id, name) WHERE removed_at IS NULL;
CREATE INDEX heap_of_site ON heap (site_id) WHERE removed_at IS NULL;
CREATE INDEX heap_act_of_heap ON heap_act (heap_id, id);
CREATE UNIQUE INDEX method_name ON method (name) WHERE removed_at IS NULL;
COMMIT;
