-- +goose Up
CREATE TABLE IF NOT EXISTS erasures (
    id        CHAR(26) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY COMMENT 'of the receipt; nothing here tells who it was',
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    at        DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    deleted   JSON NOT NULL COMMENT 'how many rows of each kind',
    INDEX (studio_id),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS erasures;
