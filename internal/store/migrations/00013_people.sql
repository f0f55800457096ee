-- +goose Up
-- People, and what they sign in with. What secrets there are lie in a schema of their own, which only the role that
-- signs people in can see: neither a query made for people nor the work in the background reads a hash.
-- +goose StatementBegin
DO $$
BEGIN
    EXECUTE 'CREATE ROLE epitrope_door NOLOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOBYPASSRLS';
EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; -- another database of this server has made it
END
$$;
-- +goose StatementEnd

ALTER TABLE workshops
    ADD COLUMN name text NOT NULL DEFAULT 'Workshop' CHECK (length(name) BETWEEN 1 AND 80),
    ADD COLUMN address text CHECK (address ~ '^[a-z0-9][a-z0-9-]{0,39}$'), -- what one signs in at; null until somebody has begun it
    ADD COLUMN last_number bigint NOT NULL DEFAULT 0,
    ADD UNIQUE (address);
UPDATE workshops w SET last_number = coalesce((SELECT max(number) FROM jobs j WHERE j.workshop_id = w.id), 0);

-- Each workshop counts its own jobs.
ALTER TABLE jobs ALTER COLUMN number DROP IDENTITY, DROP CONSTRAINT jobs_number_key, ADD UNIQUE (workshop_id, number);
-- +goose StatementBegin
CREATE FUNCTION number_job() RETURNS trigger LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
    IF NEW.number IS NULL THEN
        UPDATE workshops SET last_number = last_number + 1 WHERE id = NEW.workshop_id RETURNING last_number INTO NEW.number;
    END IF;
    RETURN NEW;
END
$$;
-- +goose StatementEnd
CREATE TRIGGER jobs_numbered BEFORE INSERT ON jobs FOR EACH ROW EXECUTE FUNCTION number_job();

CREATE TABLE people (
    id          uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    name        text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    sign_in     text NOT NULL CHECK (length(sign_in) BETWEEN 1 AND 120 AND sign_in = lower(sign_in)),
    role        text NOT NULL CHECK (role IN ('owner', 'foreman', 'designer', 'installer', 'apprentice', 'reader')),
    joined_at   timestamptz NOT NULL DEFAULT now(),
    left_at     timestamptz,
    UNIQUE (workshop_id, id)
);
-- Who has left frees what they signed in with, and keeps their name.
CREATE UNIQUE INDEX people_sign_in ON people (workshop_id, sign_in) WHERE left_at IS NULL;
CREATE UNIQUE INDEX people_name ON people (workshop_id, lower(name)) WHERE left_at IS NULL;

-- Where somebody is signed in, or was.
CREATE TABLE sign_ins (
    id          uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    workshop_id uuid NOT NULL,
    person_id   uuid NOT NULL,
    how         text NOT NULL CHECK (how IN ('password', 'passkey', 'link', 'demo')),
    agent       text NOT NULL DEFAULT '' CHECK (length(agent) <= 200),
    shared      boolean NOT NULL DEFAULT false, -- the bay's tablet: people switch on it by PIN
    began_at    timestamptz NOT NULL DEFAULT now(),
    seen_at     timestamptz NOT NULL DEFAULT now(),
    ended_at    timestamptz,
    FOREIGN KEY (workshop_id, person_id) REFERENCES people (workshop_id, id)
);
CREATE INDEX sign_ins_of ON sign_ins (workshop_id, person_id, seen_at DESC);

-- Links that let somebody in who has no password: each is kept as a digest alone.
CREATE TABLE links (
    id          uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    kind        text NOT NULL CHECK (kind IN ('first', 'invitation', 'reset', 'owner')),
    digest      bytea NOT NULL UNIQUE CHECK (length(digest) = 32),
    role        text NOT NULL DEFAULT '',
    person_id   uuid, -- whose password it resets
    job_id      uuid, -- what a vehicle's owner sees
    made_by     uuid,
    made_at     timestamptz NOT NULL DEFAULT now(),
    expires_at  timestamptz NOT NULL,
    used_at     timestamptz,
    revoked_at  timestamptz,
    FOREIGN KEY (workshop_id, person_id) REFERENCES people (workshop_id, id),
    FOREIGN KEY (workshop_id, made_by) REFERENCES people (workshop_id, id),
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);
CREATE INDEX links_of_job ON links (workshop_id, job_id) WHERE job_id IS NOT NULL;

-- What is in no other append-only table of who did what.
CREATE TABLE trail (
    id          bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    job_id      uuid,
    person_id   uuid,
    did         text NOT NULL CHECK (length(did) BETWEEN 1 AND 40),
    what        text NOT NULL DEFAULT '' CHECK (length(what) <= 400),
    at          timestamptz NOT NULL DEFAULT now(),
    FOREIGN KEY (workshop_id, person_id) REFERENCES people (workshop_id, id),
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);
CREATE INDEX trail_of_job ON trail (workshop_id, job_id, id DESC);
CREATE INDEX trail_of_workshop ON trail (workshop_id, id DESC);

-- Who stands for what an apprentice did.
CREATE TABLE countersigns (
    id          uuid NOT NULL,
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    job_id      uuid NOT NULL,
    of          uuid NOT NULL, -- the tick or the entry
    person_id   uuid NOT NULL,
    at          timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (workshop_id, id),
    UNIQUE (workshop_id, of),
    FOREIGN KEY (workshop_id, person_id) REFERENCES people (workshop_id, id),
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);
CREATE INDEX countersigns_of_job ON countersigns (workshop_id, job_id);

-- What is said and asked about a job's parts, steps, readings and photographs. A thread's first row has no thread.
CREATE TABLE comments (
    id          uuid NOT NULL,
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    job_id      uuid NOT NULL,
    thread      uuid,
    about       text NOT NULL CHECK (about IN ('job', 'part', 'step', 'reading', 'photo')),
    subject     text NOT NULL DEFAULT '' CHECK (length(subject) <= 60),
    named       text NOT NULL DEFAULT '' CHECK (length(named) <= 200), -- what it is about, as it was called
    text        text NOT NULL CHECK (length(text) BETWEEN 1 AND 2000),
    asks        boolean NOT NULL DEFAULT false,
    answers     boolean NOT NULL DEFAULT false, -- the thread's question is answered
    mentions    uuid[] NOT NULL DEFAULT '{}',
    person_id   uuid NOT NULL,
    at          timestamptz NOT NULL DEFAULT now(),
    arrived     bigint GENERATED ALWAYS AS IDENTITY,
    PRIMARY KEY (workshop_id, id),
    UNIQUE (workshop_id, job_id, id),
    FOREIGN KEY (workshop_id, job_id, thread) REFERENCES comments (workshop_id, job_id, id),
    FOREIGN KEY (workshop_id, person_id) REFERENCES people (workshop_id, id),
    FOREIGN KEY (workshop_id, job_id) REFERENCES jobs (workshop_id, id)
);
CREATE INDEX comments_of_job ON comments (workshop_id, job_id, arrived);
CREATE INDEX comments_asking ON comments (workshop_id, arrived) WHERE asks;

-- Under whom each was done, nobody's before there were people; and what waits for a countersignature.
-- +goose StatementBegin
DO $$
DECLARE
    named text;
BEGIN
    FOREACH named IN ARRAY ARRAY['job_saves', 'job_revisions', 'step_ticks', 'proof_entries', 'photos', 'signoffs'] LOOP
        EXECUTE format('ALTER TABLE %I ADD COLUMN person_id uuid, ADD FOREIGN KEY (workshop_id, person_id) REFERENCES people (workshop_id, id)', named);
    END LOOP;
    -- Names that clients make count once in their own workshop, whatever another's are.
    FOREACH named IN ARRAY ARRAY['step_ticks', 'proof_entries', 'photos', 'signoffs'] LOOP
        EXECUTE format('ALTER TABLE %I DROP CONSTRAINT %I, ADD PRIMARY KEY (workshop_id, id)', named, named || '_pkey');
    END LOOP;
    FOREACH named IN ARRAY ARRAY['step_ticks', 'proof_entries'] LOOP
        EXECUTE format('ALTER TABLE %I ADD COLUMN awaits boolean NOT NULL DEFAULT false', named);
    END LOOP;
    FOREACH named IN ARRAY ARRAY['trail', 'countersigns', 'comments'] LOOP
        EXECUTE format('CREATE TRIGGER %I BEFORE UPDATE OR DELETE OR TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION refuse_change()',
            named || '_append_only', named);
    END LOOP;
    FOREACH named IN ARRAY ARRAY['people', 'sign_ins', 'links', 'trail', 'countersigns', 'comments'] LOOP
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', named);
        EXECUTE format('CREATE POLICY all_workshops ON %I TO epitrope_background USING (true) WITH CHECK (true)', named);
        EXECUTE format('CREATE POLICY own_workshop ON %I TO epitrope_app USING (workshop_id = current_setting(''epitrope.workshop'')::uuid)'
            ' WITH CHECK (workshop_id = current_setting(''epitrope.workshop'')::uuid)', named);
    END LOOP;
    FOREACH named IN ARRAY ARRAY['workshops', 'people', 'sign_ins', 'links', 'trail'] LOOP
        EXECUTE format('CREATE POLICY at_the_door ON %I TO epitrope_door USING (true) WITH CHECK (true)', named);
    END LOOP;
END
$$;
-- +goose StatementEnd

CREATE SCHEMA door;
GRANT USAGE ON SCHEMA public, door TO epitrope_door;
GRANT SELECT ON workshops, people, sign_ins, links TO epitrope_door;
GRANT INSERT ON workshops, people, sign_ins, links, trail TO epitrope_door;
GRANT UPDATE (name, address) ON workshops TO epitrope_door;
GRANT UPDATE (sign_in, left_at) ON people TO epitrope_door;
GRANT UPDATE (seen_at, ended_at, shared) ON sign_ins TO epitrope_door;
GRANT UPDATE (used_at, revoked_at) ON links TO epitrope_door;
-- For people, sign-ins are listed and nothing more: the door begins and ends them.
REVOKE INSERT, UPDATE, DELETE ON sign_ins FROM epitrope_app, epitrope_background;
REVOKE DELETE ON people, links FROM epitrope_app, epitrope_background;

-- Sessions as their library keeps them, by a digest of the cookie.
CREATE TABLE door.sessions (
    token  text PRIMARY KEY,
    data   bytea NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX sessions_expiry ON door.sessions (expiry);

CREATE TABLE door.secrets (
    person_id    uuid PRIMARY KEY REFERENCES people (id),
    workshop_id  uuid NOT NULL REFERENCES workshops (id),
    password     text NOT NULL DEFAULT '', -- argon2id
    pin          text NOT NULL DEFAULT '', -- argon2id
    totp         text NOT NULL DEFAULT '',
    totp_step    bigint NOT NULL DEFAULT 0 -- the last that was used: none counts twice
);

CREATE TABLE door.passkeys (
    id          bytea PRIMARY KEY,
    person_id   uuid NOT NULL REFERENCES people (id),
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    name        text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
    credential  jsonb NOT NULL,
    made_at     timestamptz NOT NULL DEFAULT now(),
    used_at     timestamptz
);
CREATE INDEX passkeys_of ON door.passkeys (person_id);

-- How often somebody was wrong, by a digest of the account or the address, and until when they wait.
CREATE TABLE door.wrongs (
    who    bytea PRIMARY KEY,
    count  integer NOT NULL,
    until  timestamptz NOT NULL,
    last   timestamptz NOT NULL
);
GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA door TO epitrope_door;

-- +goose Down
DROP SCHEMA door CASCADE;
-- +goose StatementBegin
DO $$
DECLARE
    named text;
BEGIN
    FOREACH named IN ARRAY ARRAY['job_saves', 'job_revisions', 'step_ticks', 'proof_entries', 'photos', 'signoffs'] LOOP
        EXECUTE format('ALTER TABLE %I DROP COLUMN person_id', named);
    END LOOP;
END
$$;
-- +goose StatementEnd
ALTER TABLE step_ticks DROP COLUMN awaits, DROP CONSTRAINT step_ticks_pkey, ADD PRIMARY KEY (id);
ALTER TABLE proof_entries DROP COLUMN awaits, DROP CONSTRAINT proof_entries_pkey, ADD PRIMARY KEY (id);
ALTER TABLE photos DROP CONSTRAINT photos_pkey, ADD PRIMARY KEY (id);
ALTER TABLE signoffs DROP CONSTRAINT signoffs_pkey, ADD PRIMARY KEY (id);
DROP TABLE comments, countersigns, trail, links, sign_ins, people;
DROP POLICY at_the_door ON workshops;
REVOKE ALL ON workshops FROM epitrope_door;
REVOKE USAGE ON SCHEMA public FROM epitrope_door;
DROP TRIGGER jobs_numbered ON jobs;
DROP FUNCTION number_job;
ALTER TABLE jobs ALTER COLUMN number ADD GENERATED ALWAYS AS IDENTITY;
ALTER TABLE workshops DROP COLUMN last_number, DROP COLUMN address, DROP COLUMN name;
