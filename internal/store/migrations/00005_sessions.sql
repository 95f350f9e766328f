-- +goose Up
-- What happens at the fire. A session holds the plan as it was frozen; its events are only
-- ever added, n counts them as they came. Progress is derived from the first so many.
CREATE TABLE sessions (
	id TEXT PRIMARY KEY,
	piece_id TEXT NOT NULL REFERENCES pieces(id),
	plan_n INTEGER NOT NULL,
	laws INTEGER NOT NULL,
	doc TEXT NOT NULL,
	events INTEGER NOT NULL DEFAULT 0,
	progress TEXT NOT NULL DEFAULT '',
	progress_n INTEGER NOT NULL DEFAULT 0,
	created_at DATETIME NOT NULL,
	updated_at DATETIME NOT NULL
);
CREATE INDEX sessions_of_piece ON sessions(piece_id, created_at);
CREATE TABLE session_events (
	session_id TEXT NOT NULL REFERENCES sessions(id),
	id TEXT NOT NULL,
	n INTEGER NOT NULL,
	doc TEXT NOT NULL,
	heard_at DATETIME NOT NULL,
	PRIMARY KEY (session_id, id)
);
CREATE UNIQUE INDEX session_events_in_order ON session_events(session_id, n);
-- +goose Down
DROP TABLE session_events;
DROP TABLE sessions;
