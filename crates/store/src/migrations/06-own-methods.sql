-- Ways of composting of a person's own: copies with other figures. Ranges are
-- written low..high; shares are fractions.
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

CREATE UNIQUE INDEX method_name ON method (name) WHERE removed_at IS NULL;
