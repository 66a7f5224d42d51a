-- +goose Up
-- Counts what was changed beside facts: a change that was reckoned from an older state is begun again.
ALTER TABLE studios ADD COLUMN IF NOT EXISTS edits BIGINT NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE studios DROP COLUMN IF EXISTS edits;
