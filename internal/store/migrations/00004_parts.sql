-- +goose Up
-- The parts book. Every version of a part is kept; the newest is what holds, and a part
-- that is withdrawn stays where it was used.
CREATE TABLE part_versions (
    id        bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    key       text NOT NULL CHECK (length(key) BETWEEN 3 AND 120),
    item      jsonb NOT NULL CHECK (jsonb_typeof(item) = 'object'),
    withdrawn boolean NOT NULL DEFAULT false,
    saved_at  timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX part_versions_by_key ON part_versions (key, id DESC);

CREATE TRIGGER part_versions_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON part_versions
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- +goose Down
DROP TABLE part_versions;
