-- +goose Up
-- What was issued on paper is stored as it was, never made again. Revisions from before have none.
ALTER TABLE job_revisions ADD COLUMN pack bytea;

-- +goose Down
ALTER TABLE job_revisions DROP COLUMN pack;
