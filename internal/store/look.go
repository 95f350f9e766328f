package store

import (
	"context"
	"database/sql"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"net/url"
	"os"
	"path/filepath"
	"time"
)

// applicationID marks our files ("CEmb"), and stands in their first hundred bytes.
const applicationID = 0x43456d62

// About is what a file is seen to hold, without changing anything of it.
type About struct {
	Path     string
	Empty    bool // nothing is in it yet
	Form     int  // of the tables; the newest migration it has had
	Pieces   int
	Patterns int
	Items    int
	NewestAt time.Time // when something in it was last saved
	Bytes    int64
}

// header reads the marks of an SQLite file: whether it is one, whose, and of which form.
func header(path string) (lite bool, app uint32, form uint32, err error) {
	f, err := os.Open(path)
	if err != nil {
		return false, 0, 0, err
	}
	defer func() { _ = f.Close() }()
	b := make([]byte, 100)
	if _, err := io.ReadFull(f, b); err != nil {
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
			return false, 0, 0, nil
		}
		return false, 0, 0, err
	}
	return string(b[:16]) == "SQLite format 3\x00", binary.BigEndian.Uint32(b[68:]), binary.BigEndian.Uint32(b[60:]), nil
}

// Look tells what is in a file, or why it cannot be ours to open: a *Fault. Nothing of
// the file is changed.
func Look(ctx context.Context, path string) (about About, err error) {
	about.Path = path
	info, err := os.Stat(path)
	switch {
	case errors.Is(err, os.ErrNotExist):
		if dir, err := os.Stat(filepath.Dir(path)); err != nil || !dir.IsDir() {
			return about, &Fault{Code: NoFolder, Path: filepath.Dir(path), Err: err}
		}
		return about, &Fault{Code: Missing, Path: path, Err: err}
	case err != nil:
		return about, faulty(path, err)
	case info.IsDir():
		return about, &Fault{Code: IsFolder, Path: path}
	}
	if about.Bytes = info.Size(); about.Bytes == 0 {
		about.Empty = true
		return about, nil
	}
	lite, app, form, err := header(path)
	switch {
	case err != nil:
		return about, faulty(path, err)
	case !lite, app != 0 && app != applicationID:
		return about, &Fault{Code: NotOurs, Path: path}
	case form > NewestForm:
		return about, &Fault{Code: NewerFile, Path: path}
	}
	db, err := sql.Open("sqlite", toRead(path))
	if err != nil {
		return about, faulty(path, err)
	}
	defer func() { _ = db.Close() }()
	return about, faulty(path, about.read(ctx, db))
}

// read counts what is in an open file.
func (a *About) read(ctx context.Context, db *sql.DB) error {
	var app, tables, ours, begun int
	err := db.QueryRowContext(ctx, `SELECT (SELECT application_id FROM pragma_application_id), (SELECT COUNT(*) FROM sqlite_master WHERE type = 'table'),
		(SELECT COUNT(*) FROM sqlite_master WHERE type = 'table' AND name IN ('pieces', 'pattern_revisions', 'stock_items', 'goose_db_version')),
		(SELECT COUNT(*) FROM sqlite_master WHERE type = 'table' AND name IN ('goose_db_version', 'sqlite_sequence'))`).Scan(&app, &tables, &ours, &begun)
	switch {
	case err != nil:
		return err
	case tables == begun && app == 0: // nothing, or a first start that was cut short before its first table
		a.Empty = true
		return nil
	case ours < 4:
		return &Fault{Code: NotOurs, Path: a.Path}
	}
	if err := db.QueryRowContext(ctx, "SELECT COALESCE(MAX(version_id), 0) FROM goose_db_version WHERE is_applied").Scan(&a.Form); err != nil {
		return err
	}
	if a.Form > NewestForm {
		return &Fault{Code: NewerFile, Path: a.Path}
	}
	var newest sql.NullString
	err = db.QueryRowContext(ctx, `SELECT (SELECT COUNT(*) FROM pieces), (SELECT COUNT(*) FROM patterns), (SELECT COUNT(*) FROM stock_items),
		(SELECT MAX(t) FROM (SELECT MAX(updated_at) AS t FROM pieces UNION ALL SELECT MAX(updated_at) FROM patterns UNION ALL
		 SELECT MAX(updated_at) FROM stock_items UNION ALL SELECT MAX(updated_at) FROM shop))`).Scan(&a.Pieces, &a.Patterns, &a.Items, &newest)
	if err != nil {
		return err
	}
	a.NewestAt = timeOf(newest.String)
	return nil
}

// timeOf reads a time as it is stored.
func timeOf(text string) time.Time {
	for _, form := range []string{"2006-01-02 15:04:05.999999999-07:00", time.RFC3339Nano, "2006-01-02 15:04:05.999999999 -0700 MST"} {
		if t, err := time.Parse(form, text); err == nil {
			return t
		}
	}
	return time.Time{}
}

// Check reads every page of a file and every tie between its rows; the first thing that is
// not whole is a *Fault.
func Check(ctx context.Context, path string) error {
	if _, err := Look(ctx, path); err != nil {
		return err
	}
	db, err := sql.Open("sqlite", toRead(path))
	if err != nil {
		return faulty(path, err)
	}
	defer func() { _ = db.Close() }()
	return faulty(path, whole(ctx, db, path, "integrity_check"))
}

// whole runs one of SQLite's checks, and that of foreign keys.
func whole(ctx context.Context, db *sql.DB, path, check string) error {
	var says string
	if err := db.QueryRowContext(ctx, "PRAGMA "+check+"(1)").Scan(&says); err != nil {
		return err
	}
	if says != "ok" {
		return &Fault{Code: Damaged, Path: path, Err: errors.New(says)}
	}
	rows, err := db.QueryContext(ctx, "PRAGMA foreign_key_check")
	if err != nil {
		return err
	}
	defer func() { _ = rows.Close() }()
	if rows.Next() {
		return &Fault{Code: Damaged, Path: path, Err: fmt.Errorf("a row refers to one that is not there")}
	}
	return rows.Err()
}

// toRead is how a file is opened to be looked at. Where nobody can write, SQLite would
// still want to make its files beside it; without a log there is nothing in them.
func toRead(path string) string {
	dsn := "file:" + (&url.URL{Path: path}).EscapedPath() + "?mode=ro&_pragma=busy_timeout(2000)"
	if _, err := os.Stat(path + "-wal"); errors.Is(err, os.ErrNotExist) && writable(filepath.Dir(path)) != nil {
		dsn += "&immutable=1"
	}
	return dsn
}
