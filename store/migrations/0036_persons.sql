-- +goose Up
ALTER TABLE students ADD COLUMN IF NOT EXISTS person CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '' COMMENT 'the student who is the same person, on the first instrument; empty of that one';

-- +goose Down
ALTER TABLE students DROP COLUMN IF EXISTS person;
