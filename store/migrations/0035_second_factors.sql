-- +goose Up
ALTER TABLE teachers
    ADD COLUMN IF NOT EXISTS app_secret VARCHAR(64) CHARACTER SET ascii NOT NULL DEFAULT '' COMMENT 'of the app that shows codes; empty for none',
    ADD COLUMN IF NOT EXISTS app_step   BIGINT NOT NULL DEFAULT 0 COMMENT 'of the last code that was taken, so that none is taken twice',
    ADD COLUMN IF NOT EXISTS recovery   JSON NOT NULL DEFAULT '[]' COMMENT 'SHA-256 of each recovery code that is left',
    ADD COLUMN IF NOT EXISTS passkeys   JSON NOT NULL DEFAULT '[]' COMMENT 'public keys, with their names';

-- +goose Down
ALTER TABLE teachers
    DROP COLUMN IF EXISTS app_secret,
    DROP COLUMN IF EXISTS app_step,
    DROP COLUMN IF EXISTS recovery,
    DROP COLUMN IF EXISTS passkeys;
