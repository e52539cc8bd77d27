-- Pictures that authors put on sheets, made anew from what was uploaded. The name is the SHA-256 of the bytes.
CREATE TABLE images (
    name text PRIMARY KEY,
    type text NOT NULL,
    width integer NOT NULL,
    height integer NOT NULL,
    bytes bytea NOT NULL,
    created_by bigint NOT NULL,
    created_at timestamptz NOT NULL
);
