-- +goose Up
-- The authority that vouches for the server on a workshop's own network: one for a database, so that several servers on it have the same.
-- The door alone sees its key.
CREATE TABLE door.authority (
    one         boolean PRIMARY KEY DEFAULT true CHECK (one),
    certificate bytea NOT NULL,
    key         bytea NOT NULL,
    made_at     timestamptz NOT NULL DEFAULT now()
);
GRANT SELECT, INSERT ON door.authority TO epitrope_door;

-- +goose Down
DROP TABLE door.authority;
