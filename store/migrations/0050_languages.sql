-- +goose Up
-- In which language a studio reads its screens, and a home what it is sent; a home without one reads the studio's.
ALTER TABLE studios ADD COLUMN IF NOT EXISTS language VARCHAR(35) NOT NULL DEFAULT 'en-GB';
ALTER TABLE students ADD COLUMN IF NOT EXISTS language VARCHAR(35) NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE students DROP COLUMN IF EXISTS language;
ALTER TABLE studios DROP COLUMN IF EXISTS language;
