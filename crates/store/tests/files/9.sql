PRAGMA application_id = 1515801921;
PRAGMA user_version = 9;
BEGIN TRANSACTION;
CREATE TABLE "batch" (
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
INSERT INTO "batch" VALUES('01a2175e-dc3c-74e6-9ba0-623948bc5f02','01a2175e-dc38-7532-ab3f-24d2e9f21d53','Terrace heap',72.0,'box',110.0,110.0,NULL,NULL,120.0,NULL,'bay-turned',NULL,'',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "batch" VALUES('01a2175e-dc3d-7211-b3f6-a1238632e6c6','01a2175e-dc38-7532-ab3f-24d2e9f21d53','Training plot ring',36.0,'ring',NULL,NULL,NULL,110.0,100.0,NULL,'wire-ring',NULL,'',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
CREATE TABLE "batch_item" (
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
INSERT INTO "batch_item" VALUES('01a2175e-dc3c-74e6-9ba0-623948bc5f02',0,'01a2175e-dc38-7532-ab3f-24d806eb332d','barley-straw',NULL,18.0,'measure','01a2175e-dc38-7532-ab3f-24d65c65bb08',60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a2175e-dc3c-74e6-9ba0-623948bc5f02',1,'01a2175e-dc39-744f-a560-fe486b8abc98','faba-bean-haulm',NULL,10.0,'measure','01a2175e-dc38-7532-ab3f-24d65c65bb08',60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a2175e-dc3c-74e6-9ba0-623948bc5f02',2,'01a2175e-dc39-744f-a560-fe4c570c2e95','sheep-manure',NULL,2.0,'measure','01a2175e-dc38-7532-ab3f-24d403076e92',70.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a2175e-dc3c-74e6-9ba0-623948bc5f02',3,'01a2175e-dc39-744f-a560-fe4e624c02a2','guinea-pig-manure',NULL,2.0,'measure','01a2175e-dc38-7532-ab3f-24d403076e92',70.0,0.48,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a2175e-dc3c-74e6-9ba0-623948bc5f02',4,'01a2175e-dc3a-7471-927a-80a71dc8ad6d','vegetable-scraps','Kitchen scraps',4.0,'measure','01a2175e-dc38-7532-ab3f-24d30b1aa16a',12.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a2175e-dc3d-7211-b3f6-a1238632e6c6',0,'01a2175e-dc38-7532-ab3f-24d806eb332d','barley-straw',NULL,9.0,'measure','01a2175e-dc38-7532-ab3f-24d65c65bb08',60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a2175e-dc3d-7211-b3f6-a1238632e6c6',1,'01a2175e-dc3a-7471-927a-80a5450e4968','donkey-manure',NULL,1.0,'measure','01a2175e-dc38-7532-ab3f-24d76c4edf00',160.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a2175e-dc3d-7211-b3f6-a1238632e6c6',2,'01a2175e-dc3a-7471-927a-80ab3f0425ca','green-weeds',NULL,2.0,'measure','01a2175e-dc38-7532-ab3f-24d51feccd95',90.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
CREATE TABLE "batch_item_test" (
    batch_id TEXT NOT NULL,
    position INTEGER NOT NULL,
    figure   TEXT NOT NULL,
    value    REAL NOT NULL,
    kind     TEXT NOT NULL,
    made_on  TEXT NOT NULL,
    PRIMARY KEY (batch_id, position, figure),
    FOREIGN KEY (batch_id, position) REFERENCES batch_item (batch_id, position) ON DELETE CASCADE
) STRICT;
CREATE TABLE batch_stock (
    batch_id TEXT NOT NULL PRIMARY KEY,
    taken_ms INTEGER NOT NULL -- when its amounts were taken from stock
) STRICT;
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
INSERT INTO "entry" VALUES('01a2175e-dc39-744f-a560-fe4701f971d9','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc38-7532-ab3f-24d806eb332d','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":24.0,"measure":"01a2175e-dc38-7532-ab3f-24d65c65bb08","litres_each":60.0,"gathered_on":"2026-01-20"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc39-744f-a560-fe492c7e753c','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc39-744f-a560-fe486b8abc98','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":14.0,"measure":"01a2175e-dc38-7532-ab3f-24d65c65bb08","litres_each":60.0,"gathered_on":"2026-02-18"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc39-744f-a560-fe4b4cd62b01','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc39-744f-a560-fe4a76d81cd1','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":6.0,"measure":"01a2175e-dc38-7532-ab3f-24d65c65bb08","litres_each":60.0,"gathered_on":"2026-02-25"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc39-744f-a560-fe4d84ad912d','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc39-744f-a560-fe4c570c2e95','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":5.0,"measure":"01a2175e-dc38-7532-ab3f-24d403076e92","litres_each":70.0,"gathered_on":"2026-03-02"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc39-744f-a560-fe4fdc8d3961','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc39-744f-a560-fe4e624c02a2','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":3.0,"measure":"01a2175e-dc38-7532-ab3f-24d403076e92","litres_each":70.0,"gathered_on":"2026-03-09"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3a-7471-927a-80a6bfabb407','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc3a-7471-927a-80a5450e4968','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":2.0,"measure":"01a2175e-dc38-7532-ab3f-24d76c4edf00","litres_each":160.0,"gathered_on":"2026-03-05"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3a-7471-927a-80a8a4a4af7c','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc3a-7471-927a-80a71dc8ad6d','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":5.0,"measure":"01a2175e-dc38-7532-ab3f-24d30b1aa16a","litres_each":12.0,"gathered_on":"2026-03-11"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3a-7471-927a-80aa18de1548','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc3a-7471-927a-80a98dd84ec9','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":4.0,"measure":"01a2175e-dc38-7532-ab3f-24d51feccd95","litres_each":90.0,"gathered_on":"2026-03-12"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3a-7471-927a-80acc77d9bd9','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc3a-7471-927a-80ab3f0425ca','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":3.0,"measure":"01a2175e-dc38-7532-ab3f-24d51feccd95","litres_each":90.0,"gathered_on":"2026-03-13"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3a-7471-927a-80ae6ec868d4','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc3a-7471-927a-80ad1ab92f6d','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":2.0,"measure":"01a2175e-dc38-7532-ab3f-24d30b1aa16a","litres_each":12.0,"gathered_on":"2026-03-10"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3b-7401-b7c8-2052ca4a7e66','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc3a-7471-927a-80af45f4e648','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":2.0,"measure":"01a2175e-dc38-7532-ab3f-24d51feccd95","litres_each":90.0,"gathered_on":"2026-02-01"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3b-7401-b7c8-205473759e59','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc3b-7401-b7c8-205315f83d81','came',1773475200000,1773475200000,'','zymarch','{"unit":"kg","amount":4.0,"gathered_on":"2026-02-20"}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3b-7401-b7c8-2056e5b43759','01a2175e-dc38-7532-ab3f-24d2e9f21d53','test','01a2175e-dc3b-7401-b7c8-20557bd683af','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a2175e-dc38-7532-ab3f-24d806eb332d","kind":"weigh","made_on":"2026-03-06","readings":{"empty_kg":0.4,"full_kg":3.4,"kind":"weigh","litres":60.0}}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3b-7401-b7c8-205811afa271','01a2175e-dc38-7532-ab3f-24d2e9f21d53','test','01a2175e-dc3b-7401-b7c8-205746ff34aa','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a2175e-dc39-744f-a560-fe4c570c2e95","kind":"drying","made_on":"2026-03-08","readings":{"dish_g":180.0,"dried_g":[352.0,312.0,311.0],"kind":"drying","wet_g":480.0}}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3c-74e6-9ba0-623411963063','01a2175e-dc38-7532-ab3f-24d2e9f21d53','test','01a2175e-dc3b-7401-b7c8-205972411082','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a2175e-dc39-744f-a560-fe4c570c2e95","kind":"squeeze","made_on":"2026-03-08","readings":{"feel":"holds","kind":"squeeze"}}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3c-74e6-9ba0-62361aff024d','01a2175e-dc38-7532-ab3f-24d2e9f21d53','test','01a2175e-dc3c-74e6-9ba0-62353f531ab0','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a2175e-dc3a-7471-927a-80a5450e4968","kind":"bean","made_on":"2026-03-05","readings":{"control_deformed":0,"control_sown":10,"control_up":0,"deformed":0,"judged_on":null,"kind":"bean","sown":10,"up":0}}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc3c-74e6-9ba0-623819bd72e5','01a2175e-dc38-7532-ab3f-24d2e9f21d53','test','01a2175e-dc3c-74e6-9ba0-6237a294a7d4','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a2175e-dc3a-7471-927a-80ab3f0425ca","kind":"squeeze","made_on":"2026-03-13","readings":{"feel":"stream","kind":"squeeze"}}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc51-77e9-8b9c-15bfaf390846','01a2175e-dc38-7532-ab3f-24d2e9f21d53','heap','01a2175e-dc51-77e9-8b9c-15bebd07c148','begun',1773475200000,1773475200000,'','','{"batch":"01a2175e-dc3c-74e6-9ba0-623948bc5f02","name":"Terrace heap","shape":"box","sides":{"length_cm":110.0,"width_cm":110.0,"top_cm":null,"diameter_cm":null,"height_cm":120.0,"columns":null},"method":"bay-turned","items":[{"lot":"01a2175e-dc38-7532-ab3f-24d806eb332d","material":"barley-straw","label":null,"unit":"measure","amount":18.0,"measure":"01a2175e-dc38-7532-ab3f-24d65c65bb08","measure_litres":60.0,"own":{"moisture":null,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]},{"lot":"01a2175e-dc39-744f-a560-fe486b8abc98","material":"faba-bean-haulm","label":null,"unit":"measure","amount":10.0,"measure":"01a2175e-dc38-7532-ab3f-24d65c65bb08","measure_litres":60.0,"own":{"moisture":null,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]},{"lot":"01a2175e-dc39-744f-a560-fe4c570c2e95","material":"sheep-manure","label":null,"unit":"measure","amount":2.0,"measure":"01a2175e-dc38-7532-ab3f-24d403076e92","measure_litres":70.0,"own":{"moisture":null,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]},{"lot":"01a2175e-dc39-744f-a560-fe4e624c02a2","material":"guinea-pig-manure","label":null,"unit":"measure","amount":2.0,"measure":"01a2175e-dc38-7532-ab3f-24d403076e92","measure_litres":70.0,"own":{"moisture":0.48,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]},{"lot":"01a2175e-dc3a-7471-927a-80a71dc8ad6d","material":"vegetable-scraps","label":"Kitchen scraps","unit":"measure","amount":4.0,"measure":"01a2175e-dc38-7532-ab3f-24d30b1aa16a","measure_litres":12.0,"own":{"moisture":null,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]}],"steps":[{"role":"mix","cycle":1,"portions":[{"item":0,"amount":8.0}],"water_l":18.399,"beside_l":0.0},{"role":"mix","cycle":1,"portions":[{"item":1,"amount":5.0}],"water_l":11.952,"beside_l":0.0},{"role":"mix","cycle":1,"portions":[{"item":4,"amount":2.0}],"water_l":0.0,"beside_l":0.0},{"role":"mix","cycle":1,"portions":[{"item":2,"amount":1.0}],"water_l":0.0,"beside_l":0.0},{"role":"mix","cycle":1,"portions":[{"item":3,"amount":1.0}],"water_l":3.349,"beside_l":0.0},{"role":"mix","cycle":2,"portions":[{"item":0,"amount":8.0}],"water_l":18.399,"beside_l":0.0},{"role":"mix","cycle":2,"portions":[{"item":1,"amount":5.0}],"water_l":11.952,"beside_l":0.0},{"role":"mix","cycle":2,"portions":[{"item":4,"amount":2.0}],"water_l":0.0,"beside_l":0.0},{"role":"mix","cycle":2,"portions":[{"item":2,"amount":1.0}],"water_l":0.0,"beside_l":0.0},{"role":"mix","cycle":2,"portions":[{"item":3,"amount":1.0}],"water_l":3.349,"beside_l":0.0},{"role":"cap","portions":[{"item":0,"amount":2.0}],"water_l":4.6,"beside_l":0.0}]}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc55-718c-96d8-996f207cd791','01a2175e-dc38-7532-ab3f-24d2e9f21d53','heap','01a2175e-dc51-77e9-8b9c-15bebd07c148','laid',1773475200001,1773475200000,'','','{"at":0,"step":{"role":"mix","cycle":1,"portions":[{"item":0,"amount":8.0}],"water_l":18.399,"beside_l":0.0}}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc57-7712-a740-ecd409d80db8','01a2175e-dc38-7532-ab3f-24d2e9f21d53','heap','01a2175e-dc51-77e9-8b9c-15bebd07c148','laid',1773475200002,1773475200000,'','','{"at":1,"step":{"role":"mix","cycle":1,"portions":[{"item":1,"amount":5.0}],"water_l":11.952,"beside_l":0.0}}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc5a-7763-867f-f8d988e563e7','01a2175e-dc38-7532-ab3f-24d2e9f21d53','heap','01a2175e-dc51-77e9-8b9c-15bebd07c148','undone',1773475200003,1773475200000,'','','{}','01a2175e-dc57-7712-a740-ecd409d80db8');
INSERT INTO "entry" VALUES('01a2175e-dc5e-72b2-b008-ba5b0e5ef2e0','01a2175e-dc38-7532-ab3f-24d2e9f21d53','heap','01a2175e-dc51-77e9-8b9c-15bebd07c148','stock-taken',1773475200004,1773475200000,'','','{}',NULL);
INSERT INTO "entry" VALUES('01a2175e-dc5e-72b2-b008-ba5c5bcf912e','01a2175e-dc38-7532-ab3f-24d2e9f21d53','lot','01a2175e-dc38-7532-ab3f-24d806eb332d','taken',1773475200001,1773475200000,'','','{"by":{"of":"heap","id":"01a2175e-dc51-77e9-8b9c-15bebd07c148"},"unit":"measure","amount":-8.0,"measure":"01a2175e-dc38-7532-ab3f-24d65c65bb08","litres":-480.0,"kg":-24.0}',NULL);
CREATE TABLE field_test (
    id       TEXT NOT NULL PRIMARY KEY,
    site_id  TEXT NOT NULL,
    lot_id   TEXT NOT NULL,
    kind     TEXT NOT NULL,
    made_on  TEXT NOT NULL, -- a day; of a bean test, the day it was sown
    readings TEXT NOT NULL, -- as zymarch-test/1
    version  INTEGER NOT NULL
) STRICT;
INSERT INTO "field_test" VALUES('01a2175e-dc3b-7401-b7c8-20557bd683af','01a2175e-dc38-7532-ab3f-24d2e9f21d53','01a2175e-dc38-7532-ab3f-24d806eb332d','weigh','2026-03-06','{"empty_kg":0.4,"full_kg":3.4,"kind":"weigh","litres":60.0}',1);
INSERT INTO "field_test" VALUES('01a2175e-dc3b-7401-b7c8-205746ff34aa','01a2175e-dc38-7532-ab3f-24d2e9f21d53','01a2175e-dc39-744f-a560-fe4c570c2e95','drying','2026-03-08','{"dish_g":180.0,"dried_g":[352.0,312.0,311.0],"kind":"drying","wet_g":480.0}',1);
INSERT INTO "field_test" VALUES('01a2175e-dc3b-7401-b7c8-205972411082','01a2175e-dc38-7532-ab3f-24d2e9f21d53','01a2175e-dc39-744f-a560-fe4c570c2e95','squeeze','2026-03-08','{"feel":"holds","kind":"squeeze"}',1);
INSERT INTO "field_test" VALUES('01a2175e-dc3c-74e6-9ba0-62353f531ab0','01a2175e-dc38-7532-ab3f-24d2e9f21d53','01a2175e-dc3a-7471-927a-80a5450e4968','bean','2026-03-05','{"control_deformed":0,"control_sown":10,"control_up":0,"deformed":0,"judged_on":null,"kind":"bean","sown":10,"up":0}',1);
INSERT INTO "field_test" VALUES('01a2175e-dc3c-74e6-9ba0-6237a294a7d4','01a2175e-dc38-7532-ab3f-24d2e9f21d53','01a2175e-dc3a-7471-927a-80ab3f0425ca','squeeze','2026-03-13','{"feel":"stream","kind":"squeeze"}',1);
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
INSERT INTO "heap" VALUES('01a2175e-dc51-77e9-8b9c-15bebd07c148','01a2175e-dc38-7532-ab3f-24d2e9f21d53','01a2175e-dc3c-74e6-9ba0-623948bc5f02','Terrace heap','bay-turned',1773475200000,1773475200004,1773475200004,'01a2175e-dc5e-72b2-b008-ba5b0e5ef2e0',5,1,11);
CREATE TABLE "lot" (
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
INSERT INTO "lot" VALUES('01a2175e-dc38-7532-ab3f-24d806eb332d','01a2175e-dc38-7532-ab3f-24d2e9f21d53','barley-straw',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,0.8,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc39-744f-a560-fe486b8abc98','01a2175e-dc38-7532-ab3f-24d2e9f21d53','faba-bean-haulm',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc39-744f-a560-fe4a76d81cd1','01a2175e-dc38-7532-ab3f-24d2e9f21d53','quinoa-amaranth-stalks','Quinoa stalks',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc39-744f-a560-fe4c570c2e95','01a2175e-dc38-7532-ab3f-24d2e9f21d53','sheep-manure',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc39-744f-a560-fe4e624c02a2','01a2175e-dc38-7532-ab3f-24d2e9f21d53','guinea-pig-manure',NULL,0.48,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc3a-7471-927a-80a5450e4968','01a2175e-dc38-7532-ab3f-24d2e9f21d53','donkey-manure',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1.5,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc3a-7471-927a-80a71dc8ad6d','01a2175e-dc38-7532-ab3f-24d2e9f21d53','vegetable-scraps','Kitchen scraps',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc3a-7471-927a-80a98dd84ec9','01a2175e-dc38-7532-ab3f-24d2e9f21d53','potato-haulm',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc3a-7471-927a-80ab3f0425ca','01a2175e-dc38-7532-ab3f-24d2e9f21d53','green-weeds',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc3a-7471-927a-80ad1ab92f6d','01a2175e-dc38-7532-ab3f-24d2e9f21d53','layer-hen-manure','Hen house sweepings',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,0.5,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc3a-7471-927a-80af45f4e648','01a2175e-dc38-7532-ab3f-24d2e9f21d53','eucalyptus-leaves','Leaves from the windbreak',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a2175e-dc3b-7401-b7c8-205315f83d81','01a2175e-dc38-7532-ab3f-24d2e9f21d53','wood-ash',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,2,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z','2026-03-14T08:00:00Z');
CREATE TABLE lot_stock (
    lot_id      TEXT NOT NULL PRIMARY KEY,
    amount      REAL NOT NULL CHECK (amount >= 0),
    unit        TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id  TEXT,
    litres_each REAL, -- what one of that measure held
    gathered_on TEXT
) STRICT;
INSERT INTO "lot_stock" VALUES('01a2175e-dc38-7532-ab3f-24d806eb332d',16.0,'measure','01a2175e-dc38-7532-ab3f-24d65c65bb08',60.0,'2026-01-20');
INSERT INTO "lot_stock" VALUES('01a2175e-dc39-744f-a560-fe486b8abc98',14.0,'measure','01a2175e-dc38-7532-ab3f-24d65c65bb08',60.0,'2026-02-18');
INSERT INTO "lot_stock" VALUES('01a2175e-dc39-744f-a560-fe4a76d81cd1',6.0,'measure','01a2175e-dc38-7532-ab3f-24d65c65bb08',60.0,'2026-02-25');
INSERT INTO "lot_stock" VALUES('01a2175e-dc39-744f-a560-fe4c570c2e95',5.0,'measure','01a2175e-dc38-7532-ab3f-24d403076e92',70.0,'2026-03-02');
INSERT INTO "lot_stock" VALUES('01a2175e-dc39-744f-a560-fe4e624c02a2',3.0,'measure','01a2175e-dc38-7532-ab3f-24d403076e92',70.0,'2026-03-09');
INSERT INTO "lot_stock" VALUES('01a2175e-dc3a-7471-927a-80a5450e4968',2.0,'measure','01a2175e-dc38-7532-ab3f-24d76c4edf00',160.0,'2026-03-05');
INSERT INTO "lot_stock" VALUES('01a2175e-dc3a-7471-927a-80a71dc8ad6d',5.0,'measure','01a2175e-dc38-7532-ab3f-24d30b1aa16a',12.0,'2026-03-11');
INSERT INTO "lot_stock" VALUES('01a2175e-dc3a-7471-927a-80a98dd84ec9',4.0,'measure','01a2175e-dc38-7532-ab3f-24d51feccd95',90.0,'2026-03-12');
INSERT INTO "lot_stock" VALUES('01a2175e-dc3a-7471-927a-80ab3f0425ca',3.0,'measure','01a2175e-dc38-7532-ab3f-24d51feccd95',90.0,'2026-03-13');
INSERT INTO "lot_stock" VALUES('01a2175e-dc3a-7471-927a-80ad1ab92f6d',2.0,'measure','01a2175e-dc38-7532-ab3f-24d30b1aa16a',12.0,'2026-03-10');
INSERT INTO "lot_stock" VALUES('01a2175e-dc3a-7471-927a-80af45f4e648',2.0,'measure','01a2175e-dc38-7532-ab3f-24d51feccd95',90.0,'2026-02-01');
INSERT INTO "lot_stock" VALUES('01a2175e-dc3b-7401-b7c8-205315f83d81',4.0,'kg',NULL,NULL,'2026-02-20');
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
, names TEXT NOT NULL DEFAULT '', names_es TEXT NOT NULL DEFAULT '', decays REAL, wet_max REAL) STRICT;
INSERT INTO "material" VALUES('our-chips','Our chips','','bulking','woody',0.4,0.3,0.5,0.0015,0.001,0.002,330.0,250.0,480.0,0.02,0.2,0.25,0.2,0.3,0.9,NULL,NULL,'very-slow','coarse',3,NULL,'dust','own','',2,'2026-03-01T08:00:00Z','2026-03-02T08:00:00Z',NULL,'','',NULL,NULL);
CREATE TABLE "measure" (
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
INSERT INTO "measure" VALUES('01a2175e-dc38-7532-ab3f-24d30b1aa16a','01a2175e-dc38-7532-ab3f-24d2e9f21d53','bucket','buckets',12.0,'bucket','litres',NULL,NULL,NULL,NULL,NULL,NULL,12.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a2175e-dc38-7532-ab3f-24d403076e92','01a2175e-dc38-7532-ab3f-24d2e9f21d53','barrow','barrows',70.0,'barrow','litres',NULL,NULL,NULL,NULL,NULL,NULL,70.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a2175e-dc38-7532-ab3f-24d51feccd95','01a2175e-dc38-7532-ab3f-24d2e9f21d53','potato sack','potato sacks',90.0,'sack','litres',NULL,NULL,NULL,NULL,NULL,NULL,90.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a2175e-dc38-7532-ab3f-24d65c65bb08','01a2175e-dc38-7532-ab3f-24d2e9f21d53','carrying cloth','carrying cloths',60.0,'cloth','litres',NULL,NULL,NULL,NULL,NULL,NULL,60.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a2175e-dc38-7532-ab3f-24d76c4edf00','01a2175e-dc38-7532-ab3f-24d2e9f21d53','pannier pair','pannier pairs',160.0,'pannier','litres',NULL,NULL,NULL,NULL,NULL,NULL,160.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
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
CREATE TABLE "site" (
    id         TEXT NOT NULL PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    altitude_m REAL,
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL, -- RFC 3339, UTC
    removed_at TEXT
) STRICT;
INSERT INTO "site" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53','Velluma Terraces',2900.0,1,'2026-03-14T08:00:00Z',NULL);
CREATE TABLE "site_month" (
    site_id TEXT NOT NULL REFERENCES site (id),
    month   INTEGER NOT NULL CHECK (month BETWEEN 1 AND 12),
    mean_c  REAL NOT NULL,
    swing_c REAL NOT NULL CHECK (swing_c >= 0), -- day above and night below the mean
    rain_mm REAL NOT NULL CHECK (rain_mm >= 0), -- in the whole month
    PRIMARY KEY (site_id, month)
) STRICT;
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',1,13.2,6.5,118.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',2,13.0,6.3,110.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',3,12.9,6.6,98.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',4,12.5,7.6,46.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',5,11.4,9.0,12.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',6,10.3,9.6,5.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',7,10.0,9.9,6.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',8,11.0,9.7,10.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',9,12.3,8.9,24.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',10,13.3,8.4,42.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',11,13.6,8.0,58.0);
INSERT INTO "site_month" VALUES('01a2175e-dc38-7532-ab3f-24d2e9f21d53',12,13.5,7.1,96.0);
CREATE TABLE sorted_out (
    id       TEXT NOT NULL PRIMARY KEY,
    site_id  TEXT NOT NULL,
    material TEXT NOT NULL,
    label    TEXT,
    kg       REAL,
    went_to  TEXT, -- in the person's words
    made_on  TEXT NOT NULL
) STRICT;
CREATE TABLE stamp (
    of    TEXT NOT NULL PRIMARY KEY,
    value INTEGER NOT NULL
) STRICT;
INSERT INTO "stamp" VALUES('catalogue',2);
CREATE UNIQUE INDEX method_name ON method (name) WHERE removed_at IS NULL;
CREATE INDEX entry_of_subject ON entry (subject, subject_id, at_ms, id);
CREATE INDEX entry_taken_by ON entry (json_extract(body, '$.by.id')) WHERE kind = 'taken';
CREATE UNIQUE INDEX measure_name ON measure (site_id, name) WHERE removed_at IS NULL;
CREATE INDEX lot_of_site ON lot (site_id);
CREATE UNIQUE INDEX batch_name ON batch (site_id, name) WHERE removed_at IS NULL;
CREATE TRIGGER entry_is_not_changed BEFORE UPDATE ON entry
BEGIN SELECT raise(ABORT, 'the log only grows'); END;
CREATE TRIGGER entry_is_not_deleted BEFORE DELETE ON entry
BEGIN SELECT raise(ABORT, 'the log only grows'); END;
CREATE INDEX field_test_of_lot ON field_test (lot_id);
CREATE INDEX field_test_of_site ON field_test (site_id);
CREATE INDEX sorted_out_of_site ON sorted_out (site_id);
CREATE INDEX heap_of_site ON heap (site_id);
CREATE TRIGGER material_added AFTER INSERT ON material
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
CREATE TRIGGER material_changed AFTER UPDATE ON material
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
CREATE TRIGGER method_added AFTER INSERT ON method
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
CREATE TRIGGER method_changed AFTER UPDATE ON method
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'catalogue'; END;
COMMIT;
