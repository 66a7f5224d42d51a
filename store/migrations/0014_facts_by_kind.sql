-- +goose Up
ALTER TABLE facts ADD INDEX IF NOT EXISTS by_kind (studio_id, kind);

-- +goose Down
ALTER TABLE facts DROP INDEX IF EXISTS by_kind;
