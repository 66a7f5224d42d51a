-- +goose Up
ALTER TABLE scores ADD INDEX IF NOT EXISTS scores_by_hash (studio_id, hash);

-- +goose Down
ALTER TABLE scores DROP INDEX IF EXISTS scores_by_hash;
