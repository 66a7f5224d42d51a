-- +goose Up
ALTER TABLE family_links ADD COLUMN IF NOT EXISTS own BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'the student''s own, not the family''s';

-- +goose Down
ALTER TABLE family_links DROP COLUMN IF EXISTS own;
