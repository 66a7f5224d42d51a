-- +goose Up
ALTER TABLE studios ADD COLUMN IF NOT EXISTS book_titles JSON NOT NULL DEFAULT '{}' COMMENT 'present titles of books that were renamed, by the titles that facts know them by';

-- +goose Down
ALTER TABLE studios DROP COLUMN IF EXISTS book_titles;
