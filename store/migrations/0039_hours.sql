-- +goose Up
CREATE TABLE IF NOT EXISTS hours (
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    id        CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    detail    JSON NOT NULL COMMENT 'who comes, what is played and how it is handed on',
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS hours;
