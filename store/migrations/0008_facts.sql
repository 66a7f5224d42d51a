-- +goose Up
CREATE TABLE IF NOT EXISTS facts (
    studio_id  CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    id         CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'made by the client',
    student_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    at         DATETIME(6) NOT NULL COMMENT 'UTC, when it happened',
    kind       VARCHAR(30) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    detail     JSON NOT NULL,
    received   DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    PRIMARY KEY (studio_id, id),
    INDEX (studio_id, student_id, at, id),
    FOREIGN KEY (studio_id, student_id) REFERENCES students (studio_id, id)
);

-- +goose Down
DROP TABLE IF EXISTS facts;
