-- +goose Up
ALTER TABLE family_links ADD COLUMN IF NOT EXISTS opened DATE NULL COMMENT 'the last day on which somebody opened it';

-- +goose Down
ALTER TABLE family_links DROP COLUMN IF EXISTS opened;
