-- +goose Up
ALTER TABLE students ADD COLUMN IF NOT EXISTS turn BIGINT NOT NULL DEFAULT 0 COMMENT 'of the last delivery of facts; what was made from the facts up to it holds until there is another';

-- +goose Down
ALTER TABLE students DROP COLUMN IF EXISTS turn;
