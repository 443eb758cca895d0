-- One log for everything that happened, keys that any device can give, and what
-- stands as tables made of the log. All that was kept before comes along.

-- A new key for every old one: UUID version 7, made of when it was made and its old
-- number, so that the order stays.
CREATE TABLE new_id (
    kind TEXT NOT NULL,
    old  INTEGER NOT NULL,
    new  TEXT NOT NULL UNIQUE,
    PRIMARY KEY (kind, old)
) STRICT;

CREATE TABLE old_row AS
SELECT 'site' AS kind, id AS n, created_at AS at FROM site
UNION ALL SELECT 'measure', id, created_at FROM measure
UNION ALL SELECT 'lot', id, created_at FROM lot
UNION ALL SELECT 'batch', id, created_at FROM batch
UNION ALL SELECT 'heap', id, created_at FROM heap
UNION ALL SELECT 'test', id, created_at FROM field_test
UNION ALL SELECT 'sorted-out', id, created_at FROM sorted_out
UNION ALL SELECT 'lot-event', id, at FROM lot_event
UNION ALL SELECT 'heap-act', id, made_at FROM heap_act;

INSERT INTO new_id (kind, old, new)
SELECT kind, n,
       printf('%08x-%04x-7%03x-8%03x-%s', (ms >> 16) & 0xffffffff, ms & 0xffff, (n >> 12) & 0xfff, n & 0xfff,
              lower(hex(randomblob(6))))
FROM (SELECT kind, n, CAST(round(coalesce(unixepoch(at, 'subsec'), 0) * 1000) AS INTEGER) AS ms FROM old_row);

DROP TABLE old_row;

-- The log. It only grows.
CREATE TABLE entry (
    id          TEXT NOT NULL PRIMARY KEY CHECK (length(id) = 36), -- UUID version 7, from whoever wrote it
    site_id     TEXT NOT NULL REFERENCES site (id),
    subject     TEXT NOT NULL,    -- what it is about, a word of the core's list
    subject_id  TEXT NOT NULL CHECK (length(subject_id) = 36),
    kind        TEXT NOT NULL,    -- what happened, a word of the core's list
    at_ms       INTEGER NOT NULL, -- when it happened, since 1970, UTC
    recorded_ms INTEGER NOT NULL, -- when it was written down here
    person      TEXT NOT NULL,
    device      TEXT NOT NULL,
    body        TEXT NOT NULL CHECK (json_valid(body)),
    takes_back  TEXT CHECK (length(takes_back) = 36) -- the entry it takes back; may arrive later
) STRICT;

CREATE INDEX entry_of_subject ON entry (subject, subject_id, at_ms, id);
CREATE INDEX entry_taken_by ON entry (json_extract(body, '$.by.id')) WHERE kind = 'taken';

-- Sites and measures.
CREATE TABLE site_new (
    id         TEXT NOT NULL PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    altitude_m REAL,
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL, -- RFC 3339, UTC
    removed_at TEXT
) STRICT;

INSERT INTO site_new
SELECT key.new, name, altitude_m, version, created_at, removed_at
FROM site JOIN new_id key ON key.kind = 'site' AND key.old = site.id;

CREATE TABLE site_month_new (
    site_id TEXT NOT NULL REFERENCES site (id),
    month   INTEGER NOT NULL CHECK (month BETWEEN 1 AND 12),
    mean_c  REAL NOT NULL,
    swing_c REAL NOT NULL CHECK (swing_c >= 0), -- day above and night below the mean
    rain_mm REAL NOT NULL CHECK (rain_mm >= 0), -- in the whole month
    PRIMARY KEY (site_id, month)
) STRICT;

INSERT INTO site_month_new
SELECT key.new, month, mean_c, swing_c, rain_mm
FROM site_month JOIN new_id key ON key.kind = 'site' AND key.old = site_month.site_id;

CREATE TABLE measure_new (
    id          TEXT NOT NULL PRIMARY KEY,
    site_id     TEXT NOT NULL REFERENCES site (id),
    name        TEXT NOT NULL CHECK (length(name) > 0), -- one of them: "barrow"
    plural      TEXT NOT NULL,                          -- many of them: "barrows"
    litres      REAL NOT NULL CHECK (litres > 0),       -- what one holds as it is filled
    glyph       TEXT NOT NULL,                          -- sign it is drawn with
    way         TEXT NOT NULL CHECK (way IN ('litres', 'cylinder', 'cone', 'box', 'counted', 'measures')),
    across_cm   REAL, -- cylinder; top of a cone
    bottom_cm   REAL, -- cone
    length_cm   REAL, -- box
    width_cm    REAL, -- box
    height_cm   REAL,
    counted     REAL, -- how many go in
    part_litres REAL, -- counted: what each holds, or litres as written, level
    part_id     TEXT REFERENCES measure (id), -- measures: of which measure
    heaped      REAL NOT NULL DEFAULT 1,
    version     INTEGER NOT NULL DEFAULT 1,
    created_at  TEXT NOT NULL,
    updated_at  TEXT NOT NULL,
    removed_at  TEXT,
    UNIQUE (site_id, id)
) STRICT;

INSERT INTO measure_new
SELECT key.new, site.new, name, plural, litres, glyph, way, across_cm, bottom_cm, length_cm, width_cm, height_cm,
       counted, part_litres, part.new, heaped, version, created_at, updated_at, removed_at
FROM measure
JOIN new_id key ON key.kind = 'measure' AND key.old = measure.id
JOIN new_id site ON site.kind = 'site' AND site.old = measure.site_id
LEFT JOIN new_id part ON part.kind = 'measure' AND part.old = measure.part_id;

-- Lots: what they are. How much there is of them is for the log to say.
CREATE TABLE lot_new (
    id           TEXT NOT NULL PRIMARY KEY,
    site_id      TEXT NOT NULL REFERENCES site (id),
    material     TEXT NOT NULL, -- id of the reference table or of a person's own
    label        TEXT,          -- the person's own name for it
    moisture     REAL, -- own figures, NULL where the book's are used; share of fresh mass
    nitrogen     REAL, -- share of dry matter
    c_n          REAL, -- by mass
    ash          REAL, -- share of dry matter
    lignin       REAL, -- share of dry matter
    density_kg_l REAL, -- loose
    settle       REAL, -- share of loose volume
    chopped      INTEGER NOT NULL DEFAULT 0 CHECK (chopped IN (0, 1)),
    price        REAL CHECK (price IS NULL OR (price >= 0 AND price <= 1000000)), -- of one unit
    version      INTEGER NOT NULL DEFAULT 1,
    created_at   TEXT NOT NULL,
    updated_at   TEXT NOT NULL,
    removed_at   TEXT
) STRICT;

INSERT INTO lot_new
SELECT key.new, site.new, material, label, moisture, nitrogen, c_n, ash, lignin, density_kg_l, settle, chopped,
       price, version, created_at, updated_at, removed_at
FROM lot
JOIN new_id key ON key.kind = 'lot' AND key.old = lot.id
JOIN new_id site ON site.kind = 'site' AND site.old = lot.site_id;

CREATE TABLE batch_new (
    id          TEXT NOT NULL PRIMARY KEY,
    site_id     TEXT NOT NULL REFERENCES site (id),
    name        TEXT NOT NULL CHECK (length(name) > 0),
    water_l     REAL NOT NULL CHECK (water_l >= 0),
    shape       TEXT NOT NULL, -- a word of the core's list, with the sides that it has
    length_cm   REAL,
    width_cm    REAL,
    top_cm      REAL,
    diameter_cm REAL,
    height_cm   REAL,
    columns     INTEGER,
    method      TEXT,
    build_on    TEXT, -- the day it is to be built
    starters    TEXT NOT NULL DEFAULT '', -- words of the core's list, between semicolons
    version     INTEGER NOT NULL DEFAULT 1,
    created_at  TEXT NOT NULL,
    updated_at  TEXT NOT NULL,
    removed_at  TEXT
) STRICT;

INSERT INTO batch_new
SELECT key.new, site.new, name, water_l, shape, length_cm, width_cm, top_cm, diameter_cm, height_cm, columns,
       method, build_on, starters, version, created_at, updated_at, removed_at
FROM batch
JOIN new_id key ON key.kind = 'batch' AND key.old = batch.id
JOIN new_id site ON site.kind = 'site' AND site.old = batch.site_id;

-- What goes in, as it stood when the batch was saved: a lot that is changed or
-- used up later does not rewrite a recipe.
CREATE TABLE batch_item_new (
    batch_id       TEXT NOT NULL REFERENCES batch (id) ON DELETE CASCADE,
    position       INTEGER NOT NULL,
    lot_id         TEXT REFERENCES lot (id),
    material       TEXT NOT NULL,
    label          TEXT,
    amount         REAL NOT NULL CHECK (amount >= 0),
    unit           TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id     TEXT REFERENCES measure (id),
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

INSERT INTO batch_item_new
SELECT key.new, position, lot.new, material, label, amount, unit, measure.new, measure_litres, moisture, nitrogen,
       c_n, ash, lignin, density_kg_l, settle, chopped
FROM batch_item
JOIN new_id key ON key.kind = 'batch' AND key.old = batch_item.batch_id
LEFT JOIN new_id lot ON lot.kind = 'lot' AND lot.old = batch_item.lot_id
LEFT JOIN new_id measure ON measure.kind = 'measure' AND measure.old = batch_item.measure_id;

CREATE TABLE batch_item_test_new (
    batch_id TEXT NOT NULL,
    position INTEGER NOT NULL,
    figure   TEXT NOT NULL,
    value    REAL NOT NULL,
    kind     TEXT NOT NULL,
    made_on  TEXT NOT NULL,
    PRIMARY KEY (batch_id, position, figure),
    FOREIGN KEY (batch_id, position) REFERENCES batch_item (batch_id, position) ON DELETE CASCADE
) STRICT;

INSERT INTO batch_item_test_new
SELECT key.new, position, figure, value, batch_item_test.kind, made_on
FROM batch_item_test JOIN new_id key ON key.kind = 'batch' AND key.old = batch_item_test.batch_id;

-- What happened to lots. An entry is never older than the one before it, even
-- where a clock had been put back.
INSERT INTO entry (id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body)
SELECT key.new, site.new, 'lot', lot_key.new,
       CASE event.kind
           WHEN 'start' THEN 'came' WHEN 'count' THEN 'counted' WHEN 'delivery' THEN 'delivered'
           WHEN 'use' THEN 'used' WHEN 'spoiled' THEN 'spoiled'
           ELSE CASE
               WHEN event.batch_id IS NOT NULL OR event.heap_id IS NOT NULL THEN 'taken'
               WHEN event.delta < 0 THEN 'used'
               ELSE 'delivered'
           END
       END,
       event.ms, event.ms, 'local', 'before-the-log',
       CASE
           WHEN event.kind IN ('start', 'count') THEN json_patch('{}', json_object(
               'unit', event.unit, 'amount', event.amount, 'measure', measure_key.new,
               'litres_each', measure.litres,
               'gathered_on', CASE event.kind WHEN 'start' THEN lot.gathered_on END))
           ELSE json_patch('{}', json_object(
               'by', json(CASE
                   WHEN event.batch_id IS NOT NULL THEN json_object('of', 'batch', 'id', batch_key.new)
                   WHEN event.heap_id IS NOT NULL THEN json_object('of', 'heap', 'id', heap_key.new)
                   ELSE 'null'
               END),
               'unit', event.unit, 'amount', event.delta, 'measure', measure_key.new,
               'litres', CASE event.unit
                   WHEN 'litre' THEN event.delta
                   WHEN 'measure' THEN event.delta * measure.litres
                   ELSE event.litres
               END,
               'kg', CASE event.unit WHEN 'kg' THEN event.delta ELSE 0.0 END,
               'note', event.note))
       END
FROM (
    SELECT *, max(CAST(round(coalesce(unixepoch(at, 'subsec'), 0) * 1000) AS INTEGER))
              OVER (PARTITION BY lot_id ORDER BY id) AS ms
    FROM lot_event
) event
JOIN lot ON lot.id = event.lot_id
JOIN new_id key ON key.kind = 'lot-event' AND key.old = event.id
JOIN new_id lot_key ON lot_key.kind = 'lot' AND lot_key.old = lot.id
JOIN new_id site ON site.kind = 'site' AND site.old = lot.site_id
LEFT JOIN measure ON measure.id = event.measure_id
LEFT JOIN new_id measure_key ON measure_key.kind = 'measure' AND measure_key.old = event.measure_id
LEFT JOIN new_id batch_key ON batch_key.kind = 'batch' AND batch_key.old = event.batch_id
LEFT JOIN new_id heap_key ON heap_key.kind = 'heap' AND heap_key.old = event.heap_id;

-- A lot whose history does not come to what there is: as if it were counted once more.
INSERT INTO entry (id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body)
SELECT printf('%08x-%04x-7fff-8fff-%s', (ms >> 16) & 0xffffffff, ms & 0xffff, lower(hex(randomblob(6)))),
       site.new, 'lot', lot_key.new, CASE WHEN counted_id IS NULL THEN 'came' ELSE 'counted' END, ms, ms,
       'local', 'before-the-log',
       json_patch('{}', json_object('unit', unit, 'amount', amount, 'measure', measure_key.new,
                                    'litres_each', litres, 'gathered_on', gathered_on))
FROM (
    SELECT lot.id, lot.site_id, lot.unit, lot.amount, lot.measure_id, lot.gathered_on, measure.litres,
           last.id AS counted_id, last.unit AS counted_unit, last.measure_id AS counted_measure,
           last.amount + coalesce((SELECT sum(delta) FROM lot_event event
                                   WHERE event.lot_id = lot.id AND event.id > last.id), 0) AS comes_to,
           coalesce((SELECT max(CAST(round(coalesce(unixepoch(at, 'subsec'), 0) * 1000) AS INTEGER))
                     FROM lot_event event WHERE event.lot_id = lot.id), 0) + 1 AS ms
    FROM lot
    LEFT JOIN measure ON measure.id = lot.measure_id
    LEFT JOIN lot_event last ON last.id = (SELECT max(id) FROM lot_event event
                                           WHERE event.lot_id = lot.id AND event.kind IN ('start', 'count'))
) lot
JOIN new_id lot_key ON lot_key.kind = 'lot' AND lot_key.old = lot.id
JOIN new_id site ON site.kind = 'site' AND site.old = lot.site_id
LEFT JOIN new_id measure_key ON measure_key.kind = 'measure' AND measure_key.old = lot.measure_id
WHERE counted_id IS NULL OR abs(comes_to - amount) > 1e-6 OR counted_unit <> unit
   OR counted_measure IS NOT measure_id;

-- Tests, as they were read.
INSERT INTO entry (id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body)
SELECT printf('%08x-%04x-7001-8%03x-%s', (ms >> 16) & 0xffffffff, ms & 0xffff, test.id & 0xfff,
              lower(hex(randomblob(6)))),
       site.new, 'test', key.new, 'tested', ms, ms, 'local', 'before-the-log',
       json_object('lot', lot_key.new, 'kind', test.kind, 'made_on', test.made_on,
                   'readings', json(test.readings))
FROM (SELECT *, CAST(round(coalesce(unixepoch(created_at, 'subsec'), 0) * 1000) AS INTEGER) AS ms
      FROM field_test) test
JOIN lot ON lot.id = test.lot_id
JOIN new_id key ON key.kind = 'test' AND key.old = test.id
JOIN new_id lot_key ON lot_key.kind = 'lot' AND lot_key.old = test.lot_id
JOIN new_id site ON site.kind = 'site' AND site.old = lot.site_id;

-- What was sorted out.
INSERT INTO entry (id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body)
SELECT printf('%08x-%04x-7002-8%03x-%s', (ms >> 16) & 0xffffffff, ms & 0xffff, out.id & 0xfff,
              lower(hex(randomblob(6)))),
       site.new, 'sorted-out', key.new, 'sorted-out', ms, ms, 'local', 'before-the-log',
       json_patch('{}', json_object('material', out.material, 'label', out.label, 'kg', out.kg, 'went_to', out.went_to,
                                    'made_on', made_on))
FROM (SELECT *, CAST(round(coalesce(unixepoch(created_at, 'subsec'), 0) * 1000) AS INTEGER) AS ms
      FROM sorted_out) out
JOIN new_id key ON key.kind = 'sorted-out' AND key.old = out.id
JOIN new_id site ON site.kind = 'site' AND site.old = out.site_id;

-- Heaps: begun, laid, planned anew, ended.
CREATE TABLE heap_act_steps AS
SELECT act.id AS act_id,
       (SELECT json_group_array(json(step.body) ORDER BY step.position) FROM (
            SELECT position, json_patch('{}', json_object(
                'role', role, 'cycle', cycle,
                'portions', json((SELECT json_group_array(json_object('item', item, 'amount', amount)
                                                          ORDER BY place)
                                  FROM heap_portion portion
                                  WHERE portion.act_id = heap_step.act_id
                                    AND portion.position = heap_step.position)),
                'water_l', water_l, 'beside_l', beside_l)) AS body
            FROM heap_step WHERE heap_step.act_id = act.id) step) AS steps
FROM heap_act act;

INSERT INTO entry (id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body)
SELECT key.new, site.new, 'heap', heap_key.new,
       CASE
           WHEN act.is_first THEN 'begun'
           WHEN act.kind = 'laid' THEN 'laid'
           WHEN coalesce(json_array_length(steps.steps), 0) = 0 THEN 'ended'
           ELSE 'planned'
       END,
       act.ms, act.ms, 'local', 'before-the-log',
       CASE
           WHEN act.is_first THEN json_patch('{}', json_object(
               'batch', batch_key.new, 'name', heap.name, 'shape', heap.shape,
               'sides', json_object('length_cm', heap.length_cm, 'width_cm', heap.width_cm,
                                    'top_cm', heap.top_cm, 'diameter_cm', heap.diameter_cm,
                                    'height_cm', heap.height_cm, 'columns', heap.columns),
               'method', heap.method,
               'items', json((
                   SELECT coalesce(json_group_array(json_patch('{}', json_object(
                       'lot', lot_key.new, 'material', item.material, 'label', item.label,
                       'unit', item.unit, 'amount', item.amount, 'measure', measure_key.new,
                       'measure_litres', item.measure_litres,
                       'own', json_object(
                           'moisture', item.moisture, 'nitrogen', item.nitrogen, 'c_n', item.c_n,
                           'ash', item.ash, 'lignin', item.lignin, 'density_kg_l', item.density_kg_l,
                           'settle', item.settle,
                           'chopped', json(CASE WHEN item.chopped THEN 'true' ELSE 'false' END)),
                       'tests', json((
                           SELECT json_group_array(json_object(
                               'figure', figure, 'value', value, 'kind', kind, 'made_on', made_on)
                               ORDER BY figure)
                           FROM heap_item_test test
                           WHERE test.heap_id = item.heap_id AND test.position = item.position))))
                       ORDER BY item.position), '[]')
                   FROM heap_item item
                   LEFT JOIN new_id lot_key ON lot_key.kind = 'lot' AND lot_key.old = item.lot_id
                   LEFT JOIN new_id measure_key
                       ON measure_key.kind = 'measure' AND measure_key.old = item.measure_id
                   WHERE item.heap_id = heap.id)),
               'steps', json(coalesce(steps.steps, '[]'))))
           WHEN act.kind = 'laid' THEN
               json_object('at', act.from_step, 'step', json(json_extract(steps.steps, '$[0]')))
           WHEN coalesce(json_array_length(steps.steps), 0) = 0 THEN json_object('from', act.from_step)
           ELSE json_object('from', act.from_step, 'steps', json(steps.steps))
       END
FROM (
    SELECT *, id = min(id) OVER (PARTITION BY heap_id) AS is_first,
           max(CAST(round(coalesce(unixepoch(made_at, 'subsec'), 0) * 1000) AS INTEGER))
           OVER (PARTITION BY heap_id ORDER BY id) AS ms
    FROM heap_act
) act
JOIN heap ON heap.id = act.heap_id
JOIN heap_act_steps steps ON steps.act_id = act.id
JOIN new_id key ON key.kind = 'heap-act' AND key.old = act.id
JOIN new_id heap_key ON heap_key.kind = 'heap' AND heap_key.old = heap.id
JOIN new_id site ON site.kind = 'site' AND site.old = heap.site_id
LEFT JOIN new_id batch_key ON batch_key.kind = 'batch' AND batch_key.old = heap.batch_id;

DROP TABLE heap_act_steps;

-- What took from stock, and what was taken off its list.
CREATE TABLE mark AS
SELECT 'heap' AS subject, 'heap' AS kind_of, id AS n, site_id, 'stock-taken' AS kind, taken_at AS at, 3 AS place
FROM heap WHERE taken_at IS NOT NULL
UNION ALL SELECT 'batch', 'batch', id, site_id, 'stock-taken', taken_at, 4 FROM batch WHERE taken_at IS NOT NULL
UNION ALL SELECT 'heap', 'heap', id, site_id, 'removed', removed_at, 5 FROM heap WHERE removed_at IS NOT NULL
UNION ALL SELECT 'sorted-out', 'sorted-out', id, site_id, 'removed', removed_at, 6
FROM sorted_out WHERE removed_at IS NOT NULL
UNION ALL SELECT 'test', 'test', field_test.id, lot.site_id, 'removed', field_test.removed_at, 7
FROM field_test JOIN lot ON lot.id = field_test.lot_id WHERE field_test.removed_at IS NOT NULL;

INSERT INTO entry (id, site_id, subject, subject_id, kind, at_ms, recorded_ms, person, device, body)
SELECT printf('%08x-%04x-7f%02x-8%03x-%s', (ms >> 16) & 0xffffffff, ms & 0xffff, place, n & 0xfff,
              lower(hex(randomblob(6)))),
       site.new, subject, key.new, mark.kind, ms, ms, 'local', 'before-the-log', '{}'
FROM (SELECT *, CAST(round(coalesce(unixepoch(at, 'subsec'), 0) * 1000) AS INTEGER) AS ms FROM mark) mark
JOIN new_id key ON key.kind = mark.kind_of AND key.old = mark.n
JOIN new_id site ON site.kind = 'site' AND site.old = mark.site_id;

DROP TABLE mark;

-- The old tables go; what refers to the new ones by name finds them.
DROP TABLE heap_portion;
DROP TABLE heap_step;
DROP TABLE heap_act;
DROP TABLE heap_item_test;
DROP TABLE heap_item;
DROP TABLE lot_event;
DROP TABLE heap;
DROP TABLE batch_item_test;
DROP TABLE batch_item;
DROP TABLE batch;
DROP TABLE field_test;
DROP TABLE sorted_out;
DROP TABLE lot;
DROP TABLE measure;
DROP TABLE site_month;
DROP TABLE site;
DROP TABLE new_id;

ALTER TABLE site_new RENAME TO site;
ALTER TABLE site_month_new RENAME TO site_month;
ALTER TABLE measure_new RENAME TO measure;
ALTER TABLE lot_new RENAME TO lot;
ALTER TABLE batch_new RENAME TO batch;
ALTER TABLE batch_item_new RENAME TO batch_item;
ALTER TABLE batch_item_test_new RENAME TO batch_item_test;

CREATE UNIQUE INDEX measure_name ON measure (site_id, name) WHERE removed_at IS NULL;
CREATE INDEX lot_of_site ON lot (site_id);
CREATE UNIQUE INDEX batch_name ON batch (site_id, name) WHERE removed_at IS NULL;

CREATE TRIGGER entry_is_not_changed BEFORE UPDATE ON entry
BEGIN SELECT raise(ABORT, 'the log only grows'); END;
CREATE TRIGGER entry_is_not_deleted BEFORE DELETE ON entry
BEGIN SELECT raise(ABORT, 'the log only grows'); END;

-- What stands, made of the log and of nothing else. Filled after this step.
CREATE TABLE lot_stock (
    lot_id      TEXT NOT NULL PRIMARY KEY,
    amount      REAL NOT NULL CHECK (amount >= 0),
    unit        TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id  TEXT,
    litres_each REAL, -- what one of that measure held
    gathered_on TEXT
) STRICT;

CREATE TABLE field_test (
    id       TEXT NOT NULL PRIMARY KEY,
    site_id  TEXT NOT NULL,
    lot_id   TEXT NOT NULL,
    kind     TEXT NOT NULL,
    made_on  TEXT NOT NULL, -- a day; of a bean test, the day it was sown
    readings TEXT NOT NULL, -- as zymarch-test/1
    version  INTEGER NOT NULL
) STRICT;

CREATE INDEX field_test_of_lot ON field_test (lot_id);
CREATE INDEX field_test_of_site ON field_test (site_id);

CREATE TABLE sorted_out (
    id       TEXT NOT NULL PRIMARY KEY,
    site_id  TEXT NOT NULL,
    material TEXT NOT NULL,
    label    TEXT,
    kg       REAL,
    went_to  TEXT, -- in the person's words
    made_on  TEXT NOT NULL
) STRICT;

CREATE INDEX sorted_out_of_site ON sorted_out (site_id);

CREATE TABLE batch_stock (
    batch_id TEXT NOT NULL PRIMARY KEY,
    taken_ms INTEGER NOT NULL -- when its amounts were taken from stock
) STRICT;

CREATE TABLE heap (
    id         TEXT NOT NULL PRIMARY KEY,
    site_id    TEXT NOT NULL,
    batch_id   TEXT,
    name       TEXT NOT NULL,
    method     TEXT,
    begun_ms   INTEGER NOT NULL,
    changed_ms INTEGER NOT NULL,
    taken_ms   INTEGER, -- when what went in was taken from stock
    head       TEXT NOT NULL, -- the entry written down last
    version    INTEGER NOT NULL,
    laid       INTEGER NOT NULL,
    planned    INTEGER NOT NULL
) STRICT;

CREATE INDEX heap_of_site ON heap (site_id);

-- Grows when a material or method of a person's own changes, so that copies notice.
CREATE TABLE stamp (
    of    TEXT NOT NULL PRIMARY KEY,
    value INTEGER NOT NULL
) STRICT;

INSERT INTO stamp (of, value) VALUES ('catalogue', 1);

CREATE TRIGGER material_added AFTER INSERT ON material
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
CREATE TRIGGER material_changed AFTER UPDATE ON material
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
CREATE TRIGGER method_added AFTER INSERT ON method
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
CREATE TRIGGER method_changed AFTER UPDATE ON method
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
