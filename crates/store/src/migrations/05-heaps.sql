-- A batch as it is built: what is in it stands on its own, so that the recipe may
-- be changed, or built again.
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

CREATE INDEX heap_of_site ON heap (site_id) WHERE removed_at IS NULL;

-- What may go in, with its figures as they stood; what nobody planned has no amount.
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

ALTER TABLE lot_event ADD COLUMN heap_id INTEGER REFERENCES heap (id);

-- What was done on build day, in order. The heap is what these come to; the last
-- can be undone.
CREATE TABLE heap_act (
    id        INTEGER PRIMARY KEY,
    heap_id   INTEGER NOT NULL REFERENCES heap (id) ON DELETE CASCADE,
    kind      TEXT NOT NULL CHECK (kind IN ('planned', 'laid')),
    from_step INTEGER NOT NULL CHECK (from_step >= 0), -- the step laid, or the first one planned
    made_at   TEXT NOT NULL
) STRICT;

CREATE INDEX heap_act_of_heap ON heap_act (heap_id, id);

CREATE TABLE heap_step (
    act_id   INTEGER NOT NULL REFERENCES heap_act (id) ON DELETE CASCADE,
    position INTEGER NOT NULL,
    role     TEXT NOT NULL CHECK (role IN ('foundation', 'mix', 'separator', 'cap')),
    cycle    INTEGER,
    water_l  REAL NOT NULL CHECK (water_l >= 0),
    beside_l REAL NOT NULL CHECK (beside_l >= 0),
    PRIMARY KEY (act_id, position)
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
