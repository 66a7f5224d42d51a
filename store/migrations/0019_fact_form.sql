-- +goose Up
ALTER TABLE facts ADD COLUMN IF NOT EXISTS form TINYINT NOT NULL DEFAULT 1 COMMENT 'version of the detail: 1 the whole fact in the first form, 2 its body';

-- +goose Down
ALTER TABLE facts DROP COLUMN IF EXISTS form;
