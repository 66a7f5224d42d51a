-- +goose Up
CREATE TABLE IF NOT EXISTS documents (
    studio_id  CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    id         CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'of this revision',
    student_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    kind       VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'plan or sheet',
    day        DATE NOT NULL COMMENT 'of the lesson',
    revision   SMALLINT NOT NULL COMMENT 'from 1',
    reason     VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'why it was given, or given anew',
    cause      VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'the state of the facts that it was made for',
    author     VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL COMMENT 'whose word brought it about: teacher, family or program',
    at         DATETIME(6) NOT NULL COMMENT 'UTC, by the studio''s clock',
    program    VARCHAR(40) NOT NULL COMMENT 'version of the program that made it',
    summary    JSON NOT NULL COMMENT 'what lists show of it',
    body       JSON NOT NULL,
    PRIMARY KEY (studio_id, id),
    UNIQUE (studio_id, student_id, kind, day, revision),
    FOREIGN KEY (studio_id, student_id) REFERENCES students (studio_id, id)
);

-- +goose Down
DROP TABLE IF EXISTS documents;
