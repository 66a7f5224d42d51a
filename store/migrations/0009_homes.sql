-- +goose Up
ALTER TABLE students ADD COLUMN IF NOT EXISTS home JSON NOT NULL DEFAULT '{}' COMMENT 'the instrument practised on';

-- +goose Down
ALTER TABLE students DROP COLUMN IF EXISTS home;
