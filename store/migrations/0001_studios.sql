-- +goose Up
CREATE TABLE IF NOT EXISTS studios (
    id          CHAR(26) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
    name        VARCHAR(200) NOT NULL,
    zone        VARCHAR(60)  NOT NULL,
    calendar    JSON         NOT NULL,
    demo        BOOLEAN      NOT NULL DEFAULT FALSE,
    clock_shift BIGINT       NOT NULL DEFAULT 0 COMMENT 'seconds that the studio''s clock stands ahead of the machine''s; only a demo''s moves',
    created     DATETIME(6)  NOT NULL DEFAULT CURRENT_TIMESTAMP(6)
);

-- +goose Down
DROP TABLE IF EXISTS studios;
