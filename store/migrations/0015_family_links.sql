-- +goose Up
CREATE TABLE IF NOT EXISTS family_links (
    token      BINARY(32) PRIMARY KEY COMMENT 'SHA-256 of what the address holds',
    studio_id  CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    student_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    last_day   DATE NOT NULL,
    ended      BOOLEAN NOT NULL DEFAULT FALSE COMMENT 'by the teacher',
    INDEX (studio_id, student_id),
    FOREIGN KEY (studio_id, student_id) REFERENCES students (studio_id, id)
);

-- +goose Down
DROP TABLE IF EXISTS family_links;
