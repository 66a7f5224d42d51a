-- +goose Up
CREATE TABLE IF NOT EXISTS students (
    studio_id   CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    id          CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    first_name  VARCHAR(100) NOT NULL,
    family_name VARCHAR(100) NOT NULL DEFAULT '',
    birth_year  SMALLINT NOT NULL,
    birth_month TINYINT  NOT NULL,
    instrument  VARCHAR(20) NOT NULL,
    slot        JSON NOT NULL,
    approach    JSON NOT NULL,
    PRIMARY KEY (studio_id, id),
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS students;
