//go:build !unix

package store

// Elsewhere than on unix the file system itself refuses to move what is open.
func lockTogether(string) (free func(), err error) { return func() {}, nil }
func lockAlone(string) (free func(), err error)    { return func() {}, nil }
func full(string) bool                             { return false }
func writable(string) error                        { return nil }
