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
	"sync"
	"time"

	"github.com/libtnb/sqlite"
	"github.com/pressly/goose/v3"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

//go:embed migrations/*.sql
var migrations embed.FS

// NewestForm is the newest migration that this program knows.
const NewestForm = 8

// Store is an open database: one writer connection, several readers. It may be used
// from several goroutines.
type Store struct {
	mu    sync.RWMutex // held alone while the file itself is exchanged
	write *gorm.DB
	read  *gorm.DB
	path  string
	free  func()
}

// ErrNotFound is returned where a row is not there.
var ErrNotFound = errors.New("store: not found")

// Open opens or makes the database file and brings it up to date. What is not ours, or
// of a newer version, is a *Fault and left untouched; so is everything else that is wrong
// with the file. before is called once what is in an older file is known, and before it
// is changed; it may be nil.
func Open(ctx context.Context, path string, before func(context.Context, *Store) error) (*Store, error) {
	about, err := Look(ctx, path)
	var f *Fault
	switch {
	case errors.As(err, &f) && f.Code == Missing:
		// made here first, so that it is never anybody else's to read
		made, err := os.OpenFile(path, os.O_CREATE|os.O_RDWR, 0o600)
		if err != nil {
			return nil, faulty(path, err)
		}
		_ = made.Close()
		about.Empty = true
	case err != nil:
		return nil, err
	}
	free, err := lockTogether(path)
	if err != nil {
		return nil, err
	}
	s := &Store{path: path, free: free}
	if err := s.open(ctx, about, before); err != nil {
		return nil, errors.Join(faulty(path, err), s.Close())
	}
	return s, nil
}

// open connects, and brings the file up to date.
func (s *Store) open(ctx context.Context, about About, before func(context.Context, *Store) error) (err error) {
	for _, suffix := range []string{"", "-wal", "-shm"} { // of a first version, that anybody could read
		if err := os.Chmod(s.path+suffix, 0o600); err != nil && !errors.Is(err, os.ErrNotExist) && !errors.Is(err, os.ErrPermission) {
			return err
		}
	}
	if s.write, err = connect(s.path, 1); err != nil {
		return err
	}
	db, err := s.write.DB()
	if err != nil {
		return err
	}
	if !about.Empty {
		if err := whole(ctx, db, s.path, "quick_check"); err != nil {
			return err
		}
		if about.Form < NewestForm && before != nil {
			if err := before(ctx, s); err != nil {
				return fmt.Errorf("store: before the file is brought up to date: %w", err)
			}
		}
	}
	if err := migrate(ctx, db); err != nil {
		return fmt.Errorf("store: migrate: %w", err)
	}
	if s.read, err = connect(s.path, 4); err != nil {
		return err
	}
	return nil
}

func connect(path string, conns int) (*gorm.DB, error) {
	dsn := "file:" + (&url.URL{Path: path}).EscapedPath() +
		"?_pragma=journal_mode(WAL)&_pragma=busy_timeout(5000)&_pragma=foreign_keys(1)&_pragma=synchronous(FULL)&_txlock=immediate"
	g, err := gorm.Open(sqlite.Open(dsn), &gorm.Config{Logger: logger.Discard, SkipDefaultTransaction: true, TranslateError: true})
	if err != nil {
		return nil, fmt.Errorf("store: open: %w", err)
	}
	db, err := g.DB()
	if err != nil {
		return nil, fmt.Errorf("store: %w", err)
	}
	db.SetMaxOpenConns(conns)
	db.SetMaxIdleConns(conns)
	return g, nil
}

// migrate brings the tables to the newest form, and marks the file as ours.
func migrate(ctx context.Context, db *sql.DB) error {
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, db, dir, goose.WithVerbose(false))
	if err != nil {
		return err
	}
	if _, err := p.Up(ctx); err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, fmt.Sprintf("PRAGMA application_id = %d; PRAGMA user_version = %d; PRAGMA wal_checkpoint(PASSIVE)", applicationID, NewestForm))
	return err
}

// Path is the file.
func (s *Store) Path() string { return s.path }

// Exchange puts a copy in the place of the open file, which is not kept, and goes on
// with it. Nothing else is done meanwhile. Errors are *Fault, or the context's; then the
// present file is still in its place.
func (s *Store) Exchange(ctx context.Context, from string, now time.Time) error {
	if err := Check(ctx, from); err != nil {
		return err
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if err := s.disconnect(); err != nil {
		return faulty(s.path, err)
	}
	s.free()
	s.free = nil
	free, err := lockAlone(s.path)
	if err == nil {
		_, err = swapIn(ctx, from, s.path, now, false)
		free()
	}
	again := context.WithoutCancel(ctx) // whatever came of it, the file is opened again
	var lockErr error
	if s.free, lockErr = lockTogether(s.path); lockErr != nil {
		return errors.Join(err, lockErr)
	}
	about, lookErr := Look(again, s.path)
	return errors.Join(err, lookErr, faulty(s.path, s.open(again, about, nil)))
}

// Close closes all connections.
func (s *Store) Close() error {
	s.mu.Lock()
	defer s.mu.Unlock()
	err := s.disconnect()
	if s.free != nil {
		s.free()
		s.free = nil
	}
	return err
}

func (s *Store) disconnect() error {
	var errs []error
	for _, g := range []*gorm.DB{s.read, s.write} {
		if g == nil {
			continue
		}
		db, err := g.DB()
		if err == nil {
			err = db.Close()
		}
		errs = append(errs, err)
	}
	s.read, s.write = nil, nil
	return errors.Join(errs...)
}

// Tx is a transaction, or plain reading.
type Tx struct{ db *gorm.DB }

// Read runs f without a transaction on a reader.
func (s *Store) Read(ctx context.Context, f func(Tx) error) error {
	s.mu.RLock()
	defer s.mu.RUnlock()
	if s.read == nil {
		return errClosed
	}
	return faulty(s.path, f(Tx{s.read.WithContext(ctx)}))
}

// errClosed is of a store that is closed.
var errClosed = errors.New("store: closed")

// Write runs f in a transaction on the one writer; an error rolls it back.
func (s *Store) Write(ctx context.Context, f func(Tx) error) error {
	s.mu.RLock()
	defer s.mu.RUnlock()
	if s.write == nil {
		return errClosed
	}
	return faulty(s.path, s.write.WithContext(ctx).Transaction(func(db *gorm.DB) error { return f(Tx{db}) }))
}
