-- +goose Up
-- Where a workshop is told what concerns it: addresses that its owner listed, and no others. Each is told what happened since it was
-- last told; what could not be delivered is told with the next.
CREATE TABLE addressees (
    id          uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    workshop_id uuid NOT NULL REFERENCES workshops (id),
    kind        text NOT NULL CHECK (kind IN ('mail', 'webhook')),
    address     text NOT NULL CHECK (length(address) BETWEEN 3 AND 300),
    person_id   uuid, -- whose it is: of what is mentioned they are told what names them
    wants       text NOT NULL CHECK (wants ~ '^(due|asked|mentioned|signed|failed)(,(due|asked|mentioned|signed|failed))*$'),
    hourly      boolean NOT NULL DEFAULT false, -- otherwise once a day
    hour        integer NOT NULL CHECK (hour BETWEEN 0 AND 23),
    zone        text NOT NULL,
    secret      text NOT NULL DEFAULT '', -- what a webhook's messages are signed with
    listed_by   uuid NOT NULL,
    listed_at   timestamptz NOT NULL DEFAULT now(),
    ended_at    timestamptz,
    told_until  timestamptz NOT NULL DEFAULT now(), -- all that happened before has been told
    next_at     timestamptz NOT NULL,
    busy_until  timestamptz NOT NULL DEFAULT now(), -- a server is at it
    sent_at     timestamptz,
    tries       integer NOT NULL DEFAULT 0, -- that failed, since the last that did not
    problem     text NOT NULL DEFAULT '',
    FOREIGN KEY (workshop_id, person_id) REFERENCES people (workshop_id, id),
    FOREIGN KEY (workshop_id, listed_by) REFERENCES people (workshop_id, id)
);
CREATE INDEX addressees_next ON addressees (next_at) WHERE ended_at IS NULL;
CREATE UNIQUE INDEX addressees_once ON addressees (workshop_id, kind, address) WHERE ended_at IS NULL;
ALTER TABLE addressees ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_workshops ON addressees TO epitrope_background USING (true) WITH CHECK (true);
CREATE POLICY own_workshop ON addressees TO epitrope_app USING (workshop_id = current_setting('epitrope.workshop')::uuid)
    WITH CHECK (workshop_id = current_setting('epitrope.workshop')::uuid);

-- +goose Down
DROP TABLE addressees;
