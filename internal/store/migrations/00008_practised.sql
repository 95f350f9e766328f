-- +goose Up
-- What was practised to its end, by whom, for a teacher's sheet. The document holds what was done;
-- one that is taken off the sheet stays in the file.
CREATE TABLE practised (
	id TEXT PRIMARY KEY,
	who TEXT NOT NULL,
	exercise TEXT NOT NULL,
	doc TEXT NOT NULL,
	created_at DATETIME NOT NULL,
	removed_at DATETIME
);
CREATE INDEX practised_by_exercise ON practised (exercise, who);
-- +goose Down
DROP TABLE practised;
