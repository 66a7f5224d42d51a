-- +goose Up
CREATE TABLE IF NOT EXISTS events (
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    id        CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    detail    JSON NOT NULL COMMENT 'its day, its pieces in order, and how it went',
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS events;
