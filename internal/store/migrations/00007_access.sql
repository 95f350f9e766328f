-- +goose Up
-- Who else may reach the shop: instruments that report, and screens at the anvil. Of a key only
-- its hash is kept. None of it goes into an archive.
CREATE TABLE access (
	id TEXT PRIMARY KEY,
	kind TEXT NOT NULL,
	name TEXT NOT NULL,
	hash TEXT NOT NULL UNIQUE,
	bound TEXT NOT NULL DEFAULT '',
	created_at DATETIME NOT NULL,
	seen_at DATETIME,
	revoked_at DATETIME
);
-- +goose Down
DROP TABLE access;
