-- What a person has decided about words that placing was not sure of. Kept for the dataset, so that it holds at every refresh.
CREATE TABLE placing_decisions (
    id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    dataset_id  bigint NOT NULL REFERENCES datasets ON DELETE CASCADE,
    -- The words as JSON: {town, province, country}, each text or null.
    words       text NOT NULL,
    -- A place's id; null where the rows are left out.
    place       text,
    decided_by  bigint NOT NULL REFERENCES people,
    decided_at  timestamptz NOT NULL,
    UNIQUE (dataset_id, words)
);
