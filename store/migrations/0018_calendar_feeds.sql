-- +goose Up
CREATE TABLE IF NOT EXISTS calendar_feeds (
    token     BINARY(32) PRIMARY KEY COMMENT 'SHA-256 of what the address holds',
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS calendar_feeds;
