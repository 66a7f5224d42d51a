-- +goose Up
ALTER TABLE studios ADD COLUMN IF NOT EXISTS instruments JSON NOT NULL DEFAULT '[]' COMMENT 'profiles of the studio''s own instruments';

-- +goose Down
ALTER TABLE studios DROP COLUMN IF EXISTS instruments;
