-- Words by which dashboards are found.
CREATE TABLE dashboard_tags (
    dashboard_id  bigint NOT NULL REFERENCES dashboards ON DELETE CASCADE,
    tag           varchar(40) NOT NULL,
    PRIMARY KEY (dashboard_id, tag)
);
-- Dashboards that somebody has marked, and when they were seen last.
CREATE TABLE dashboard_marks (
    person_id     bigint NOT NULL REFERENCES people,
    dashboard_id  bigint NOT NULL REFERENCES dashboards ON DELETE CASCADE,
    marked        boolean NOT NULL DEFAULT false,
    seen_at       timestamptz,
    PRIMARY KEY (person_id, dashboard_id)
);
CREATE INDEX ON dashboard_marks (dashboard_id);

-- What a version of a draft is called by somebody who wants to find it again; null for most.
ALTER TABLE dashboard_edits ADD COLUMN name varchar(120);

-- What stewards have set for all; a row each.
CREATE TABLE settings (
    name   varchar(40) PRIMARY KEY,
    value  varchar(400) NOT NULL
);
