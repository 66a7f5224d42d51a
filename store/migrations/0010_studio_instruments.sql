-- +goose Up
ALTER TABLE studios ADD COLUMN IF NOT EXISTS home JSON NOT NULL DEFAULT '{}' COMMENT 'the instrument taught on';

-- +goose Down
ALTER TABLE studios DROP COLUMN IF EXISTS home;
