-- +goose Up
ALTER TABLE students ADD COLUMN IF NOT EXISTS contact VARCHAR(190) NOT NULL DEFAULT '' COMMENT 'mail address that the week sheet goes to: a guardian''s, or the student''s own';

-- +goose Down
ALTER TABLE students DROP COLUMN IF EXISTS contact;
