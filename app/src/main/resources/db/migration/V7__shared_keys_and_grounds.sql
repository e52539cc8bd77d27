-- Scales worn by several visuals and dashboards.
CREATE TABLE shared_keys (
    name        text PRIMARY KEY,
    words       text NOT NULL,
    -- sarnik.dashboard.Layer.Colour
    colour      jsonb NOT NULL,
    changed_by  bigint NOT NULL REFERENCES people,
    changed_at  timestamptz NOT NULL
);

-- Where pictures of the ground come from; the server fetches them for its readers.
CREATE TABLE picture_sources (
    name        text PRIMARY KEY,
    -- With {z}, {x} and {y} where the tile's numbers stand.
    address     text NOT NULL,
    credit      text NOT NULL,
    nearest     int NOT NULL,
    added_by    bigint NOT NULL REFERENCES people,
    added_at    timestamptz NOT NULL
);
