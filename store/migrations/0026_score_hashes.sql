-- +goose Up
UPDATE scores SET hash = UNHEX(SHA2(data, 256)) WHERE hash = UNHEX(REPEAT('00', 32));

-- +goose Down
SELECT 1;
