package store

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAFolderIsKept to its user where nothing of others is in it, whoever made it.
func TestAFolderIsKept(t *testing.T) {
	for _, c := range []struct {
		name   string
		mode   os.FileMode
		files  []string
		shared bool
		after  os.FileMode
	}{
		{"new and empty", 0o755, nil, false, 0o700},
		{"ours alone", 0o777, []string{"shop.db", "shop.db-wal", "shop.db-shm", "shop.db.lock", "shop.start", "shop-copies"}, false, 0o700},
		{"a home", 0o755, []string{"shop.db", "letters.txt"}, true, 0o755},
		{"a name that only begins alike", 0o755, []string{"shop.db", "shopping.txt"}, true, 0o755},
		{"closed already", 0o700, []string{"shop.db", "letters.txt"}, false, 0o700},
	} {
		t.Run(c.name, func(t *testing.T) {
			dir := filepath.Join(t.TempDir(), "data")
			require.NoError(t, os.Mkdir(dir, 0o700))
			for _, f := range c.files {
				require.NoError(t, os.WriteFile(filepath.Join(dir, f), nil, 0o600))
			}
			require.NoError(t, os.Chmod(dir, c.mode))
			shared, err := KeepFolder(filepath.Join(dir, "shop.db"))
			require.NoError(t, err)
			assert.Equal(t, c.shared, shared)
			info, err := os.Stat(dir)
			require.NoError(t, err)
			assert.Equal(t, c.after, info.Mode().Perm())
		})
	}
	_, err := KeepFolder(filepath.Join(t.TempDir(), "none", "shop.db"))
	var f *Fault
	require.ErrorAs(t, err, &f)
	assert.Equal(t, Missing, f.Code)
}
