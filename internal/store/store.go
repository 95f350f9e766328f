// Package store keeps everything in one SQLite file. It is the only place that
// knows the database.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"

	"github.com/libtnb/sqlite"
	"github.com/pressly/goose/v3"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open database: one writer connection, several readers.
type Store struct {
	write *gorm.DB
	read  *gorm.DB
	path  string
}

// ErrNotFound is returned where a row is not there.
var ErrNotFound = errors.New("store: not found")

// Open opens or makes the database file and brings it up to date.
func Open(ctx context.Context, path string) (*Store, error) {
	write, err := connect(path, 1)
	if err != nil {
		return nil, err
	}
	db, err := write.DB()
	if err != nil {
		return nil, fmt.Errorf("store: %w", err)
	}
	if err := migrate(ctx, db); err != nil {
		_ = db.Close()
		return nil, fmt.Errorf("store: migrate %s: %w", path, err)
	}
	read, err := connect(path, 4)
	if err != nil {
		return nil, err
	}
	return &Store{write: write, read: read, path: path}, nil
}

func connect(path string, conns int) (*gorm.DB, error) {
	dsn := "file:" + (&url.URL{Path: path}).EscapedPath() +
		"?_pragma=journal_mode(WAL)&_pragma=busy_timeout(5000)&_pragma=foreign_keys(1)&_pragma=synchronous(FULL)&_txlock=immediate"
	g, err := gorm.Open(sqlite.Open(dsn), &gorm.Config{Logger: logger.Discard, SkipDefaultTransaction: true, TranslateError: true})
	if err != nil {
		return nil, fmt.Errorf("store: open %s: %w", path, err)
	}
	db, err := g.DB()
	if err != nil {
		return nil, fmt.Errorf("store: %w", err)
	}
	db.SetMaxOpenConns(conns)
	db.SetMaxIdleConns(conns)
	return g, nil
}

func migrate(ctx context.Context, db *sql.DB) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, db, dir, goose.WithVerbose(false))
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// Close closes all connections.
func (s *Store) Close() error {
	var errs []error
	for _, g := range []*gorm.DB{s.read, s.write} {
		db, err := g.DB()
		if err == nil {
			err = db.Close()
		}
		errs = append(errs, err)
	}
	return errors.Join(errs...)
}

// Backup copies the live database into a new file; it refuses to overwrite one.
func (s *Store) Backup(ctx context.Context, file string) error {
	if _, err := os.Stat(file); err == nil {
		return fmt.Errorf("store: %s is there already; name a new file", file)
	}
	if err := s.read.WithContext(ctx).Exec("VACUUM INTO ?", file).Error; err != nil {
		return fmt.Errorf("store: backup: %w", err)
	}
	return nil
}

// Tx is a transaction, or plain reading.
type Tx struct{ db *gorm.DB }

// Read runs f without a transaction on a reader.
func (s *Store) Read(ctx context.Context, f func(Tx) error) error {
	return f(Tx{s.read.WithContext(ctx)})
}

// Write runs f in a transaction on the one writer; an error rolls it back.
func (s *Store) Write(ctx context.Context, f func(Tx) error) error {
	return s.write.WithContext(ctx).Transaction(func(db *gorm.DB) error { return f(Tx{db}) })
}
