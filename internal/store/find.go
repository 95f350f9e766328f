package store

import "strings"

// FoundRow is a text that somebody wrote, and what it stands in.
type FoundRow struct {
	Kind      string // note, piece or stock
	PieceID   string
	SessionID string
	StockID   string
	Doc       string // of the event, of the piece or of the stock
}

// like is a pattern for LIKE that finds a text anywhere, whatever letters are in it.
func like(text string) string {
	return "%" + strings.NewReplacer(`\`, `\\`, "%", `\%`, "_", `\_`).Replace(text) + "%"
}

// Written are notes at the fire, of pieces and of stock that have a text, the newest first, at most
// so many of each.
func (tx Tx) Written(text string, most int) (out []FoundRow, err error) {
	for _, q := range []string{
		`SELECT 'note' AS kind, s.piece_id, e.session_id, '' AS stock_id, e.doc FROM session_events e JOIN sessions s ON s.id = e.session_id
			WHERE json_extract(e.doc, '$.text') LIKE ? ESCAPE '\' ORDER BY e.heard_at DESC LIMIT ?`,
		`SELECT 'piece' AS kind, id AS piece_id, '' AS session_id, '' AS stock_id, doc FROM pieces
			WHERE archived_at IS NULL AND json_extract(doc, '$.notes') LIKE ? ESCAPE '\' ORDER BY updated_at DESC LIMIT ?`,
		`SELECT 'stock' AS kind, '' AS piece_id, '' AS session_id, id AS stock_id, doc FROM stock_items
			WHERE archived_at IS NULL AND coalesce(json_extract(doc, '$.notes'), '') || ' ' || coalesce(json_extract(doc, '$.place'), '') LIKE ? ESCAPE '\' ORDER BY updated_at DESC LIMIT ?`,
	} {
		var rows []FoundRow
		if err := tx.db.Raw(q, like(text), most).Scan(&rows).Error; err != nil {
			return nil, wrap(err)
		}
		out = append(out, rows...)
	}
	return out, nil
}
