-- How a dataset's files are read and shaped: {choices, shaping}. Holds at every refresh.
ALTER TABLE datasets ADD COLUMN intake jsonb;
-- What is told to readers: title, source, credit, licence, period, units and descriptions of columns.
ALTER TABLE datasets ADD COLUMN about jsonb;
-- Where newer rows come from by themselves: {address, minutes, seconds, append, person}.
ALTER TABLE datasets ADD COLUMN feed jsonb;
ALTER TABLE datasets ADD COLUMN feed_due timestamptz;

-- What came of each refresh, those that failed too.
CREATE TABLE dataset_refreshes (
    id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    dataset_id  bigint NOT NULL REFERENCES datasets ON DELETE CASCADE,
    at          timestamptz NOT NULL,
    outcome     text NOT NULL CHECK (outcome IN ('SERVED', 'UNCHANGED', 'FAILED')),
    words       text NOT NULL,
    number      int
);
CREATE INDEX ON dataset_refreshes (dataset_id, id);

-- Hosts of this machine or a private network that may be asked, with their port: a steward's word.
CREATE TABLE allowed_hosts (
    host        text PRIMARY KEY,
    allowed_by  bigint NOT NULL REFERENCES people,
    allowed_at  timestamptz NOT NULL
);
