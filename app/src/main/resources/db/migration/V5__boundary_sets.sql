-- Boundary sets that people have brought in; those that ship are in the program.
CREATE TABLE boundary_sets (
    name        text PRIMARY KEY,
    level       text NOT NULL,
    credit      text NOT NULL,
    area_count  int NOT NULL,
    -- Codes, names, parents and shapes, see sarnik.geo.AreaBytes.
    areas       bytea NOT NULL,
    created_by  bigint NOT NULL REFERENCES people,
    created_at  timestamptz NOT NULL
);
