-- What one instance of the application has begun and another may have to go on with.
CREATE TABLE sessions (
    primary_id char(36) NOT NULL PRIMARY KEY,
    session_id char(36) NOT NULL UNIQUE,
    creation_time bigint NOT NULL,
    last_access_time bigint NOT NULL,
    max_inactive_interval integer NOT NULL,
    expiry_time bigint NOT NULL,
    principal_name varchar(100)
);
CREATE INDEX sessions_expiry ON sessions (expiry_time);
CREATE INDEX sessions_principal ON sessions (principal_name);
CREATE TABLE sessions_attributes (
    session_primary_id char(36) NOT NULL REFERENCES sessions (primary_id) ON DELETE CASCADE,
    attribute_name varchar(200) NOT NULL,
    attribute_bytes bytea NOT NULL,
    PRIMARY KEY (session_primary_id, attribute_name)
);

-- Wrong tries to sign in. Who tried is kept as a hash: what is typed as a name may be a password.
CREATE TABLE wrong_tries (
    who char(64) NOT NULL PRIMARY KEY,
    wrong integer NOT NULL,
    tried_at timestamptz NOT NULL
);

-- The instances that run, and where each is reached by the others.
CREATE TABLE instances (
    id uuid NOT NULL PRIMARY KEY,
    address varchar(300) NOT NULL,
    seen_at timestamptz NOT NULL
);

-- Files that were sent and wait to be looked over, as they came, and which instance holds what was read of them.
CREATE TABLE waiting_files (
    id varchar(36) NOT NULL PRIMARY KEY,
    person bigint NOT NULL,
    instance uuid NOT NULL,
    names jsonb NOT NULL,
    intake jsonb NOT NULL,
    refreshes bigint,
    stays jsonb,
    is_whole boolean NOT NULL DEFAULT false,
    is_read boolean NOT NULL DEFAULT false,
    used_at timestamptz NOT NULL
);
CREATE INDEX waiting_files_person ON waiting_files (person);
CREATE TABLE waiting_parts (
    waiting varchar(36) NOT NULL REFERENCES waiting_files (id) ON DELETE CASCADE,
    file integer NOT NULL,
    part integer NOT NULL,
    bytes bytea NOT NULL,
    PRIMARY KEY (waiting, file, part)
);
-- Written once and read once: packing them would take longer than writing them.
ALTER TABLE waiting_parts ALTER COLUMN bytes SET STORAGE EXTERNAL;

-- Goes up within each transaction in which a boundary set comes or goes, so that all instances make anew what rests on sets.
CREATE TABLE boundary_changes (number bigint NOT NULL);
INSERT INTO boundary_changes VALUES (1);
