package store

import (
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
)

// KeepFolder makes the folder that a data file lies in its user's alone (0700). A folder
// that holds things of others too (a home, a disk of photographs) is left as it is: to
// close it would do harm there. What is in the file is kept from others either way (0600);
// all that they see in such a folder is names. Returns whether others can look into it.
func KeepFolder(data string) (shared bool, err error) {
	dir := filepath.Dir(data)
	info, err := os.Stat(dir)
	if err != nil {
		return false, fmt.Errorf("data folder: %w", faulty(dir, err))
	}
	if info.Mode().Perm()&0o077 == 0 {
		return false, nil
	}
	there, err := os.ReadDir(dir)
	if err != nil {
		return false, fmt.Errorf("data folder: %w", faulty(dir, err))
	}
	stem := strings.TrimSuffix(filepath.Base(data), filepath.Ext(data))
	for _, e := range there {
		if !ofData(e, stem) {
			return true, nil
		}
	}
	// a folder of another owner stays as that owner wants it
	return os.Chmod(dir, 0o700) != nil, nil //nolint:gosec // a folder is entered by x
}

// ofData tells whether something in a folder belongs to a data file of that stem.
func ofData(e fs.DirEntry, stem string) bool {
	rest, ok := strings.CutPrefix(e.Name(), stem)
	return ok && (rest == "" || strings.ContainsAny(rest[:1], ".-"))
}
