-- +goose Up
-- How long a step was thought to take when it was ticked, in minutes, so that a workshop's
-- own times can be learned; 0 where that is not known.
ALTER TABLE step_ticks ADD COLUMN usual_minutes double precision NOT NULL DEFAULT 0 CHECK (usual_minutes BETWEEN 0 AND 100000);

-- +goose Down
ALTER TABLE step_ticks DROP COLUMN usual_minutes;
