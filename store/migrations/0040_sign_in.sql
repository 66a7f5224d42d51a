-- +goose Up
-- Mail addresses differ by their accents, as mailboxes do; capitals do not count.
UPDATE teachers SET email = LOWER(email);
ALTER TABLE teachers MODIFY email VARCHAR(190) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL;
CREATE TABLE IF NOT EXISTS invitations (
    token BINARY(32) NOT NULL PRIMARY KEY COMMENT 'hash of what is in the invitation',
    at    DATETIME(6) NOT NULL DEFAULT CURRENT_TIMESTAMP(6)
);

-- +goose Down
DROP TABLE IF EXISTS invitations;
