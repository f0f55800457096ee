-- +goose Up
-- A workshop's settings. Every version is kept; the newest is what holds.
CREATE TABLE workshop_settings (
    id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    version     integer NOT NULL CHECK (version > 0),
    settings    jsonb NOT NULL CHECK (jsonb_typeof(settings) = 'object'),
    saved_at    timestamptz NOT NULL DEFAULT now(),
    UNIQUE (workshop_id, version)
);

CREATE TRIGGER workshop_settings_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON workshop_settings
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- +goose Down
DROP TABLE workshop_settings;
