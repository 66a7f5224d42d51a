-- +goose Up
ALTER TABLE students ADD COLUMN IF NOT EXISTS first_turn BIGINT NOT NULL DEFAULT 0 COMMENT 'before the first delivery: another where a student of this id was here before';

-- +goose Down
ALTER TABLE students DROP COLUMN IF EXISTS first_turn;
