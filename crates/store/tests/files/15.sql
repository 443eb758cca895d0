BEGIN TRANSACTION;
CREATE TABLE applied (
    id         TEXT NOT NULL PRIMARY KEY CHECK (length(id) = 36), -- of its entry
    site_id    TEXT NOT NULL REFERENCES site (id),
    compost_id TEXT NOT NULL CHECK (length(compost_id) = 36),
    ground_id  TEXT CHECK (length(ground_id) = 36),
    at_ms      INTEGER NOT NULL,
    litres     REAL NOT NULL CHECK (litres > 0),
    body       TEXT NOT NULL CHECK (json_valid(body))
) STRICT;
INSERT INTO "applied" VALUES('01a21ebf-3237-74af-aaf6-3980ace9036e','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21ebe-590c-7210-9769-2a7c4f263a43','01a21ebf-3231-774d-bb2a-e0302c941c24',1797753600001,40.0,'{"ground":"01a21ebf-3231-774d-bb2a-e0302c941c24","use":{"kind":"topdress","area_m2":4.0,"depth_cm":1.0},"litres":40.0,"kg":22.0}');
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
, heaps INTEGER NOT NULL DEFAULT 1 CHECK (heaps BETWEEN 1 AND 1000)) STRICT;
INSERT INTO "batch" VALUES('01a21aa5-e31b-77bb-a3e3-548cc50ff2de','01a21aa5-e30d-7004-bafe-be1c3c11cd65','Terrace heap',72.0,'box',110.0,110.0,NULL,NULL,120.0,NULL,'bay-turned',NULL,'',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,1);
INSERT INTO "batch" VALUES('01a21aa5-e31c-7330-b805-1e2aea4ea160','01a21aa5-e30d-7004-bafe-be1c3c11cd65','Training plot ring',36.0,'ring',NULL,NULL,NULL,110.0,100.0,NULL,'wire-ring',NULL,'',1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL,6);
CREATE TABLE batch_done (
    batch_id TEXT NOT NULL REFERENCES batch (id),
    task TEXT NOT NULL,
    done_ms INTEGER NOT NULL,
    PRIMARY KEY (batch_id, task)
) STRICT;
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
INSERT INTO "batch_item" VALUES('01a21aa5-e31b-77bb-a3e3-548cc50ff2de',0,'01a21aa5-e30f-73c5-86ea-b2a1cb4a7247','barley-straw',NULL,18.0,'measure','01a21aa5-e30e-7547-88f9-b0ac32d7b313',60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a21aa5-e31b-77bb-a3e3-548cc50ff2de',1,'01a21aa5-e310-7614-8631-07143c8218b7','faba-bean-haulm',NULL,10.0,'measure','01a21aa5-e30e-7547-88f9-b0ac32d7b313',60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a21aa5-e31b-77bb-a3e3-548cc50ff2de',2,'01a21aa5-e311-72ce-abd7-f3a7b9e183b6','sheep-manure',NULL,2.0,'measure','01a21aa5-e30e-7547-88f9-b0aa5f1649c2',70.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a21aa5-e31b-77bb-a3e3-548cc50ff2de',3,'01a21aa5-e312-738b-a502-52e72c059f9a','guinea-pig-manure',NULL,2.0,'measure','01a21aa5-e30e-7547-88f9-b0aa5f1649c2',70.0,0.48,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a21aa5-e31b-77bb-a3e3-548cc50ff2de',4,'01a21aa5-e313-73ba-9ac5-573b7a849941','vegetable-scraps','Kitchen scraps',4.0,'measure','01a21aa5-e30d-7004-bafe-be1d18b36ad8',12.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a21aa5-e31c-7330-b805-1e2aea4ea160',0,'01a21aa5-e30f-73c5-86ea-b2a1cb4a7247','barley-straw',NULL,9.0,'measure','01a21aa5-e30e-7547-88f9-b0ac32d7b313',60.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a21aa5-e31c-7330-b805-1e2aea4ea160',1,'01a21aa5-e312-738b-a502-52e99cafab46','donkey-manure',NULL,1.0,'measure','01a21aa5-e30e-7547-88f9-b0addfce2c06',160.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
INSERT INTO "batch_item" VALUES('01a21aa5-e31c-7330-b805-1e2aea4ea160',2,'01a21aa5-e314-7014-bd9f-18663f9a5a61','green-weeds',NULL,2.0,'measure','01a21aa5-e30e-7547-88f9-b0abd04187fa',90.0,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0);
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
CREATE TABLE calendar_feed (
    secret BLOB PRIMARY KEY NOT NULL,
    site_id TEXT NOT NULL REFERENCES site (id),
    person_id TEXT REFERENCES person (id),
    made_ms INTEGER NOT NULL,
    ended_ms INTEGER
) STRICT;
INSERT INTO "calendar_feed" VALUES(X'C94D30676392E07379CC7D350EE99DBFC0C3DFC201980ED3BD36E8F02BA31F6A','01a21aa5-e30d-7004-bafe-be1c3c11cd65',NULL,1795796584353,NULL);
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
INSERT INTO "compost" VALUES('01a21ebe-590c-7210-9769-2a7c4f263a43','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21d2d-1786-7015-8f82-51ba1e74d069','Training plot ring 1',1797753600000,200.0,160.0,0.55,0.45,10.0,'01a21ebe-590c-7210-9769-2a7db9f0d629',30.0,NULL,0,0,2);
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
INSERT INTO "entry" VALUES('01a21aa5-e30f-73c5-86ea-b2a2d9c77bb9','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e30f-73c5-86ea-b2a1cb4a7247','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":24.0,"measure":"01a21aa5-e30e-7547-88f9-b0ac32d7b313","litres_each":60.0,"gathered_on":"2026-01-20"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e310-7614-8631-0715e2b02f5a','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e310-7614-8631-07143c8218b7','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":14.0,"measure":"01a21aa5-e30e-7547-88f9-b0ac32d7b313","litres_each":60.0,"gathered_on":"2026-02-18"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e311-72ce-abd7-f3a6af2d14b9','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e311-72ce-abd7-f3a5566a39bd','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":6.0,"measure":"01a21aa5-e30e-7547-88f9-b0ac32d7b313","litres_each":60.0,"gathered_on":"2026-02-25"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e311-72ce-abd7-f3a88b5beabe','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e311-72ce-abd7-f3a7b9e183b6','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":5.0,"measure":"01a21aa5-e30e-7547-88f9-b0aa5f1649c2","litres_each":70.0,"gathered_on":"2026-03-02"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e312-738b-a502-52e825ce9e5b','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e312-738b-a502-52e72c059f9a','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":3.0,"measure":"01a21aa5-e30e-7547-88f9-b0aa5f1649c2","litres_each":70.0,"gathered_on":"2026-03-09"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e313-73ba-9ac5-573a8bdb82c6','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e312-738b-a502-52e99cafab46','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":2.0,"measure":"01a21aa5-e30e-7547-88f9-b0addfce2c06","litres_each":160.0,"gathered_on":"2026-03-05"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e313-73ba-9ac5-573c1178b69a','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e313-73ba-9ac5-573b7a849941','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":5.0,"measure":"01a21aa5-e30d-7004-bafe-be1d18b36ad8","litres_each":12.0,"gathered_on":"2026-03-11"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e314-7014-bd9f-1865ae9e9e8a','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e314-7014-bd9f-1864bdefea88','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":4.0,"measure":"01a21aa5-e30e-7547-88f9-b0abd04187fa","litres_each":90.0,"gathered_on":"2026-03-12"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e315-75b9-a203-693a62263eed','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e314-7014-bd9f-18663f9a5a61','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":3.0,"measure":"01a21aa5-e30e-7547-88f9-b0abd04187fa","litres_each":90.0,"gathered_on":"2026-03-13"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e315-75b9-a203-693c3e026dc4','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e315-75b9-a203-693bd1c365ec','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":2.0,"measure":"01a21aa5-e30d-7004-bafe-be1d18b36ad8","litres_each":12.0,"gathered_on":"2026-03-10"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e316-7033-bb9c-4df67114ce0b','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e316-7033-bb9c-4df5aa4a5cc7','came',1773475200000,1773475200000,'','zymarch','{"unit":"measure","amount":2.0,"measure":"01a21aa5-e30e-7547-88f9-b0abd04187fa","litres_each":90.0,"gathered_on":"2026-02-01"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e316-7033-bb9c-4df8fcfce10a','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21aa5-e316-7033-bb9c-4df76a6f5d30','came',1773475200000,1773475200000,'','zymarch','{"unit":"kg","amount":4.0,"gathered_on":"2026-02-20"}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e317-7748-b5f5-b1cf4e937bd1','01a21aa5-e30d-7004-bafe-be1c3c11cd65','test','01a21aa5-e317-7748-b5f5-b1ce25d31585','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a21aa5-e30f-73c5-86ea-b2a1cb4a7247","kind":"weigh","made_on":"2026-03-06","readings":{"empty_kg":0.4,"full_kg":3.4,"kind":"weigh","litres":60.0}}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e318-7642-9ce2-0835c27b4639','01a21aa5-e30d-7004-bafe-be1c3c11cd65','test','01a21aa5-e318-7642-9ce2-08346905e825','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a21aa5-e311-72ce-abd7-f3a7b9e183b6","kind":"drying","made_on":"2026-03-08","readings":{"dish_g":180.0,"dried_g":[352.0,312.0,311.0],"kind":"drying","wet_g":480.0}}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e319-714c-a416-278d91138cf1','01a21aa5-e30d-7004-bafe-be1c3c11cd65','test','01a21aa5-e318-7642-9ce2-083692db3fa1','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a21aa5-e311-72ce-abd7-f3a7b9e183b6","kind":"squeeze","made_on":"2026-03-08","readings":{"feel":"holds","kind":"squeeze"}}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e319-714c-a416-278f869ac695','01a21aa5-e30d-7004-bafe-be1c3c11cd65','test','01a21aa5-e319-714c-a416-278ec2f4e357','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a21aa5-e312-738b-a502-52e99cafab46","kind":"bean","made_on":"2026-03-05","readings":{"control_deformed":0,"control_sown":10,"control_up":0,"deformed":0,"judged_on":null,"kind":"bean","sown":10,"up":0}}',NULL);
INSERT INTO "entry" VALUES('01a21aa5-e31a-7114-919c-7d2b644d7dbe','01a21aa5-e30d-7004-bafe-be1c3c11cd65','test','01a21aa5-e31a-7114-919c-7d2ab5428f3e','tested',1773475200000,1773475200000,'','zymarch','{"lot":"01a21aa5-e314-7014-bd9f-18663f9a5a61","kind":"squeeze","made_on":"2026-03-13","readings":{"feel":"stream","kind":"squeeze"}}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-1786-7015-8f82-51bbc223cb0a','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','begun',1793527200000,1795785824133,'','','{"batch":"01a21aa5-e31c-7330-b805-1e2aea4ea160","name":"Training plot ring 1","shape":"ring","sides":{"length_cm":null,"width_cm":null,"top_cm":null,"diameter_cm":110.0,"height_cm":100.0,"columns":null},"method":"wire-ring","items":[{"lot":"01a21aa5-e30f-73c5-86ea-b2a1cb4a7247","material":"barley-straw","label":null,"unit":"measure","amount":1.5,"measure":"01a21aa5-e30e-7547-88f9-b0ac32d7b313","measure_litres":60.0,"own":{"moisture":null,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]},{"lot":"01a21aa5-e312-738b-a502-52e99cafab46","material":"donkey-manure","label":null,"unit":"measure","amount":0.16666666666666666,"measure":"01a21aa5-e30e-7547-88f9-b0addfce2c06","measure_litres":160.0,"own":{"moisture":null,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]},{"lot":"01a21aa5-e314-7014-bd9f-18663f9a5a61","material":"green-weeds","label":null,"unit":"measure","amount":0.3333333333333333,"measure":"01a21aa5-e30e-7547-88f9-b0abd04187fa","measure_litres":90.0,"own":{"moisture":null,"nitrogen":null,"c_n":null,"ash":null,"lignin":null,"density_kg_l":null,"settle":null,"chopped":false},"tests":[]}],"steps":[{"role":"foundation","portions":[],"water_l":0.0,"beside_l":47.51658888554563},{"role":"mix","cycle":1,"portions":[{"item":0,"amount":1.5}],"water_l":5.84,"beside_l":0.0},{"role":"mix","cycle":1,"portions":[{"item":2,"amount":0.333333}],"water_l":0.0,"beside_l":0.0},{"role":"mix","cycle":1,"portions":[{"item":1,"amount":0.166667}],"water_l":0.16,"beside_l":0.0},{"role":"cap","portions":[],"water_l":0.0,"beside_l":76.026542216873}]}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-1786-7015-8f82-51bcbde50e02','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','laid',1793527200001,1795785824133,'','','{"at":0,"step":{"role":"foundation","portions":[],"water_l":0.0,"beside_l":47.51658888554563}}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-1786-7015-8f82-51bda8de6470','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','laid',1793527200002,1795785824133,'','','{"at":1,"step":{"role":"mix","cycle":1,"portions":[{"item":0,"amount":1.5}],"water_l":5.84,"beside_l":0.0}}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-1786-7015-8f82-51beb2cba196','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','laid',1793527200003,1795785824133,'','','{"at":2,"step":{"role":"mix","cycle":1,"portions":[{"item":2,"amount":0.333333}],"water_l":0.0,"beside_l":0.0}}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-1786-7015-8f82-51bff681f3d6','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','laid',1793527200004,1795785824133,'','','{"at":3,"step":{"role":"mix","cycle":1,"portions":[{"item":1,"amount":0.166667}],"water_l":0.16,"beside_l":0.0}}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-1786-7015-8f82-51c0be0bbb3a','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','laid',1793527200005,1795785824133,'','','{"at":4,"step":{"role":"cap","portions":[],"water_l":0.0,"beside_l":76.026542216873}}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-178f-7428-9073-7cfdcd9f0343','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','stick',1793865600000,1795785824143,'','','{"what":{"kind":"stick","feel":"hot"}}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-1794-7544-b326-a0d47a4bcfa9','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','turn',1794124800000,1795785824148,'','','{"what":{"kind":"turn","to":"bay 2"},"note":"heavy"}',NULL);
INSERT INTO "entry" VALUES('01a21d2d-179b-73bb-9865-9a5d175d5542','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','readings',1793606400000,1795785824154,'','Rod','{"source":"probe","name":"Rod","probe":"01a21d2d-1799-778d-a603-99efa2b24a53"}',NULL);
INSERT INTO "entry" VALUES('01a21ebe-590c-7210-9769-2a7eafdc00be','01a21aa5-e30d-7004-bafe-be1c3c11cd65','lot','01a21ebe-590c-7210-9769-2a7db9f0d629','came',1797753600000,1797753600000,'','','{"unit":"litre","amount":30.0,"gathered_on":"2026-12-20"}',NULL);
INSERT INTO "entry" VALUES('01a21ebe-590c-7210-9769-2a7f1320493c','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','harvested',1797753600000,1797753600000,'','','{"compost":"01a21ebe-590c-7210-9769-2a7c4f263a43","litres":200.0,"is_last":false}',NULL);
INSERT INTO "entry" VALUES('01a21ebe-590d-7199-aee4-f0b467c34eb5','01a21aa5-e30d-7004-bafe-be1c3c11cd65','compost','01a21ebe-590c-7210-9769-2a7c4f263a43','stored',1797753600000,1797753600000,'','','{"heap":"01a21d2d-1786-7015-8f82-51ba1e74d069","name":"Training plot ring 1","litres":200.0,"density_kg_l":0.55,"moisture":0.45,"mesh_mm":10.0,"rejects":{"lot":"01a21ebe-590c-7210-9769-2a7db9f0d629","litres":30.0},"is_last":false,"was_ready":false}',NULL);
INSERT INTO "entry" VALUES('01a21ebf-3237-74af-aaf6-3980ace9036e','01a21aa5-e30d-7004-bafe-be1c3c11cd65','compost','01a21ebe-590c-7210-9769-2a7c4f263a43','applied',1797753600001,1797753600000,'','','{"ground":"01a21ebf-3231-774d-bb2a-e0302c941c24","use":{"kind":"topdress","area_m2":4.0,"depth_cm":1.0},"litres":40.0,"kg":22.0}',NULL);
CREATE TABLE failed_sign_in (
    key      TEXT NOT NULL PRIMARY KEY, -- a name or an address
    failures INTEGER NOT NULL,
    last_ms  INTEGER NOT NULL
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
INSERT INTO "field_test" VALUES('01a21aa5-e317-7748-b5f5-b1ce25d31585','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21aa5-e30f-73c5-86ea-b2a1cb4a7247','weigh','2026-03-06','{"empty_kg":0.4,"full_kg":3.4,"kind":"weigh","litres":60.0}',1);
INSERT INTO "field_test" VALUES('01a21aa5-e318-7642-9ce2-08346905e825','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21aa5-e311-72ce-abd7-f3a7b9e183b6','drying','2026-03-08','{"dish_g":180.0,"dried_g":[352.0,312.0,311.0],"kind":"drying","wet_g":480.0}',1);
INSERT INTO "field_test" VALUES('01a21aa5-e318-7642-9ce2-083692db3fa1','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21aa5-e311-72ce-abd7-f3a7b9e183b6','squeeze','2026-03-08','{"feel":"holds","kind":"squeeze"}',1);
INSERT INTO "field_test" VALUES('01a21aa5-e319-714c-a416-278ec2f4e357','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21aa5-e312-738b-a502-52e99cafab46','bean','2026-03-05','{"control_deformed":0,"control_sown":10,"control_up":0,"deformed":0,"judged_on":null,"kind":"bean","sown":10,"up":0}',1);
INSERT INTO "field_test" VALUES('01a21aa5-e31a-7114-919c-7d2ab5428f3e','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21aa5-e314-7014-bd9f-18663f9a5a61','squeeze','2026-03-13','{"feel":"stream","kind":"squeeze"}',1);
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
INSERT INTO "ground" VALUES('01a21ebf-3231-774d-bb2a-e0302c941c24','01a21aa5-e30d-7004-bafe-be1c3c11cd65','Bean row','bed',12.0,NULL,NULL,1,1,NULL,1,'2026-12-20T08:00:00Z','2026-12-20T08:00:00Z',NULL);
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
, built_ms INTEGER, emptied_ms INTEGER) STRICT;
INSERT INTO "heap" VALUES('01a21d2d-1786-7015-8f82-51ba1e74d069','01a21aa5-e30d-7004-bafe-be1c3c11cd65','01a21aa5-e31c-7330-b805-1e2aea4ea160','Training plot ring 1','wire-ring',1793527200000,1797753600000,NULL,'01a21ebe-590c-7210-9769-2a7f1320493c',10,5,5,1793527200005,NULL);
CREATE TABLE lab_result (
    id         TEXT NOT NULL PRIMARY KEY CHECK (length(id) = 36), -- of its entry
    site_id    TEXT NOT NULL REFERENCES site (id),
    subject    TEXT NOT NULL CHECK (subject IN ('compost', 'ground')),
    subject_id TEXT NOT NULL CHECK (length(subject_id) = 36),
    made_on    TEXT NOT NULL,
    body       TEXT NOT NULL CHECK (json_valid(body))
) STRICT;
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
INSERT INTO "lot" VALUES('01a21aa5-e30f-73c5-86ea-b2a1cb4a7247','01a21aa5-e30d-7004-bafe-be1c3c11cd65','barley-straw',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,0.8,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e310-7614-8631-07143c8218b7','01a21aa5-e30d-7004-bafe-be1c3c11cd65','faba-bean-haulm',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e311-72ce-abd7-f3a5566a39bd','01a21aa5-e30d-7004-bafe-be1c3c11cd65','quinoa-amaranth-stalks','Quinoa stalks',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e311-72ce-abd7-f3a7b9e183b6','01a21aa5-e30d-7004-bafe-be1c3c11cd65','sheep-manure',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e312-738b-a502-52e72c059f9a','01a21aa5-e30d-7004-bafe-be1c3c11cd65','guinea-pig-manure',NULL,0.48,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e312-738b-a502-52e99cafab46','01a21aa5-e30d-7004-bafe-be1c3c11cd65','donkey-manure',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,1.5,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e313-73ba-9ac5-573b7a849941','01a21aa5-e30d-7004-bafe-be1c3c11cd65','vegetable-scraps','Kitchen scraps',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e314-7014-bd9f-1864bdefea88','01a21aa5-e30d-7004-bafe-be1c3c11cd65','potato-haulm',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e314-7014-bd9f-18663f9a5a61','01a21aa5-e30d-7004-bafe-be1c3c11cd65','green-weeds',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e315-75b9-a203-693bd1c365ec','01a21aa5-e30d-7004-bafe-be1c3c11cd65','layer-hen-manure','Hen house sweepings',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,0.5,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e316-7033-bb9c-4df5aa4a5cc7','01a21aa5-e30d-7004-bafe-be1c3c11cd65','eucalyptus-leaves','Leaves from the windbreak',NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21aa5-e316-7033-bb9c-4df76a6f5d30','01a21aa5-e30d-7004-bafe-be1c3c11cd65','wood-ash',NULL,NULL,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "lot" VALUES('01a21ebe-590c-7210-9769-2a7db9f0d629','01a21aa5-e30d-7004-bafe-be1c3c11cd65','compost-rejects','Training plot ring 1',0.45,NULL,NULL,NULL,NULL,NULL,NULL,0,NULL,1,'2026-12-20T08:00:00Z','2026-12-20T08:00:00Z',NULL);
CREATE TABLE lot_stock (
    lot_id      TEXT NOT NULL PRIMARY KEY,
    amount      REAL NOT NULL CHECK (amount >= 0),
    unit        TEXT NOT NULL CHECK (unit IN ('measure', 'kg', 'litre')),
    measure_id  TEXT,
    litres_each REAL, -- what one of that measure held
    gathered_on TEXT
) STRICT;
INSERT INTO "lot_stock" VALUES('01a21aa5-e30f-73c5-86ea-b2a1cb4a7247',24.0,'measure','01a21aa5-e30e-7547-88f9-b0ac32d7b313',60.0,'2026-01-20');
INSERT INTO "lot_stock" VALUES('01a21aa5-e310-7614-8631-07143c8218b7',14.0,'measure','01a21aa5-e30e-7547-88f9-b0ac32d7b313',60.0,'2026-02-18');
INSERT INTO "lot_stock" VALUES('01a21aa5-e311-72ce-abd7-f3a5566a39bd',6.0,'measure','01a21aa5-e30e-7547-88f9-b0ac32d7b313',60.0,'2026-02-25');
INSERT INTO "lot_stock" VALUES('01a21aa5-e311-72ce-abd7-f3a7b9e183b6',5.0,'measure','01a21aa5-e30e-7547-88f9-b0aa5f1649c2',70.0,'2026-03-02');
INSERT INTO "lot_stock" VALUES('01a21aa5-e312-738b-a502-52e72c059f9a',3.0,'measure','01a21aa5-e30e-7547-88f9-b0aa5f1649c2',70.0,'2026-03-09');
INSERT INTO "lot_stock" VALUES('01a21aa5-e312-738b-a502-52e99cafab46',2.0,'measure','01a21aa5-e30e-7547-88f9-b0addfce2c06',160.0,'2026-03-05');
INSERT INTO "lot_stock" VALUES('01a21aa5-e313-73ba-9ac5-573b7a849941',5.0,'measure','01a21aa5-e30d-7004-bafe-be1d18b36ad8',12.0,'2026-03-11');
INSERT INTO "lot_stock" VALUES('01a21aa5-e314-7014-bd9f-1864bdefea88',4.0,'measure','01a21aa5-e30e-7547-88f9-b0abd04187fa',90.0,'2026-03-12');
INSERT INTO "lot_stock" VALUES('01a21aa5-e314-7014-bd9f-18663f9a5a61',3.0,'measure','01a21aa5-e30e-7547-88f9-b0abd04187fa',90.0,'2026-03-13');
INSERT INTO "lot_stock" VALUES('01a21aa5-e315-75b9-a203-693bd1c365ec',2.0,'measure','01a21aa5-e30d-7004-bafe-be1d18b36ad8',12.0,'2026-03-10');
INSERT INTO "lot_stock" VALUES('01a21aa5-e316-7033-bb9c-4df5aa4a5cc7',2.0,'measure','01a21aa5-e30e-7547-88f9-b0abd04187fa',90.0,'2026-02-01');
INSERT INTO "lot_stock" VALUES('01a21aa5-e316-7033-bb9c-4df76a6f5d30',4.0,'kg',NULL,NULL,'2026-02-20');
INSERT INTO "lot_stock" VALUES('01a21ebe-590c-7210-9769-2a7db9f0d629',30.0,'litre',NULL,NULL,'2026-12-20');
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
INSERT INTO "measure" VALUES('01a21aa5-e30d-7004-bafe-be1d18b36ad8','01a21aa5-e30d-7004-bafe-be1c3c11cd65','bucket','buckets',12.0,'bucket','litres',NULL,NULL,NULL,NULL,NULL,NULL,12.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a21aa5-e30e-7547-88f9-b0aa5f1649c2','01a21aa5-e30d-7004-bafe-be1c3c11cd65','barrow','barrows',70.0,'barrow','litres',NULL,NULL,NULL,NULL,NULL,NULL,70.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a21aa5-e30e-7547-88f9-b0abd04187fa','01a21aa5-e30d-7004-bafe-be1c3c11cd65','potato sack','potato sacks',90.0,'sack','litres',NULL,NULL,NULL,NULL,NULL,NULL,90.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a21aa5-e30e-7547-88f9-b0ac32d7b313','01a21aa5-e30d-7004-bafe-be1c3c11cd65','carrying cloth','carrying cloths',60.0,'cloth','litres',NULL,NULL,NULL,NULL,NULL,NULL,60.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
INSERT INTO "measure" VALUES('01a21aa5-e30e-7547-88f9-b0addfce2c06','01a21aa5-e30d-7004-bafe-be1c3c11cd65','pannier pair','pannier pairs',160.0,'pannier','litres',NULL,NULL,NULL,NULL,NULL,NULL,160.0,NULL,1.0,1,'2026-03-14T08:00:00Z','2026-03-14T08:00:00Z',NULL);
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
CREATE TABLE person (
    id         TEXT NOT NULL PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    name_key   TEXT NOT NULL, -- the name in small letters: two that differ in that only are one
    role       TEXT NOT NULL, -- a word of the core's list
    passphrase TEXT,          -- an Argon2id hash with its salt and its cost
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL,
    removed_at TEXT
) STRICT;
CREATE TABLE person_site (
    person_id TEXT NOT NULL REFERENCES person (id),
    site_id   TEXT NOT NULL REFERENCES site (id),
    PRIMARY KEY (person_id, site_id)
) STRICT;
CREATE TABLE photo (
    entry_id TEXT NOT NULL PRIMARY KEY REFERENCES entry (id),
    media    TEXT NOT NULL CHECK (media IN ('image/jpeg', 'image/webp', 'image/png')),
    bytes    BLOB NOT NULL CHECK (length(bytes) BETWEEN 1 AND 1048576)
) STRICT;
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
INSERT INTO "probe" VALUES('01a21d2d-1799-778d-a603-99efa2b24a53','01a21aa5-e30d-7004-bafe-be1c3c11cd65','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','Rod',X'A4B44FBA0BFFF0BAC21C6299C06B4AD8E35297D9ADB700B9332F6C6DC97A7F38',0,1795785824152,1795785824154,NULL);
CREATE TABLE reading (
    pack        INTEGER NOT NULL REFERENCES reading_pack (id),
    at_ms       INTEGER NOT NULL, -- when it was read, since 1970, UTC
    place       TEXT NOT NULL,    -- a word of the core's list
    depth_cm    REAL NOT NULL,    -- below zero where it was not said
    temp_c      REAL NOT NULL,
    recorded_ms INTEGER NOT NULL, -- when it was written down here
    PRIMARY KEY (pack, at_ms, place, depth_cm)
) STRICT, WITHOUT ROWID;
INSERT INTO "reading" VALUES(1,1793606400000,'core',-1.0,57.5,1795785824154);
INSERT INTO "reading" VALUES(1,1793610000000,'core',-1.0,58.5,1795785824154);
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
INSERT INTO "reading_pack" VALUES(1,'01a21d2d-179b-73bb-9865-9a5d175d5542','heap','01a21d2d-1786-7015-8f82-51ba1e74d069','01a21d2d-1799-778d-a603-99efa2b24a53',20759,2,57.5,58.5);
CREATE TABLE security_entry (
    id      INTEGER PRIMARY KEY,
    at_ms   INTEGER NOT NULL,
    kind    TEXT NOT NULL, -- a word of the core's list
    person  TEXT,          -- who did it
    about   TEXT,          -- the person it was done to
    device  TEXT NOT NULL,
    address TEXT NOT NULL  -- where from; empty for the machine itself
) STRICT;
CREATE TABLE session (
    id        TEXT NOT NULL PRIMARY KEY,
    token     BLOB NOT NULL UNIQUE CHECK (length(token) = 32), -- SHA-256 of it
    person_id TEXT NOT NULL REFERENCES person (id),
    device    TEXT NOT NULL, -- as it calls itself
    begun_ms  INTEGER NOT NULL,
    seen_ms   INTEGER NOT NULL,
    ends_ms   INTEGER NOT NULL, -- whatever happens
    ended_ms  INTEGER           -- when it was cut off or left
) STRICT;
CREATE TABLE sign_in_code (
    id         TEXT NOT NULL PRIMARY KEY,
    code       BLOB NOT NULL UNIQUE CHECK (length(code) = 32), -- SHA-256 of it
    person_id  TEXT NOT NULL REFERENCES person (id),
    made_by    TEXT NOT NULL, -- a person; empty for the machine itself
    made_ms    INTEGER NOT NULL,
    ends_ms    INTEGER NOT NULL,
    spent_ms   INTEGER -- when it was used or withdrawn
) STRICT;
CREATE TABLE "site" (
    id         TEXT NOT NULL PRIMARY KEY,
    name       TEXT NOT NULL CHECK (length(name) > 0),
    altitude_m REAL,
    version    INTEGER NOT NULL DEFAULT 1,
    created_at TEXT NOT NULL, -- RFC 3339, UTC
    removed_at TEXT
) STRICT;
INSERT INTO "site" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65','Velluma Terraces',2900.0,1,'2026-03-14T08:00:00Z',NULL);
CREATE TABLE "site_month" (
    site_id TEXT NOT NULL REFERENCES site (id),
    month   INTEGER NOT NULL CHECK (month BETWEEN 1 AND 12),
    mean_c  REAL NOT NULL,
    swing_c REAL NOT NULL CHECK (swing_c >= 0), -- day above and night below the mean
    rain_mm REAL NOT NULL CHECK (rain_mm >= 0), -- in the whole month
    PRIMARY KEY (site_id, month)
) STRICT;
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',1,13.2,6.5,118.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',2,13.0,6.3,110.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',3,12.9,6.6,98.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',4,12.5,7.6,46.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',5,11.4,9.0,12.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',6,10.3,9.6,5.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',7,10.0,9.9,6.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',8,11.0,9.7,10.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',9,12.3,8.9,24.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',10,13.3,8.4,42.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',11,13.6,8.0,58.0);
INSERT INTO "site_month" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65',12,13.5,7.1,96.0);
CREATE TABLE site_rule (
    site_id TEXT PRIMARY KEY NOT NULL REFERENCES site (id),
    schools TEXT NOT NULL CHECK (json_valid(schools)),
    local_rule TEXT NOT NULL CHECK (json_valid(local_rule)),
    version INTEGER NOT NULL DEFAULT 1
) STRICT;
INSERT INTO "site_rule" VALUES('01a21aa5-e30d-7004-bafe-be1c3c11cd65','["mild"]','{"least_c":null,"hours":null,"turns":null,"wait_days":[150,100],"criterion":null}',1);
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
INSERT INTO "stamp" VALUES('catalogue',1);
INSERT INTO "stamp" VALUES('stock',139);
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
CREATE TRIGGER site_added_moves_stock AFTER INSERT ON site
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_changed_moves_stock AFTER UPDATE ON site
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_gone_moves_stock AFTER DELETE ON site
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_month_added_moves_stock AFTER INSERT ON site_month
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_month_changed_moves_stock AFTER UPDATE ON site_month
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_month_gone_moves_stock AFTER DELETE ON site_month
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER measure_added_moves_stock AFTER INSERT ON measure
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER measure_changed_moves_stock AFTER UPDATE ON measure
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER measure_gone_moves_stock AFTER DELETE ON measure
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_added_moves_stock AFTER INSERT ON lot
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_changed_moves_stock AFTER UPDATE ON lot
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_gone_moves_stock AFTER DELETE ON lot
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_stock_added_moves_stock AFTER INSERT ON lot_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_stock_changed_moves_stock AFTER UPDATE ON lot_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_stock_gone_moves_stock AFTER DELETE ON lot_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER field_test_added_moves_stock AFTER INSERT ON field_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER field_test_changed_moves_stock AFTER UPDATE ON field_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER field_test_gone_moves_stock AFTER DELETE ON field_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE UNIQUE INDEX person_name ON person (name_key) WHERE removed_at IS NULL;
CREATE INDEX person_of_site ON person_site (site_id);
CREATE INDEX session_of_person ON session (person_id);
CREATE INDEX sign_in_code_of_person ON sign_in_code (person_id);
CREATE TRIGGER security_entry_is_not_changed BEFORE UPDATE ON security_entry
BEGIN SELECT raise(ABORT, 'what was noted stays'); END;
CREATE TRIGGER security_entry_is_not_deleted BEFORE DELETE ON security_entry
BEGIN SELECT raise(ABORT, 'what was noted stays'); END;
CREATE INDEX probe_of_subject ON probe (subject_id);
CREATE INDEX reading_pack_of_subject ON reading_pack (subject_id, probe_id, day);
CREATE TRIGGER reading_is_not_changed BEFORE UPDATE ON reading
BEGIN SELECT raise(ABORT, 'what was read stays'); END;
CREATE TRIGGER reading_is_not_deleted BEFORE DELETE ON reading
BEGIN SELECT raise(ABORT, 'what was read stays'); END;
CREATE INDEX entry_taking_back ON entry (takes_back) WHERE takes_back IS NOT NULL;
CREATE INDEX calendar_feed_of_site ON calendar_feed (site_id, person_id);
CREATE INDEX compost_of_site ON compost (site_id, harvested_ms);
CREATE INDEX compost_of_heap ON compost (heap_id, harvested_ms);
CREATE INDEX applied_of_compost ON applied (compost_id, at_ms);
CREATE INDEX applied_of_ground ON applied (ground_id, at_ms);
CREATE INDEX lab_result_of ON lab_result (subject, subject_id, made_on);
CREATE UNIQUE INDEX ground_name ON ground (site_id, name) WHERE removed_at IS NULL;
COMMIT;
PRAGMA application_id = 1515801921;
PRAGMA user_version = 15;
