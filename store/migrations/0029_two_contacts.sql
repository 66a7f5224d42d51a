-- +goose Up
ALTER TABLE students MODIFY COLUMN contact VARCHAR(400) NOT NULL DEFAULT '' COMMENT 'mail addresses that the week sheet goes to, two at most, joined by comma and space';

-- +goose Down
UPDATE students SET contact = SUBSTRING_INDEX(contact, ', ', 1);
ALTER TABLE students MODIFY COLUMN contact VARCHAR(190) NOT NULL DEFAULT '' COMMENT 'mail address that the week sheet goes to: a guardian''s, or the student''s own';
