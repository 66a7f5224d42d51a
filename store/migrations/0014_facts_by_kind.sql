-- +goose Up
ALTER TABLE facts ADD INDEX by_kind (studio_id, kind);

-- +goose Down
ALTER TABLE facts DROP INDEX by_kind;
