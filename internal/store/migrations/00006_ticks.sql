-- +goose Up
-- What was ticked off, step by step, as events with ids that the client makes: the same
-- event sent twice counts once, and two people who tick one step are both kept.
CREATE TABLE step_ticks (
    id          uuid PRIMARY KEY,
    job_id      uuid NOT NULL REFERENCES jobs (id),
    step        text NOT NULL CHECK (length(step) BETWEEN 1 AND 60),
    done        boolean NOT NULL,
    by_whom     text NOT NULL CHECK (length(by_whom) <= 60),
    note        text NOT NULL DEFAULT '' CHECK (length(note) <= 500),
    ticked_at   timestamptz NOT NULL,
    received_at timestamptz NOT NULL DEFAULT now()
);

CREATE INDEX step_ticks_by_job ON step_ticks (job_id, ticked_at, id);

CREATE TRIGGER step_ticks_append_only BEFORE UPDATE OR DELETE OR TRUNCATE ON step_ticks
    FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();

-- +goose Down
DROP TABLE step_ticks;
