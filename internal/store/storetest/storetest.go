// Package storetest has a database as the first version of the program wrote it.
package storetest

import (
	"database/sql"
	_ "embed"
	"os"
	"path/filepath"

	"github.com/stretchr/testify/require"
	_ "modernc.org/sqlite" // the driver
)

//go:embed first.sql
var first string

// T is what is needed of a test.
type T interface {
	require.TestingT
	TempDir() string
	Helper()
}

// First is the bytes of a database of the first version.
func First(t T) []byte {
	t.Helper()
	file := filepath.Join(t.TempDir(), "first.db")
	db, err := sql.Open("sqlite", file)
	require.NoError(t, err)
	_, err = db.Exec(first) //nolint:noctx // as much as it is
	require.NoError(t, err)
	require.NoError(t, db.Close())
	raw, err := os.ReadFile(file)
	require.NoError(t, err)
	return raw
}
