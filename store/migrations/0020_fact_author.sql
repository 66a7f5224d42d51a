-- +goose Up
ALTER TABLE facts ADD COLUMN IF NOT EXISTS author VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '' COMMENT 'teacher, family or program; empty of facts from before it was kept';

-- +goose Down
ALTER TABLE facts DROP COLUMN IF EXISTS author;
