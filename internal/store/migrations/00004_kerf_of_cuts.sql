-- +goose Up
-- What the saw takes with a cut is asked of the bar as well as the part itself. Cuts kept
-- before this count with the length that they were kept with.
ALTER TABLE cuts ADD COLUMN kerf_mm REAL NOT NULL DEFAULT 0;
-- +goose Down
ALTER TABLE cuts DROP COLUMN kerf_mm;
