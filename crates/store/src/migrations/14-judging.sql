-- What a site follows where practitioners differ, and what its place asks for beyond the criteria of heat.
CREATE TABLE site_rule (
    site_id TEXT PRIMARY KEY NOT NULL REFERENCES site (id),
    schools TEXT NOT NULL CHECK (json_valid(schools)),
    local_rule TEXT NOT NULL CHECK (json_valid(local_rule)),
    version INTEGER NOT NULL DEFAULT 1
) STRICT;

-- What of a batch's preparing is done.
CREATE TABLE batch_done (
    batch_id TEXT NOT NULL REFERENCES batch (id),
    task TEXT NOT NULL,
    done_ms INTEGER NOT NULL,
    PRIMARY KEY (batch_id, task)
) STRICT;

-- Where a calendar fetches its tasks: known by the digest of a secret, for one site, as somebody sees it.
CREATE TABLE calendar_feed (
    secret BLOB PRIMARY KEY NOT NULL,
    site_id TEXT NOT NULL REFERENCES site (id),
    person_id TEXT REFERENCES person (id),
    made_ms INTEGER NOT NULL,
    ended_ms INTEGER
) STRICT;

CREATE INDEX calendar_feed_of_site ON calendar_feed (site_id, person_id);
