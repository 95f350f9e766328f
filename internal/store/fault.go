package store

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"syscall"

	"modernc.org/sqlite"
)

// FaultCode names what is wrong with the file that everything is kept in; the
// catalogue has a sentence for each, with what to do.
type FaultCode string

// The faults.
const (
	DiskFull   FaultCode = "fault.diskFull"
	ReadOnly   FaultCode = "fault.readOnly"
	InUse      FaultCode = "fault.inUse"
	NotAllowed FaultCode = "fault.notAllowed"
	IsFolder   FaultCode = "fault.isFolder"
	NoFolder   FaultCode = "fault.noFolder"
	Missing    FaultCode = "fault.missing"
	Exists     FaultCode = "fault.exists"
	Damaged    FaultCode = "fault.damaged"
	NotOurs    FaultCode = "fault.notOurs"
	NewerFile  FaultCode = "fault.newer"
	Unreadable FaultCode = "fault.unreadable" // the disk itself
)

// FaultCodes lists them.
func FaultCodes() []FaultCode {
	return []FaultCode{DiskFull, ReadOnly, InUse, NotAllowed, IsFolder, NoFolder, Missing, Exists, Damaged, NotOurs, NewerFile, Unreadable}
}

// Fault is a file that cannot be used as it is. Nothing of what was to be done was done.
type Fault struct {
	Code FaultCode
	Path string
	Err  error // what was said of it, or nil
}

func (e *Fault) Error() string {
	if e.Err == nil {
		return fmt.Sprintf("%s: %s", e.Code, e.Path)
	}
	return fmt.Sprintf("%s: %s: %v", e.Code, e.Path, e.Err)
}

// Unwrap is what was said of it.
func (e *Fault) Unwrap() error { return e.Err }

// SQLite's primary result codes, and what they mean for the file.
var faultOf = map[int]FaultCode{
	3: NotAllowed, 5: InUse, 6: InUse, 8: ReadOnly, 10: Unreadable, 11: Damaged, 13: DiskFull, 14: NotAllowed, 26: NotOurs,
}

// faulty tells what is wrong with a file by an error about it; an error that says nothing
// of it, and nil, stay as they are.
func faulty(path string, err error) error {
	var have *Fault
	if err == nil || errors.As(err, &have) {
		return err
	}
	var lite *sqlite.Error
	code := FaultCode("")
	switch {
	case errors.Is(err, syscall.ENOSPC), errors.Is(err, syscall.EDQUOT), errors.Is(err, syscall.EFBIG):
		code = DiskFull
	case errors.Is(err, syscall.EROFS):
		code = ReadOnly
	case errors.Is(err, fs.ErrPermission):
		code = NotAllowed
	case errors.Is(err, syscall.EISDIR):
		code = IsFolder
	case errors.Is(err, syscall.ENOTDIR):
		code = NoFolder
	case errors.Is(err, fs.ErrExist):
		code = Exists
	case errors.Is(err, fs.ErrNotExist):
		code = Missing
	case errors.As(err, &lite):
		code = faultOf[lite.Code()&0xff]
		if code == NotAllowed { // SQLite says no more than that it cannot open it
			if f := why(path); f != nil {
				return f
			}
		}
		// and of a disk that became read-only under it, that a write went wrong
		if code == Unreadable && errors.Is(tryFolder(filepath.Dir(path)), syscall.EROFS) {
			code = ReadOnly
		}
	}
	if code == "" {
		return err
	}
	return &Fault{Code: code, Path: path, Err: err}
}

// why looks for what keeps a file from being opened for writing; nil where nothing does.
func why(path string) error {
	for _, p := range []string{path, filepath.Dir(path)} {
		if err := writable(p); err != nil {
			return faulty(path, err)
		}
	}
	return nil
}

// Faulty tells what is wrong with a file or folder by an error about it.
func Faulty(path string, err error) error { return faulty(path, err) }

// MakeFolder makes a folder that is nobody else's to look into, where it is not there,
// and sees that it can be written to. Errors are *Fault.
func MakeFolder(path string) error {
	if err := os.MkdirAll(path, 0o700); err != nil {
		return faulty(path, err)
	}
	return faulty(path, tryFolder(path))
}

// tryFolder makes a file in a folder and takes it away again: the one sure answer to
// whether it can be written to. A disk that its system took out of use may still say that
// it allows it.
func tryFolder(path string) error {
	f, err := os.CreateTemp(path, ".try-*")
	if err != nil {
		return err
	}
	return errors.Join(f.Close(), os.Remove(f.Name()))
}
