-- +goose Up
-- A way past what has failed is kept with its case: it is temporary, and who takes it out has to know of it.
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_kind_check;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_kind_check CHECK (kind IN ('reading', 'waiver', 'statement', 'trip',
    'complaint', 'traced', 'looked', 'mended', 'bypass', 'closed'));
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_case;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_case CHECK ((case_id IS NOT NULL) =
    (kind IN ('complaint', 'traced', 'looked', 'mended', 'bypass', 'closed')));

-- +goose Down
DELETE FROM proof_entries WHERE kind = 'bypass';
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_case;
ALTER TABLE proof_entries DROP CONSTRAINT proof_entries_kind_check;
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_kind_check CHECK (kind IN ('reading', 'waiver', 'statement', 'trip',
    'complaint', 'traced', 'looked', 'mended', 'closed'));
ALTER TABLE proof_entries ADD CONSTRAINT proof_entries_case CHECK ((case_id IS NOT NULL) =
    (kind IN ('complaint', 'traced', 'looked', 'mended', 'closed')));
