package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"
	"time"
)

// Backup copies the live database into a new file. It is written beside under a
// temporary name, checked, brought to the disk and only then given its name, so that
// there is never a file of that name that is not whole. Errors are *Fault, or the
// context's; then nothing is left behind.
func (s *Store) Backup(ctx context.Context, file string) error {
	s.mu.RLock()
	defer s.mu.RUnlock()
	from := s.read
	if from == nil { // while it is being opened
		from = s.write
	}
	if from == nil {
		return errClosed
	}
	db, err := from.DB()
	if err != nil {
		return faulty(s.path, err)
	}
	return copyOut(ctx, db, file)
}

// copyOut writes what db holds into a file that is not there yet.
func copyOut(ctx context.Context, db *sql.DB, file string) (err error) {
	if _, err := os.Lstat(file); err == nil {
		return &Fault{Code: Exists, Path: file}
	}
	dir := filepath.Dir(file)
	if info, err := os.Stat(dir); err != nil || !info.IsDir() {
		return &Fault{Code: NoFolder, Path: dir, Err: err}
	}
	part := fmt.Sprintf("%s.%d.part", file, time.Now().UnixNano())
	defer func() { _ = os.Remove(part) }()
	// made by us first, so that it is never anybody else's to read
	f, err := os.OpenFile(part, os.O_CREATE|os.O_EXCL|os.O_RDWR, 0o600)
	if err != nil {
		return faulty(file, err)
	}
	_ = f.Close()
	if _, err := db.ExecContext(ctx, "VACUUM INTO ?", part); err != nil {
		if ctx.Err() != nil {
			return ctx.Err()
		}
		return outOf(file, dir, err)
	}
	if err := Check(ctx, part); err != nil {
		return &Fault{Code: Damaged, Path: part, Err: err}
	}
	if err := toDisk(part); err != nil {
		return faulty(file, err)
	}
	if err := os.Link(part, file); err != nil { // unlike a rename it never takes another's place
		if errors.Is(err, os.ErrExist) {
			return &Fault{Code: Exists, Path: file}
		}
		if err := os.Rename(part, file); err != nil { // a disk without links
			return faulty(file, err)
		}
	}
	return faulty(dir, toDisk(dir))
}

// outOf is what went wrong in writing a copy: SQLite says no more than that it cannot
// write, where the disk is full.
func outOf(file, dir string, err error) error {
	var f *Fault
	if err = faulty(file, err); errors.As(err, &f) && f.Code == Unreadable && full(dir) {
		f.Code = DiskFull
	}
	return err
}

// toDisk brings a file, or the names in a folder, to the disk.
func toDisk(path string) error {
	f, err := os.Open(path)
	if err != nil {
		return err
	}
	defer func() { _ = f.Close() }()
	return f.Sync()
}

// Restored tells what a restore has done.
type Restored struct {
	From About  // what was restored
	Kept string // where the file that was there before is now; "" where there was none
}

// Restore puts a copy in the place of a database that nobody has open: what is in the
// copy is looked at and checked first, the present file is kept beside under a name with
// the time, and the copy takes its place whole. Errors are *Fault; then the present file
// is still in its place.
func Restore(ctx context.Context, from, data string, now time.Time) (out Restored, err error) {
	if out.From, err = Look(ctx, from); err != nil {
		return out, err
	}
	if out.From.Empty {
		return out, &Fault{Code: NotOurs, Path: from, Err: errors.New("nothing is in it")}
	}
	if err := Check(ctx, from); err != nil {
		return out, err
	}
	free, err := lockAlone(data)
	if err != nil {
		return out, err
	}
	defer free()
	if out.Kept, err = swapIn(ctx, from, data, now, true); err != nil {
		return out, err
	}
	return out, nil
}

// swapIn gives data the contents of from; what was there is kept under another name,
// where it is to be.
func swapIn(ctx context.Context, from, data string, now time.Time, keep bool) (kept string, err error) {
	db, err := sql.Open("sqlite", toRead(from))
	if err != nil {
		return "", faulty(from, err)
	}
	defer func() { _ = db.Close() }()
	fresh := fmt.Sprintf("%s.restoring-%d", data, now.UnixNano())
	if err := copyOut(ctx, db, fresh); err != nil {
		return "", err
	}
	defer func() { _ = os.Remove(fresh) }()
	if _, err := os.Lstat(data); err == nil {
		if err := settleWAL(ctx, data); err != nil {
			return "", err
		}
		if keep {
			if kept, err = setAside(data, now); err != nil {
				return "", err
			}
		}
	}
	if err := os.Rename(fresh, data); err != nil {
		return "", faulty(data, err)
	}
	return kept, faulty(data, toDisk(filepath.Dir(data)))
}

// setAside gives the file another name beside its own.
func setAside(data string, now time.Time) (string, error) {
	for n := 0; ; n++ {
		kept := fmt.Sprintf("%s.before-%s", data, now.Add(time.Duration(n)*time.Second).Format("2006-01-02-150405"))
		err := os.Link(data, kept)
		if errors.Is(err, os.ErrExist) {
			continue
		}
		return kept, faulty(kept, err)
	}
}

// settleWAL brings what stands in the write-ahead log into the file itself, so that it
// can be moved alone, and takes the log away. A file that is too damaged for that is
// moved as it is, with its log beside it.
func settleWAL(ctx context.Context, data string) error {
	db, err := sql.Open("sqlite", "file:"+(&url.URL{Path: data}).EscapedPath()+"?_pragma=busy_timeout(2000)")
	if err != nil {
		return faulty(data, err)
	}
	_, err = db.ExecContext(ctx, "PRAGMA wal_checkpoint(TRUNCATE)")
	if closeErr := db.Close(); err == nil {
		err = closeErr
	}
	if err != nil {
		return nil //nolint:nilerr // damaged: that is why it is restored
	}
	for _, suffix := range []string{"-wal", "-shm"} {
		if err := os.Remove(data + suffix); err != nil && !errors.Is(err, os.ErrNotExist) {
			return faulty(data, err)
		}
	}
	return nil
}
