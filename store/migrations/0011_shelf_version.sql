-- +goose Up
ALTER TABLE studios ADD COLUMN shelf_version BIGINT NOT NULL DEFAULT 0 COMMENT 'counts changes of the items';

-- +goose Down
ALTER TABLE studios DROP COLUMN shelf_version;
