-- +goose Up
CREATE TABLE jobs (
    id         uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    number     bigint GENERATED ALWAYS AS IDENTITY UNIQUE,
    version    integer NOT NULL DEFAULT 1 CHECK (version >= 1),
    document   jsonb NOT NULL CHECK (jsonb_typeof(document) = 'object'),
    created_at timestamptz NOT NULL DEFAULT now(),
    saved_at   timestamptz NOT NULL DEFAULT now(),
    deleted_at timestamptz
);

CREATE INDEX jobs_by_save ON jobs (saved_at DESC) WHERE deleted_at IS NULL;

-- Every save of a draft, so that a stale write can be told what changed and
-- nothing that was once saved is lost.
CREATE TABLE job_saves (
    job_id   uuid NOT NULL REFERENCES jobs (id),
    version  integer NOT NULL CHECK (version >= 1),
    document jsonb NOT NULL,
    saved_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (job_id, version)
);

-- What was issued is kept whole: the document and the plan as they were.
CREATE TABLE job_revisions (
    job_id    uuid NOT NULL REFERENCES jobs (id),
    number    integer NOT NULL CHECK (number >= 1),
    version   integer NOT NULL,
    document  jsonb NOT NULL,
    plan      jsonb NOT NULL,
    issued_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (job_id, number),
    FOREIGN KEY (job_id, version) REFERENCES job_saves (job_id, version)
);

-- +goose StatementBegin
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
    RAISE EXCEPTION '% is append-only', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END
$$;
-- +goose StatementEnd

CREATE TRIGGER job_saves_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON job_saves
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER job_revisions_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON job_revisions
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- +goose Down
DROP TABLE job_revisions, job_saves, jobs;
DROP FUNCTION refuse_change;
