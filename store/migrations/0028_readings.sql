-- +goose Up
CREATE TABLE IF NOT EXISTS readings (
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    hash      BINARY(32) NOT NULL COMMENT 'of the score file',
    plays     VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'the instrument that it is read for',
    reader    INT NOT NULL COMMENT 'version of the reader',
    detail    JSON NOT NULL,
    PRIMARY KEY (studio_id, hash, plays),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS readings;
