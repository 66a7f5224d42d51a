-- +goose Up
CREATE TABLE IF NOT EXISTS activities (
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    id        VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    detail    JSON NOT NULL,
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS activities;
