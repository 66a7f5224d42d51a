-- +goose Up
CREATE TABLE IF NOT EXISTS scores (
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    item_id   VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    file_name VARCHAR(200) NOT NULL,
    data      LONGBLOB NOT NULL COMMENT 'the file as it came',
    PRIMARY KEY (studio_id, item_id),
    FOREIGN KEY (studio_id, item_id) REFERENCES items (studio_id, id)
);

-- +goose Down
DROP TABLE IF EXISTS scores;
