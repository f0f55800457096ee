-- +goose Up
-- While a fault is traced, what was complained of, read, looked at and mended stands among what was read, said and seen on a
-- job: by its case.
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_kind_check;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_kind_check CHECK (kind IN ('reading', 'waiver', 'statement', 'trip',
    'complaint', 'traced', 'looked', 'mended', 'closed'));
ALTER TABLE proof_entries ADD COLUMN case_id uuid;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_case CHECK ((case_id IS NOT NULL) =
    (kind IN ('complaint', 'traced', 'looked', 'mended', 'closed')));

-- +goose Down
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_case;
ALTER TABLE proof_entries DROP COLUMN case_id;
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_kind_check;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_kind_check CHECK (kind IN ('reading', 'waiver', 'statement', 'trip'));
