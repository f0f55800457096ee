-- +goose Up
-- Servers hear of what changed in a workshop, so that open pages need not ask: who, which job, and what of it, and nothing of what it says.
-- +goose StatementBegin
CREATE FUNCTION tell_change() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    job text := '';
BEGIN
    IF TG_ARGV[1] <> '' THEN
        EXECUTE format('SELECT ($1).%I::text', TG_ARGV[1]) INTO job USING NEW;
    END IF;
    PERFORM pg_notify('epitrope_changes', NEW.workshop_id || ' ' || TG_ARGV[0] || ' ' || coalesce(job, ''));
    RETURN NULL;
END
$$;
-- +goose StatementEnd

-- Who has which job open: a row for each window, renewed while it is. It outlives no restart, and need not.
CREATE UNLOGGED TABLE here (
    workshop_id uuid NOT NULL,
    job_id      uuid NOT NULL,
    person_id   uuid NOT NULL,
    page        uuid NOT NULL, -- the window, by a name of its own
    at          timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (workshop_id, job_id, person_id, page)
);
CREATE INDEX here_at ON here (at);
ALTER TABLE here ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_workshops ON here TO epitrope_background USING (true) WITH CHECK (true);
CREATE POLICY own_workshop ON here TO epitrope_app USING (workshop_id = current_setting('epitrope.workshop')::uuid)
    WITH CHECK (workshop_id = current_setting('epitrope.workshop')::uuid);

CREATE TRIGGER told AFTER INSERT ON job_saves FOR EACH ROW EXECUTE FUNCTION tell_change('job', 'job_id');
CREATE TRIGGER told AFTER UPDATE OF deleted_at ON jobs FOR EACH ROW EXECUTE FUNCTION tell_change('job', 'id');
CREATE TRIGGER told AFTER INSERT ON job_revisions FOR EACH ROW EXECUTE FUNCTION tell_change('revision', 'job_id');
CREATE TRIGGER told AFTER INSERT ON step_ticks FOR EACH ROW EXECUTE FUNCTION tell_change('ticks', 'job_id');
CREATE TRIGGER told AFTER INSERT ON proof_entries FOR EACH ROW EXECUTE FUNCTION tell_change('proof', 'job_id');
CREATE TRIGGER told AFTER INSERT ON photos FOR EACH ROW EXECUTE FUNCTION tell_change('proof', 'job_id');
CREATE TRIGGER told AFTER INSERT ON signoffs FOR EACH ROW EXECUTE FUNCTION tell_change('proof', 'job_id');
CREATE TRIGGER told AFTER INSERT ON countersigns FOR EACH ROW EXECUTE FUNCTION tell_change('countersigns', 'job_id');
CREATE TRIGGER told AFTER INSERT ON comments FOR EACH ROW EXECUTE FUNCTION tell_change('comments', 'job_id');
CREATE TRIGGER told AFTER INSERT OR UPDATE OF state ON tasks FOR EACH ROW EXECUTE FUNCTION tell_change('tasks', 'job_id');
CREATE TRIGGER told AFTER INSERT ON workshop_settings FOR EACH ROW EXECUTE FUNCTION tell_change('settings', '');
CREATE TRIGGER told AFTER INSERT ON part_versions FOR EACH ROW EXECUTE FUNCTION tell_change('parts', '');
CREATE TRIGGER told AFTER INSERT ON here FOR EACH ROW EXECUTE FUNCTION tell_change('here', 'job_id');

-- +goose Down
DROP TABLE here;
DROP FUNCTION tell_change CASCADE;
