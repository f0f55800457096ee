-- +goose Up
-- Long work in the background. A server claims a task, reports how far it is, and is
-- taken for gone when it has not been heard of for a while: then another takes over.
CREATE TABLE tasks (
    id         uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    job_id     uuid NOT NULL REFERENCES jobs (id),
    kind       text NOT NULL CHECK (kind IN ('sweep', 'spread')),
    ask        jsonb NOT NULL,
    document   jsonb NOT NULL,
    state      text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'done', 'stopped', 'failed')),
    stop       boolean NOT NULL DEFAULT false,
    attempt    integer NOT NULL DEFAULT 0,
    done       integer NOT NULL DEFAULT 0 CHECK (done >= 0),
    total      integer NOT NULL DEFAULT 0 CHECK (total >= 0),
    result     jsonb,
    problem    text NOT NULL DEFAULT '',
    asked_at   timestamptz NOT NULL DEFAULT now(),
    heard_at   timestamptz NOT NULL DEFAULT now(),
    ended_at   timestamptz,
    CHECK ((state = 'done') <= (result IS NOT NULL))
);

CREATE INDEX tasks_open ON tasks (asked_at) WHERE state IN ('waiting', 'running');
CREATE INDEX tasks_by_job ON tasks (job_id, asked_at DESC);

-- +goose Down
DROP TABLE tasks;
