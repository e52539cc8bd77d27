CREATE TABLE people (
    id        bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    sign_in   text NOT NULL UNIQUE,
    name      text NOT NULL,
    password  text NOT NULL,
    role      text NOT NULL CHECK (role IN ('STEWARD', 'ANALYST', 'READER'))
);

CREATE TABLE datasets (
    id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name        text NOT NULL,
    recipe      jsonb,
    version_id  bigint,
    created_by  bigint NOT NULL REFERENCES people,
    created_at  timestamptz NOT NULL
);

-- The rows of a version stand in a typed table of their own, rows.v<id>, whose columns are c0, c1, …
CREATE SCHEMA rows;

CREATE TABLE dataset_versions (
    id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    dataset_id  bigint NOT NULL REFERENCES datasets,
    number      int NOT NULL,
    row_count   bigint NOT NULL,
    columns     jsonb NOT NULL,
    troubles    bigint NOT NULL,
    file_name   text NOT NULL,
    created_by  bigint NOT NULL REFERENCES people,
    created_at  timestamptz NOT NULL,
    UNIQUE (dataset_id, number)
);

ALTER TABLE datasets ADD FOREIGN KEY (version_id) REFERENCES dataset_versions;

CREATE TABLE dashboards (
    id               bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    title            text NOT NULL,
    document         jsonb NOT NULL,
    revision         bigint NOT NULL,
    open_to_readers  boolean NOT NULL,
    created_by       bigint NOT NULL REFERENCES people,
    changed_at       timestamptz NOT NULL
);

CREATE TABLE dashboard_edits (
    id            bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    dashboard_id  bigint NOT NULL REFERENCES dashboards ON DELETE CASCADE,
    revision      bigint NOT NULL,
    author_id     bigint NOT NULL REFERENCES people,
    made_at       timestamptz NOT NULL,
    words         text NOT NULL,
    patch         jsonb NOT NULL,
    inverse       jsonb NOT NULL,
    state         text NOT NULL CHECK (state IN ('DONE', 'UNDONE', 'REPLACED', 'STEP')),
    document      jsonb NOT NULL,
    UNIQUE (dashboard_id, revision)
);
