-- +goose Up
ALTER TABLE studios ADD COLUMN IF NOT EXISTS rhythm_words JSON NOT NULL DEFAULT '{}' COMMENT 'spoken phrases by rhythm; empty for those that the program brings';

-- +goose Down
ALTER TABLE studios DROP COLUMN IF EXISTS rhythm_words;
