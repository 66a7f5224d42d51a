-- +goose Up
CREATE TABLE IF NOT EXISTS teachers (
    id        CHAR(26) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
    studio_id CHAR(26) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
    email     VARCHAR(190) NOT NULL UNIQUE,
    name      VARCHAR(200) NOT NULL,
    password  VARCHAR(200) NOT NULL COMMENT 'argon2id, encoded with its parameters and salt',
    FOREIGN KEY (studio_id) REFERENCES studios (id)
);

-- +goose Down
DROP TABLE IF EXISTS teachers;
