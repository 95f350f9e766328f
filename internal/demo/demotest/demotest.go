// Package demotest gives tests a demonstration each, built once for all of them.
package demotest

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"coldember/internal/demo"
	"coldember/internal/store"
)

// file is the database of a demonstration.
var file = sync.OnceValues(func() (raw []byte, err error) {
	dir, err := os.MkdirTemp("", "coldember-demo")
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	data := filepath.Join(dir, "demo.db")
	st, err := store.Open(context.Background(), data, nil)
	if err != nil {
		return nil, err
	}
	if err := errors.Join(demo.Build(context.Background(), st, time.Now()), st.Close()); err != nil {
		return nil, err
	}
	return os.ReadFile(data)
})

// Copy puts the database of a demonstration at a path; one that is there stays as it is.
func Copy(t testing.TB, path string) {
	t.Helper()
	if _, err := os.Stat(path); err == nil {
		return
	}
	raw, err := file()
	if err == nil {
		err = os.WriteFile(path, raw, 0o600)
	}
	if err != nil {
		t.Fatal(err)
	}
}
