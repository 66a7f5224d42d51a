-- +goose Up
ALTER TABLE studios ADD COLUMN IF NOT EXISTS shelf_version BIGINT NOT NULL DEFAULT 0 COMMENT 'counts changes of the items';

-- +goose Down
ALTER TABLE studios DROP COLUMN IF EXISTS shelf_version;
