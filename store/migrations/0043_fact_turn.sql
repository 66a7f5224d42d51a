-- +goose Up
ALTER TABLE facts
    ADD COLUMN IF NOT EXISTS turn BIGINT NOT NULL DEFAULT 0 COMMENT 'of the delivery that brought it; 0 of facts from before turns were kept',
    ADD INDEX IF NOT EXISTS by_turn (studio_id, student_id, turn),
    DROP INDEX IF EXISTS studio_id;

-- +goose Down
ALTER TABLE facts
    ADD INDEX IF NOT EXISTS studio_id (studio_id, student_id, at, id),
    DROP INDEX IF EXISTS by_turn,
    DROP COLUMN IF EXISTS turn;
