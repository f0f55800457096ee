-- +goose Up
-- Every row has its workshop, and every index begins with it. There is one until there are people.
CREATE EXTENSION IF NOT EXISTS pg_trgm;
CREATE EXTENSION IF NOT EXISTS btree_gin;
CREATE EXTENSION IF NOT EXISTS btree_gist;

CREATE TABLE workshops (
    id         uuid PRIMARY KEY,
    created_at timestamptz NOT NULL DEFAULT now()
);
INSERT INTO workshops (id) VALUES ('00000000-0000-0000-0000-000000000001');

-- +goose StatementBegin
DO $$
DECLARE
    named text;
BEGIN
    FOREACH named IN ARRAY ARRAY['jobs', 'job_saves', 'job_revisions', 'tasks', 'vehicle_finds', 'part_versions', 'step_ticks'] LOOP
        EXECUTE format('ALTER TABLE %I ADD COLUMN workshop_id uuid NOT NULL DEFAULT ''00000000-0000-0000-0000-000000000001''
            REFERENCES workshops (id)', named);
        EXECUTE format('ALTER TABLE %I ALTER COLUMN workshop_id DROP DEFAULT', named);
    END LOOP;
END
$$;
-- +goose StatementEnd

-- A row that belongs to a job belongs to that job's workshop.
ALTER TABLE jobs ADD UNIQUE (workshop_id, id);
ALTER TABLE job_saves ADD FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id);
ALTER TABLE job_revisions ADD FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id);
ALTER TABLE tasks ADD FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id);
ALTER TABLE vehicle_finds ADD FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id);
ALTER TABLE step_ticks ADD FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id);

-- What lists show of a job is stored with it, of which version of its draft and by which rules it was made:
-- no list decides a job. What was made by other rules is made again in the background.
ALTER TABLE jobs
    ADD COLUMN title          text NOT NULL DEFAULT '',
    ADD COLUMN customer       text NOT NULL DEFAULT '',
    ADD COLUMN vehicle        text NOT NULL DEFAULT '',
    ADD COLUMN summary        text NOT NULL DEFAULT '',
    ADD COLUMN weakest        text NOT NULL DEFAULT '',
    ADD COLUMN severity       text NOT NULL DEFAULT 'none' CHECK (severity IN ('stop', 'caution', 'remark', 'none')),
    ADD COLUMN settled        text NOT NULL DEFAULT '',
    ADD COLUMN search         text NOT NULL DEFAULT '',
    ADD COLUMN listed_version integer NOT NULL DEFAULT 0,
    ADD COLUMN listed_by      text NOT NULL DEFAULT '';
UPDATE jobs SET title = coalesce(document ->> 'title', ''), customer = coalesce(document ->> 'customer', '');

DROP INDEX jobs_by_save;
CREATE INDEX jobs_by_save ON jobs (workshop_id, saved_at DESC, number DESC) WHERE deleted_at IS NULL;
-- A save pays for its own words at once: what is put off is paid by whoever saves when it is much.
CREATE INDEX jobs_by_search ON jobs USING gin (workshop_id, search gin_trgm_ops) WITH (fastupdate = off) WHERE deleted_at IS NULL;
-- For whoever makes listings anew, of all workshops.
CREATE INDEX jobs_by_rules ON jobs (listed_by) WHERE deleted_at IS NULL;

-- The dates of a job's draft, row by row; until is the last day that it stands in its bay.
CREATE TABLE job_dates (
    workshop_id uuid NOT NULL,
    job_id      uuid NOT NULL,
    key         text NOT NULL,
    kind        text NOT NULL,
    what        text NOT NULL,
    bay         text NOT NULL,
    due         date NOT NULL,
    until       date NOT NULL CHECK (until >= due),
    every_days  integer NOT NULL CHECK (every_days >= 0),
    open        boolean NOT NULL,
    hours       double precision NOT NULL,
    waits       integer NOT NULL,
    PRIMARY KEY (workshop_id, job_id, key),
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);
CREATE INDEX job_dates_due ON job_dates (workshop_id, due, job_id, key) WHERE open;
CREATE INDEX job_dates_in_bay ON job_dates USING gist (workshop_id, daterange(due, until, '[]')) WHERE open AND kind = 'fit';

-- What is sent again, because its answer was lost, is made once: by the name that its sender gave it.
ALTER TABLE jobs ADD COLUMN made_as text;
CREATE UNIQUE INDEX jobs_made_as ON jobs (workshop_id, made_as);
ALTER TABLE tasks ADD COLUMN made_as text;
CREATE UNIQUE INDEX tasks_made_as ON tasks (workshop_id, made_as);

-- Who saved: a window whose answer was lost is not in conflict with itself.
ALTER TABLE job_saves ADD COLUMN by_window text NOT NULL DEFAULT '';

-- Ticks stand in the order in which the server got them; a phone's clock decides nothing.
ALTER TABLE step_ticks ADD COLUMN arrived bigint GENERATED ALWAYS AS IDENTITY;

-- Indexes begin with the workshop.
DROP INDEX tasks_open, tasks_by_job, vehicle_finds_by_model, part_versions_by_key, step_ticks_by_job;
CREATE INDEX tasks_open ON tasks (workshop_id, asked_at) WHERE state IN ('waiting', 'running');
CREATE INDEX tasks_by_job ON tasks (workshop_id, job_id, asked_at DESC);
CREATE INDEX vehicle_finds_by_model ON vehicle_finds (workshop_id, model_key, id);
CREATE INDEX part_versions_by_key ON part_versions (workshop_id, key, id DESC);
CREATE INDEX step_ticks_by_job ON step_ticks (workshop_id, job_id, arrived);
CREATE INDEX step_ticks_newest ON step_ticks (workshop_id, arrived DESC) WHERE done AND usual_minutes > 0;

-- +goose Down
DROP INDEX step_ticks_newest, step_ticks_by_job, part_versions_by_key, vehicle_finds_by_model, tasks_by_job, tasks_open;
ALTER TABLE step_ticks DROP COLUMN arrived;
ALTER TABLE job_saves DROP COLUMN by_window;
ALTER TABLE tasks DROP COLUMN made_as;
ALTER TABLE jobs DROP COLUMN made_as;
DROP TABLE job_dates;
DROP INDEX jobs_by_rules, jobs_by_search, jobs_by_save;
ALTER TABLE jobs DROP COLUMN title, DROP COLUMN customer, DROP COLUMN vehicle, DROP COLUMN summary, DROP COLUMN weakest,
    DROP COLUMN severity, DROP COLUMN settled, DROP COLUMN search, DROP COLUMN listed_version, DROP COLUMN listed_by;
ALTER TABLE jobs DROP COLUMN workshop_id CASCADE;
ALTER TABLE job_saves DROP COLUMN workshop_id;
ALTER TABLE job_revisions DROP COLUMN workshop_id;
ALTER TABLE tasks DROP COLUMN workshop_id;
ALTER TABLE vehicle_finds DROP COLUMN workshop_id;
ALTER TABLE part_versions DROP COLUMN workshop_id;
ALTER TABLE step_ticks DROP COLUMN workshop_id;
DROP TABLE workshops;
CREATE INDEX jobs_by_save ON jobs (saved_at DESC) WHERE deleted_at IS NULL;
CREATE INDEX tasks_open ON tasks (asked_at) WHERE state IN ('waiting', 'running');
CREATE INDEX tasks_by_job ON tasks (job_id, asked_at DESC);
CREATE INDEX vehicle_finds_by_model ON vehicle_finds (model_key, id);
CREATE INDEX part_versions_by_key ON part_versions (key, id DESC);
CREATE INDEX step_ticks_by_job ON step_ticks (job_id, ticked_at, id);
