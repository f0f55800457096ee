-- +goose Up
-- A job's log goes on for years after the work: what was changed in the vehicle stands in it like what was read and mended, without
-- a case.
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_kind_check;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_kind_check CHECK (kind IN ('reading', 'waiver', 'statement', 'trip',
    'complaint', 'traced', 'looked', 'swapped', 'mended', 'bypass', 'closed', 'changed', 'noted'));
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_case;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_case CHECK ((case_id IS NOT NULL) =
    (kind IN ('complaint', 'traced', 'looked', 'swapped', 'mended', 'bypass', 'closed')));

-- It may speak of the installation that was found, not of the one that is designed.
ALTER TABLE proof_entries ADD COLUMN as_found boolean NOT NULL DEFAULT false;

-- What failed, as it was understood when it was mended or changed: by part, model and age, so that no page decides a job.
CREATE TABLE failures (
    workshop_id uuid NOT NULL,
    entry_id    uuid NOT NULL,
    job_id      uuid NOT NULL,
    fault       text NOT NULL, -- its kind; empty where a part was changed without one
    says        text NOT NULL,
    part        text NOT NULL, -- what sort of part or wire
    model       text NOT NULL, -- what it is sold by
    vehicle     text NOT NULL,
    years       double precision CHECK (years >= 0), -- since it was proven; null where nobody knows
    failed_at   timestamptz NOT NULL,
    search      text NOT NULL,
    PRIMARY KEY (workshop_id, entry_id),
    FOREIGN KEY (workshop_id, entry_id) REFERENCES proof_entries (workshop_id, id),
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);
CREATE INDEX failures_newest ON failures (workshop_id, failed_at DESC, entry_id);
ALTER TABLE failures ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_workshops ON failures TO epitrope_background USING (true) WITH CHECK (true);
CREATE POLICY own_workshop ON failures TO epitrope_app USING (workshop_id = current_setting('epitrope.workshop')::uuid)
    WITH CHECK (workshop_id = current_setting('epitrope.workshop')::uuid);

-- +goose Down
DROP TABLE failures;
ALTER TABLE proof_entries DROP COLUMN as_found;
DELETE FROM proof_entries WHERE kind IN ('swapped', 'changed', 'noted');
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_kind_check;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_kind_check CHECK (kind IN ('reading', 'waiver', 'statement', 'trip',
    'complaint', 'traced', 'looked', 'mended', 'bypass', 'closed'));
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_case;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_case CHECK ((case_id IS NOT NULL) =
    (kind IN ('complaint', 'traced', 'looked', 'mended', 'bypass', 'closed')));
