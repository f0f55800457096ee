-- +goose Up
-- An answer of the vehicle book that turned out wrong is taken out by a find of its own,
-- which names it; what was found before stays.
ALTER TABLE vehicle_finds ADD COLUMN withdrawn jsonb NOT NULL DEFAULT '[]' CHECK (jsonb_typeof(withdrawn) = 'array');

-- +goose Down
ALTER TABLE vehicle_finds DROP COLUMN withdrawn;
