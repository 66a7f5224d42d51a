-- +goose Up
ALTER TABLE studios ADD COLUMN home JSON NOT NULL DEFAULT '{}' COMMENT 'the instrument taught on';

-- +goose Down
ALTER TABLE studios DROP COLUMN home;
