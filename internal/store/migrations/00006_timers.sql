-- +goose Up
-- Holds, tempers and whatever else is waited for: a timer is when it began and how long it is,
-- so that nothing needs to run for it to be right.
CREATE TABLE timers (
	id TEXT PRIMARY KEY,
	piece_id TEXT REFERENCES pieces(id),
	kind TEXT NOT NULL,
	label TEXT NOT NULL,
	seconds REAL NOT NULL,
	started_at DATETIME NOT NULL,
	stopped_at DATETIME
);
CREATE INDEX timers_running ON timers(stopped_at, started_at);
-- +goose Down
DROP TABLE timers;
