-- +goose Up
ALTER TABLE sendings ADD COLUMN IF NOT EXISTS kind VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'sheet' COMMENT 'of the document that it is: sheet or report' AFTER student_id;

-- +goose Down
ALTER TABLE sendings DROP COLUMN IF EXISTS kind;
