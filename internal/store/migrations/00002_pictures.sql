-- +goose Up
-- Pictures of templates and knives that outlines are traced over. The id is made
-- from the bytes, so that the same picture is kept once; rows are never changed.
CREATE TABLE pictures (
  id TEXT PRIMARY KEY,
  mime TEXT NOT NULL,
  width_px INTEGER NOT NULL,
  height_px INTEGER NOT NULL,
  data BLOB NOT NULL,
  created_at DATETIME NOT NULL
);
