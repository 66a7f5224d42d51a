-- +goose Up
CREATE TABLE IF NOT EXISTS sessions (
    token  CHAR(43) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY COMMENT 'hashed',
    data   BLOB NOT NULL COMMENT 'names the teacher and the studio',
    expiry TIMESTAMP(6) NOT NULL,
    INDEX (expiry)
);

-- +goose Down
DROP TABLE IF EXISTS sessions;
