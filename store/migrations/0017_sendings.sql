-- +goose Up
CREATE TABLE IF NOT EXISTS sendings (
    id         CHAR(26) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
    studio_id  CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    student_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    day        DATE NOT NULL COMMENT 'of the lesson whose sheet it is',
    address    VARCHAR(190) NOT NULL,
    state      VARCHAR(10) NOT NULL COMMENT 'sending, sent, failed, refused or bounced',
    says       VARCHAR(300) NOT NULL DEFAULT '' COMMENT 'why it was not delivered',
    at         DATETIME(6) NOT NULL,
    INDEX (studio_id, student_id, day),
    FOREIGN KEY (studio_id, student_id) REFERENCES students (studio_id, id)
);

-- +goose Down
DROP TABLE IF EXISTS sendings;
