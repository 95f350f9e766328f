-- +goose Up
-- What was cut from a piece of stock: appended, never changed, so rows of its own
-- rather than part of the stock's document.
CREATE TABLE cuts_made (
  id INTEGER PRIMARY KEY,
  stock_id TEXT NOT NULL REFERENCES stock_items(id),
  piece_id TEXT NOT NULL,
  name TEXT NOT NULL,
  length_mm REAL NOT NULL,
  at DATETIME NOT NULL
);
CREATE INDEX cuts_made_by_stock ON cuts_made (stock_id);
INSERT INTO cuts_made (stock_id, piece_id, name, length_mm, at)
  SELECT s.id, json_extract(h.value, '$.pieceId'), json_extract(h.value, '$.name'), json_extract(h.value, '$.lengthMm'), json_extract(h.value, '$.at')
  FROM stock_items s, json_each(s.doc, '$.history') h
  WHERE json_valid(s.doc) ORDER BY s.id, h.key;
-- +goose Down
DROP TABLE cuts_made;
