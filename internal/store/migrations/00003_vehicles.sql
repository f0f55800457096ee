-- +goose Up
-- The vehicle book: what was found on a model, find by find. An entry of the book is all
-- finds on its model, the newest answer to each question; nothing is ever overwritten.
CREATE TABLE vehicle_finds (
    id        bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    model     text NOT NULL CHECK (length(model) BETWEEN 1 AND 120),
    model_key text NOT NULL GENERATED ALWAYS AS (lower(regexp_replace(btrim(model), '\s+', ' ', 'g'))) STORED,
    job_id    uuid REFERENCES jobs (id),
    document  jsonb NOT NULL,
    found_at  timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX vehicle_finds_by_model ON vehicle_finds (model_key, id);

CREATE TRIGGER vehicle_finds_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON vehicle_finds
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- +goose Down
DROP TABLE vehicle_finds;
