-- +goose Up
-- The application is no owner of these tables and no superuser. What it does for people it does as epitrope_app, on
-- connections that each belong to one workshop: the database itself shows them no row of another, whatever a query
-- asks. What it does by itself, for all workshops in turn, it does as epitrope_background.
-- +goose StatementBegin
DO $$
DECLARE
    named text;
    mine  text := 'workshop_id = current_setting(''epitrope.workshop'')::uuid';
BEGIN
    FOREACH named IN ARRAY ARRAY['epitrope_app', 'epitrope_background'] LOOP
        BEGIN
            EXECUTE format('CREATE ROLE %I NOLOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOBYPASSRLS', named);
        EXCEPTION WHEN duplicate_object OR unique_violation THEN NULL; -- another database of this server has made it
        END;
        EXECUTE format('GRANT USAGE ON SCHEMA public TO %I', named);
        EXECUTE format('ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT SELECT, INSERT, UPDATE, DELETE ON TABLES TO %I', named);
        EXECUTE format('ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT USAGE ON SEQUENCES TO %I', named);
        EXECUTE format('GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO %I', named);
    END LOOP;
    FOREACH named IN ARRAY ARRAY['jobs', 'job_saves', 'job_revisions', 'job_dates', 'tasks', 'vehicle_finds', 'part_versions', 'step_ticks',
        'workshop_settings', 'proof_entries', 'photos', 'signoffs', 'workshops'] LOOP
        EXECUTE format('GRANT SELECT, INSERT, UPDATE, DELETE ON %I TO epitrope_app, epitrope_background', named);
        EXECUTE format('ALTER TABLE %I ENABLE ROW LEVEL SECURITY', named);
        EXECUTE format('CREATE POLICY all_workshops ON %I TO epitrope_background USING (true) WITH CHECK (true)', named);
        IF named <> 'workshops' THEN
            EXECUTE format('CREATE POLICY own_workshop ON %I TO epitrope_app USING (%s) WITH CHECK (%s)', named, mine, mine);
        END IF;
    END LOOP;
    CREATE POLICY own_workshop ON workshops TO epitrope_app USING (id = current_setting('epitrope.workshop')::uuid) WITH CHECK (false);
END
$$;
-- +goose StatementEnd

-- +goose Down
-- +goose StatementBegin
DO $$
DECLARE
    named text;
BEGIN
    FOREACH named IN ARRAY ARRAY['jobs', 'job_saves', 'job_revisions', 'job_dates', 'tasks', 'vehicle_finds', 'part_versions', 'step_ticks',
        'workshop_settings', 'proof_entries', 'photos', 'signoffs', 'workshops'] LOOP
        EXECUTE format('DROP POLICY own_workshop ON %I', named);
        EXECUTE format('DROP POLICY all_workshops ON %I', named);
        EXECUTE format('ALTER TABLE %I DISABLE ROW LEVEL SECURITY', named);
    END LOOP;
END
$$;
-- +goose StatementEnd
