-- +goose Up
ALTER TABLE scores ADD COLUMN IF NOT EXISTS hash BINARY(32) NOT NULL DEFAULT '' COMMENT 'SHA-256 of the file: by it a reading is kept, and a file that came before is known';

-- +goose Down
ALTER TABLE scores DROP COLUMN IF EXISTS hash;
