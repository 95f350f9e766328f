//go:build unix

package store

import (
	"errors"
	"os"
	"syscall"
)

// lock notes beside a database that somebody has it open: any number of programs
// together, or one alone that is to move it. The note goes with the program, however it
// ends.
func lock(data string, how int) (free func(), err error) {
	f, err := os.OpenFile(data+".lock", os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, faulty(data, err)
	}
	if err := syscall.Flock(int(f.Fd()), how|syscall.LOCK_NB); err != nil {
		_ = f.Close()
		if errors.Is(err, syscall.EWOULDBLOCK) {
			return nil, &Fault{Code: InUse, Path: data, Err: err}
		}
		return nil, faulty(data, err)
	}
	return func() { _ = f.Close() }, nil
}

func lockTogether(data string) (free func(), err error) { return lock(data, syscall.LOCK_SH) }
func lockAlone(data string) (free func(), err error)    { return lock(data, syscall.LOCK_EX) }

// writable is nil where files can be made in a folder and the one there written.
func writable(path string) error {
	const write = 2
	return syscall.Access(path, write)
}

// full tells whether a disk has next to nothing left.
func full(dir string) bool {
	var st syscall.Statfs_t
	return syscall.Statfs(dir, &st) == nil && st.Bavail*uint64(st.Bsize) < 1<<20
}
