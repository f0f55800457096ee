-- +goose Up
-- What was read, said and seen on a job, as events with ids that the client makes: sent twice it counts once. A
-- later one stands for an earlier one, which stays.
CREATE TABLE proof_entries (
    id          uuid PRIMARY KEY,
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    job_id      uuid NOT NULL,
    kind        text NOT NULL CHECK (kind IN ('reading', 'waiver', 'statement', 'trip')),
    subject     text NOT NULL CHECK (length(subject) BETWEEN 1 AND 60),
    entry       text NOT NULL CHECK (length(entry) BETWEEN 1 AND 500),
    by_whom     text NOT NULL CHECK (length(by_whom) BETWEEN 1 AND 60),
    with_what   text NOT NULL DEFAULT '' CHECK (length(with_what) <= 120),
    state       text NOT NULL DEFAULT '' CHECK (length(state) <= 300),
    taken_at    timestamptz NOT NULL,
    received_at timestamptz NOT NULL DEFAULT now(),
    arrived     bigint GENERATED ALWAYS AS IDENTITY,
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);

CREATE INDEX proof_entries_by_job ON proof_entries (workshop_id, job_id, arrived);

-- Photographs, by the digest of their content.
CREATE TABLE photos (
    id          uuid PRIMARY KEY,
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    job_id      uuid NOT NULL,
    tied        text NOT NULL CHECK (length(tied) BETWEEN 1 AND 60),
    note        text NOT NULL DEFAULT '' CHECK (length(note) <= 200),
    by_whom     text NOT NULL CHECK (length(by_whom) <= 60),
    taken_at    timestamptz NOT NULL,
    received_at timestamptz NOT NULL DEFAULT now(),
    digest      text NOT NULL CHECK (digest ~ '^[0-9a-f]{64}$'),
    width       integer NOT NULL CHECK (width > 0),
    height      integer NOT NULL CHECK (height > 0),
    content     bytea NOT NULL CHECK (length(content) <= 4194304),
    arrived     bigint GENERATED ALWAYS AS IDENTITY,
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);

CREATE INDEX photos_by_job ON photos (workshop_id, job_id, arrived);

-- What was signed for, whole: it is never computed again.
CREATE TABLE signoffs (
    id          uuid PRIMARY KEY,
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    job_id      uuid NOT NULL,
    number      integer NOT NULL CHECK (number > 0),
    version     integer NOT NULL CHECK (version > 0),
    by_whom     text NOT NULL CHECK (length(by_whom) BETWEEN 1 AND 60),
    signed_at   timestamptz NOT NULL DEFAULT now(),
    frozen      jsonb NOT NULL CHECK (jsonb_typeof(frozen) = 'object'),
    certificate bytea NOT NULL,
    UNIQUE (job_id, number),
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);

CREATE TRIGGER proof_entries_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON proof_entries
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER photos_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON photos
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
CREATE TRIGGER signoffs_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON signoffs
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- +goose Down
DROP TABLE signoffs, photos, proof_entries;
