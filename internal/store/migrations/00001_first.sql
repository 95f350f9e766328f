-- +goose Up
CREATE TABLE shop (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  doc TEXT NOT NULL,
  version INTEGER NOT NULL,
  updated_at DATETIME NOT NULL
);
CREATE TABLE stock_items (
  id TEXT PRIMARY KEY,
  doc TEXT NOT NULL,
  version INTEGER NOT NULL,
  archived_at DATETIME,
  created_at DATETIME NOT NULL,
  updated_at DATETIME NOT NULL
);
CREATE TABLE patterns (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  head INTEGER NOT NULL,
  version INTEGER NOT NULL,
  archived_at DATETIME,
  created_at DATETIME NOT NULL,
  updated_at DATETIME NOT NULL
);
CREATE TABLE pattern_revisions (
  pattern_id TEXT NOT NULL REFERENCES patterns(id),
  n INTEGER NOT NULL,
  doc TEXT NOT NULL,
  created_at DATETIME NOT NULL,
  PRIMARY KEY (pattern_id, n)
);
CREATE TABLE pieces (
  id TEXT PRIMARY KEY,
  doc TEXT NOT NULL,
  summary TEXT NOT NULL,
  version INTEGER NOT NULL,
  cursor INTEGER NOT NULL,
  archived_at DATETIME,
  created_at DATETIME NOT NULL,
  updated_at DATETIME NOT NULL
);
-- Every edit of a piece, so that undo survives a reload; cursor says where it is.
CREATE TABLE piece_edits (
  piece_id TEXT NOT NULL REFERENCES pieces(id),
  seq INTEGER NOT NULL,
  doc TEXT NOT NULL,
  label TEXT NOT NULL,
  created_at DATETIME NOT NULL,
  PRIMARY KEY (piece_id, seq)
);
-- Named states of a piece; nothing here is ever overwritten.
CREATE TABLE piece_revisions (
  piece_id TEXT NOT NULL REFERENCES pieces(id),
  n INTEGER NOT NULL,
  label TEXT NOT NULL,
  doc TEXT NOT NULL,
  created_at DATETIME NOT NULL,
  PRIMARY KEY (piece_id, n)
);
CREATE TABLE cuts (
  id TEXT PRIMARY KEY,
  piece_id TEXT NOT NULL REFERENCES pieces(id),
  stock_id TEXT REFERENCES stock_items(id),
  length_mm REAL NOT NULL,
  role TEXT NOT NULL,
  state TEXT NOT NULL,
  created_at DATETIME NOT NULL,
  updated_at DATETIME NOT NULL
);
CREATE UNIQUE INDEX cuts_by_piece_role ON cuts (piece_id, role);
CREATE INDEX cuts_by_stock ON cuts (stock_id);
-- A plan is a snapshot with the version of the laws that made it.
CREATE TABLE plans (
  piece_id TEXT NOT NULL REFERENCES pieces(id),
  n INTEGER NOT NULL,
  laws INTEGER NOT NULL,
  request TEXT NOT NULL,
  result TEXT NOT NULL,
  frozen_at DATETIME,
  created_at DATETIME NOT NULL,
  PRIMARY KEY (piece_id, n)
);
-- +goose Down
DROP TABLE plans;
DROP TABLE cuts;
DROP TABLE piece_revisions;
DROP TABLE piece_edits;
DROP TABLE pieces;
DROP TABLE pattern_revisions;
DROP TABLE patterns;
DROP TABLE stock_items;
DROP TABLE shop;
