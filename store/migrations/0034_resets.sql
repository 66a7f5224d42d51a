-- +goose Up
CREATE TABLE IF NOT EXISTS resets (
    token      BINARY(32) PRIMARY KEY COMMENT 'SHA-256 of what the mail holds',
    teacher_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    made       DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    INDEX (teacher_id),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id)
);

-- +goose Down
DROP TABLE IF EXISTS resets;
