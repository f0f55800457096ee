-- +goose Up
-- What a job waits for stands with it, so that the workshop's day asks no job: it is worked out anew whenever something happens to the
-- job. Of several the first counts: somebody complains; a question is open; a signature is wanted; work has begun and is to be read; a
-- part is to come; a bay is to be free; and before all that, answers. What is signed for waits for nothing.
ALTER TABLE jobs ADD COLUMN stage text NOT NULL DEFAULT 'answer'
    CHECK (stage IN ('complaint', 'answer', 'signature', 'reading', 'part', 'bay', 'done'));
-- How many readings its proof asks for, as far as that was worked out; 0 where it was not.
ALTER TABLE jobs ADD COLUMN readings integer NOT NULL DEFAULT 0;

-- +goose StatementBegin
CREATE FUNCTION stage_of(workshop uuid, job uuid) RETURNS text LANGUAGE sql STABLE AS $$
    SELECT CASE
        WHEN EXISTS (SELECT FROM proof_entries e WHERE e.workshop_id = workshop AND e.job_id = job AND e.kind = 'complaint'
            AND NOT EXISTS (SELECT FROM proof_entries c WHERE c.workshop_id = workshop AND c.job_id = job AND c.kind = 'closed'
                AND c.case_id = e.case_id)) THEN 'complaint'
        WHEN EXISTS (SELECT FROM comments q WHERE q.workshop_id = workshop AND q.job_id = job AND q.asks
            AND NOT EXISTS (SELECT FROM comments a WHERE a.workshop_id = workshop AND a.job_id = job AND a.thread = q.id AND a.answers))
            THEN 'answer'
        WHEN EXISTS (SELECT FROM step_ticks t WHERE t.workshop_id = workshop AND t.job_id = job AND t.awaits AND t.done
                AND NOT EXISTS (SELECT FROM step_ticks l WHERE l.workshop_id = workshop AND l.job_id = job AND l.step = t.step
                    AND l.arrived > t.arrived)
                AND NOT EXISTS (SELECT FROM countersigns c WHERE c.workshop_id = workshop AND c.of = t.id))
            OR EXISTS (SELECT FROM proof_entries e WHERE e.workshop_id = workshop AND e.job_id = job AND e.awaits
                AND NOT EXISTS (SELECT FROM proof_entries l WHERE l.workshop_id = workshop AND l.job_id = job AND l.subject = e.subject
                    AND (l.kind = 'reading') = (e.kind = 'reading') AND l.arrived > e.arrived)
                AND NOT EXISTS (SELECT FROM countersigns c WHERE c.workshop_id = workshop AND c.of = e.id)) THEN 'signature'
        WHEN EXISTS (SELECT FROM signoffs s WHERE s.workshop_id = workshop AND s.job_id = job) THEN 'done'
        WHEN j.readings > 0 AND j.readings <= (SELECT count(DISTINCT e.subject) FROM proof_entries e WHERE e.workshop_id = workshop
            AND e.job_id = job AND e.kind IN ('reading', 'waiver')) THEN 'signature'
        WHEN EXISTS (SELECT FROM step_ticks t WHERE t.workshop_id = workshop AND t.job_id = job AND t.done)
            OR EXISTS (SELECT FROM proof_entries e WHERE e.workshop_id = workshop AND e.job_id = job AND e.kind = 'reading') THEN 'reading'
        WHEN EXISTS (SELECT FROM job_dates d WHERE d.workshop_id = workshop AND d.job_id = job AND d.open AND d.kind = 'fit' AND d.waits > 0)
            THEN 'part'
        WHEN EXISTS (SELECT FROM job_dates d WHERE d.workshop_id = workshop AND d.job_id = job AND d.open AND d.kind = 'fit')
            OR EXISTS (SELECT FROM job_revisions r WHERE r.workshop_id = workshop AND r.job_id = job) THEN 'bay'
        ELSE 'answer' END
    FROM jobs j WHERE j.workshop_id = workshop AND j.id = job
$$;

CREATE FUNCTION restage() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
    of  record := coalesce(NEW, OLD);
    now_at text := stage_of(of.workshop_id, of.job_id);
BEGIN
    UPDATE jobs SET stage = now_at WHERE workshop_id = of.workshop_id AND id = of.job_id AND stage <> now_at;
    RETURN NULL;
END
$$;
-- +goose StatementEnd

CREATE TRIGGER staged AFTER INSERT ON proof_entries FOR EACH ROW EXECUTE FUNCTION restage();
CREATE TRIGGER staged AFTER INSERT ON comments FOR EACH ROW EXECUTE FUNCTION restage();
CREATE TRIGGER staged AFTER INSERT ON step_ticks FOR EACH ROW EXECUTE FUNCTION restage();
CREATE TRIGGER staged AFTER INSERT ON countersigns FOR EACH ROW EXECUTE FUNCTION restage();
CREATE TRIGGER staged AFTER INSERT ON signoffs FOR EACH ROW EXECUTE FUNCTION restage();
CREATE TRIGGER staged AFTER INSERT ON job_revisions FOR EACH ROW EXECUTE FUNCTION restage();
CREATE TRIGGER staged AFTER INSERT OR DELETE ON job_dates FOR EACH ROW EXECUTE FUNCTION restage();

UPDATE jobs SET stage = stage_of(workshop_id, id);
CREATE INDEX jobs_by_stage ON jobs (workshop_id, stage, saved_at DESC, number DESC) WHERE deleted_at IS NULL;

-- +goose Down
DROP TRIGGER staged ON proof_entries;
DROP TRIGGER staged ON comments;
DROP TRIGGER staged ON step_ticks;
DROP TRIGGER staged ON countersigns;
DROP TRIGGER staged ON signoffs;
DROP TRIGGER staged ON job_revisions;
DROP TRIGGER staged ON job_dates;
DROP FUNCTION restage, stage_of;
DROP INDEX jobs_by_stage;
ALTER TABLE jobs DROP COLUMN stage, DROP COLUMN readings;
