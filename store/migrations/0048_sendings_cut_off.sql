-- +goose Up
UPDATE sendings SET state = 'failed', says = 'It was cut off, and may have gone out or not; send it again' WHERE state = 'sending' AND due IS NULL;

-- +goose Down
SELECT 1;
