-- +goose Up
ALTER TABLE studios ADD COLUMN IF NOT EXISTS skills JSON NOT NULL DEFAULT '[]' COMMENT 'the studio''s own skills, beside those of the program';

-- +goose Down
ALTER TABLE studios DROP COLUMN IF EXISTS skills;
