-- +goose Up
CREATE TABLE IF NOT EXISTS sign_ins (
    id     BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
    who    BINARY(32) NOT NULL COMMENT 'hash of the address or of the mail address that failed to sign in',
    at     DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6),
    INDEX (who, at),
    INDEX (at)
);

-- +goose Down
DROP TABLE IF EXISTS sign_ins;
