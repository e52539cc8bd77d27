-- What is said about a dataset has a revision of its own; edits name the one they were made on.
ALTER TABLE datasets ADD COLUMN revision bigint NOT NULL DEFAULT 1;
ALTER TABLE datasets ADD COLUMN changed_by bigint REFERENCES people;
-- Goes up with every decision about its placing.
ALTER TABLE datasets ADD COLUMN decided bigint NOT NULL DEFAULT 0;
-- Whether other authors may change and remove it. Until now all might.
ALTER TABLE datasets ADD COLUMN shared boolean NOT NULL DEFAULT true;
ALTER TABLE dashboards ADD COLUMN shared boolean NOT NULL DEFAULT true;
ALTER TABLE shared_keys ADD COLUMN created_by bigint REFERENCES people;
ALTER TABLE shared_keys ADD COLUMN shared boolean NOT NULL DEFAULT true;
UPDATE shared_keys SET created_by = changed_by;

-- Which version is served is a row of its own: a refresh never writes what is said about a dataset.
CREATE TABLE dataset_served (
    dataset_id  bigint PRIMARY KEY REFERENCES datasets ON DELETE CASCADE,
    version_id  bigint NOT NULL REFERENCES dataset_versions
);
INSERT INTO dataset_served SELECT id, version_id FROM datasets WHERE version_id IS NOT NULL;
ALTER TABLE datasets DROP COLUMN version_id;
CREATE INDEX ON dataset_served (version_id);

-- What a version takes in memory, bytes; null where it has not been loaded yet.
ALTER TABLE dataset_versions ADD COLUMN bytes bigint;

-- A sign-in is one person's, in whatever case it is written.
UPDATE people SET sign_in = sign_in || '-' || id WHERE id IN (
    SELECT id FROM (SELECT id, row_number() OVER (PARTITION BY lower(sign_in) ORDER BY id) AS place FROM people) p WHERE place > 1);
CREATE UNIQUE INDEX people_sign_in ON people (lower(sign_in));
-- Somebody who may not sign in any more; what they made stays.
ALTER TABLE people ADD COLUMN closed_at timestamptz;
