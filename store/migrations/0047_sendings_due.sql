-- +goose Up
ALTER TABLE sendings
    ADD COLUMN IF NOT EXISTS teacher_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '' COMMENT 'who sends it',
    ADD COLUMN IF NOT EXISTS paper VARCHAR(10) NOT NULL DEFAULT 'A4' COMMENT 'of the page that goes with it',
    ADD COLUMN IF NOT EXISTS due DATETIME(6) NULL COMMENT 'when it goes out, or is tried again where its sender has stopped; NULL once it is settled',
    ADD COLUMN IF NOT EXISTS tries TINYINT NOT NULL DEFAULT 0 COMMENT 'how often a sender has begun',
    MODIFY COLUMN state VARCHAR(10) NOT NULL COMMENT 'waiting, sending, sent, failed, refused, bounced or undone',
    ADD INDEX IF NOT EXISTS sendings_due (due);

-- +goose Down
ALTER TABLE sendings DROP INDEX IF EXISTS sendings_due, DROP COLUMN IF EXISTS tries, DROP COLUMN IF EXISTS due, DROP COLUMN IF EXISTS paper, DROP COLUMN IF EXISTS teacher_id;
