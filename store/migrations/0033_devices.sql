-- +goose Up
CREATE TABLE IF NOT EXISTS devices (
    id         CHAR(26) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY COMMENT 'of one sign-in; its session names it',
    teacher_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    agent      VARCHAR(200) NOT NULL COMMENT 'what the browser calls itself',
    made       DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    seen       DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    ended      BOOLEAN NOT NULL DEFAULT FALSE,
    INDEX (teacher_id, made),
    FOREIGN KEY (teacher_id) REFERENCES teachers (id)
);

-- +goose Down
DROP TABLE IF EXISTS devices;
