-- +goose Up
CREATE TABLE IF NOT EXISTS sign_ups (
    token  BINARY(32) PRIMARY KEY COMMENT 'SHA-256 of what the mail holds',
    detail JSON NOT NULL COMMENT 'the studio and the account that are made when the link is opened',
    made   DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6)
);

-- +goose Down
DROP TABLE IF EXISTS sign_ups;
