-- +goose Up
CREATE TABLE IF NOT EXISTS told (
    studio_id  CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    day        DATE NOT NULL COMMENT 'UTC, on which they came in',
    student_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    family     INT UNSIGNED NOT NULL COMMENT 'facts that the family told',
    n          INT UNSIGNED NOT NULL COMMENT 'facts in all',
    PRIMARY KEY (studio_id, day, student_id),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS told;
