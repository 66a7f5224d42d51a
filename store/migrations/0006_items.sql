-- +goose Up
CREATE TABLE IF NOT EXISTS items (
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    id        VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    place     INT NOT NULL COMMENT 'order on the shelf',
    detail    JSON NOT NULL,
    PRIMARY KEY (studio_id, id),
    INDEX (studio_id, place),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS items;
