package work

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"sync"
	"time"

	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// Fault is a file or folder that cannot be used as it is.
type Fault = store.Fault

// DiskFull is the one fault that a smith mends by making room.
const DiskFull = store.DiskFull

// CopyWhy tells what a copy of the whole file was made for.
type CopyWhy string

// Why copies are made.
const (
	ByHand        CopyWhy = "byHand"
	Daily         CopyWhy = "daily"
	BeforeUpdate  CopyWhy = "beforeUpdate"
	BeforeRestore CopyWhy = "beforeRestore" // what was there when another was put in its place
)

// Copy is a copy of the whole file.
type Copy struct {
	Name  string
	Why   CopyWhy
	At    time.Time
	About store.About
	Fault *Fault // why it cannot be put back, or nil
}

// Copies are all there are, newest first.
type Copies struct {
	Data   string // the file that is in use
	Folder string
	Keep   int
	Items  []Copy
	Failed *Fault // why the last one that should be made by itself was not
}

// copying is what is known of copies between calls.
type copying struct {
	mu     sync.Mutex // one is made or put back at a time
	failed *Fault
}

// stampForm is of the world's one time: an hour that a clock shows twice a year would
// put copies in the wrong order.
const stampForm = "2006-01-02-150405Z"

// folderBeside is where copies lie unless the smith says otherwise.
func folderBeside(data string) string {
	return strings.TrimSuffix(data, filepath.Ext(data)) + "-copies"
}

// copyName is the name of a copy of data.
func copyName(data string, at time.Time, why CopyWhy) string {
	base := strings.TrimSuffix(filepath.Base(data), filepath.Ext(data))
	return fmt.Sprintf("%s-%s-%s.db", base, at.UTC().Format(stampForm), why)
}

// readCopyName is the reverse of copyName; ok is false for another file.
func readCopyName(data, name string) (at time.Time, why CopyWhy, ok bool) {
	base := strings.TrimSuffix(filepath.Base(data), filepath.Ext(data)) + "-"
	rest, isOurs := strings.CutPrefix(strings.TrimSuffix(name, ".db"), base)
	if !isOurs || !strings.HasSuffix(name, ".db") || len(rest) < len(stampForm)+2 {
		return at, "", false
	}
	at, err := time.Parse(stampForm, rest[:len(stampForm)])
	why = CopyWhy(rest[len(stampForm)+1:])
	return at, why, err == nil && slices.Contains([]CopyWhy{ByHand, Daily, BeforeUpdate, BeforeRestore}, why)
}

// copyTo writes a copy into a folder, which is made where it is not there.
func copyTo(ctx context.Context, s *store.Store, folder string, at time.Time, why CopyWhy) (string, error) {
	if err := store.MakeFolder(folder); err != nil {
		return "", err
	}
	for {
		name := copyName(s.Path(), at, why)
		err := s.Backup(ctx, filepath.Join(folder, name))
		var f *Fault
		if errors.As(err, &f) && f.Code == store.Exists {
			at = at.Add(time.Second) // the second copy of a second
			continue
		}
		return name, err
	}
}

// CopyBeforeUpdate is for store.Open: the file as it was, before a newer program
// changes its form.
func CopyBeforeUpdate(now func() time.Time) func(context.Context, *store.Store) error {
	return func(ctx context.Context, s *store.Store) error {
		_, err := copyTo(ctx, s, folderBeside(s.Path()), now(), BeforeUpdate)
		return err
	}
}

// folder is where copies lie, and how many of those made by themselves stay.
func (w *Work) folder(ctx context.Context) (string, int, error) {
	s, err := w.Shop(ctx)
	if err != nil {
		return "", 0, err
	}
	if s.Doc.Copies.Folder != "" {
		return s.Doc.Copies.Folder, s.Doc.Copies.Keep, nil
	}
	return folderBeside(w.store.Path()), s.Doc.Copies.Keep, nil
}

// Copies lists the copies, and what is in each.
func (w *Work) Copies(ctx context.Context) (out Copies, err error) {
	out.Data = w.store.Path()
	if out.Folder, out.Keep, err = w.folder(ctx); err != nil {
		return out, err
	}
	w.copying.mu.Lock()
	out.Failed = w.copying.failed
	w.copying.mu.Unlock()
	for _, folder := range slices.Compact([]string{out.Folder, folderBeside(out.Data)}) {
		entries, err := os.ReadDir(folder)
		if err != nil && !errors.Is(err, os.ErrNotExist) {
			return out, store.Faulty(folder, err)
		}
		for _, e := range entries {
			at, why, ok := readCopyName(out.Data, e.Name())
			if !ok || slices.ContainsFunc(out.Items, func(c Copy) bool { return c.Name == e.Name() }) {
				continue
			}
			if err := ctx.Err(); err != nil {
				return out, err
			}
			c := Copy{Name: e.Name(), Why: why, At: at}
			if c.About, err = store.Look(ctx, filepath.Join(folder, e.Name())); err != nil && !errors.As(err, &c.Fault) {
				return out, err
			}
			out.Items = append(out.Items, c)
		}
	}
	slices.SortStableFunc(out.Items, func(a, b Copy) int { return b.At.Compare(a.At) })
	return out, nil
}

// CopyNow copies the live file into the folder of copies, and lets go of those beyond
// what is kept.
func (w *Work) CopyNow(ctx context.Context, why CopyWhy) (string, error) {
	w.copying.mu.Lock()
	defer w.copying.mu.Unlock()
	folder, keep, err := w.folder(ctx)
	if err != nil {
		return "", err
	}
	name, err := copyTo(ctx, w.store, folder, w.now(), why)
	if err != nil {
		return "", err
	}
	w.copying.failed = nil
	return name, w.letGo(folder, keep)
}

// letGo removes the oldest of the copies that are made by themselves; those made by
// hand, and before another was put back, stay until the smith removes them.
func (w *Work) letGo(folder string, keep int) error {
	entries, err := os.ReadDir(folder)
	if err != nil {
		return store.Faulty(folder, err)
	}
	var own []string // names sort by time
	for _, e := range entries {
		if _, why, ok := readCopyName(w.store.Path(), e.Name()); ok && (why == Daily || why == BeforeUpdate) {
			own = append(own, e.Name())
		}
	}
	slices.Sort(own)
	for len(own) > keep {
		if err := os.Remove(filepath.Join(folder, own[0])); err != nil && !errors.Is(err, os.ErrNotExist) {
			return store.Faulty(folder, err)
		}
		own = own[1:]
	}
	return nil
}

// CopyDaily makes the copy of the day, where something was saved since the last one and
// none is of today. That it fails is kept, to be shown, and is the error.
func (w *Work) CopyDaily(ctx context.Context) (made bool, err error) {
	all, err := w.Copies(ctx)
	if err != nil {
		return false, w.copyFailed(err)
	}
	live, err := store.Look(ctx, all.Data)
	if err != nil {
		return false, w.copyFailed(err)
	}
	now := w.here()
	today := now.Format(time.DateOnly)
	for _, c := range all.Items {
		if c.Fault != nil {
			continue
		}
		if c.Why == Daily && c.At.In(now.Location()).Format(time.DateOnly) == today || !live.NewestAt.After(c.About.NewestAt) {
			return false, nil
		}
	}
	if _, err := w.CopyNow(ctx, Daily); err != nil {
		return false, w.copyFailed(err)
	}
	return true, nil
}

func (w *Work) copyFailed(err error) error {
	var f *Fault
	if errors.As(err, &f) {
		w.copying.mu.Lock()
		w.copying.failed = f
		w.copying.mu.Unlock()
	}
	return err
}

// PutBack puts a copy in the place of the file that is in use. What was there is copied
// first, and named. Everybody is told to look again.
func (w *Work) PutBack(ctx context.Context, name string) (kept string, err error) {
	all, err := w.Copies(ctx)
	if err != nil {
		return "", err
	}
	at := slices.IndexFunc(all.Items, func(c Copy) bool { return c.Name == name })
	if at < 0 {
		return "", ErrNotFound
	}
	if f := all.Items[at].Fault; f != nil {
		return "", f
	}
	if kept, err = w.CopyNow(ctx, BeforeRestore); err != nil {
		return "", err
	}
	w.copying.mu.Lock()
	defer w.copying.mu.Unlock()
	if err := w.store.Exchange(ctx, all.Items[at].About.Path, w.now()); err != nil {
		return "", err
	}
	w.fires.forget()
	w.tell(Event{"all", "", 0})
	return kept, w.Speak(ctx)
}

// checkFolder tells at the field what is wrong with a folder for copies.
func checkFolder(c doc.CopySettings) error {
	if c.Folder == "" {
		return nil
	}
	if !filepath.IsAbs(c.Folder) {
		return edit.One("copies.folder", "field.folderWhole", nil, c.Folder)
	}
	if err := store.MakeFolder(c.Folder); err != nil {
		var f *Fault
		if errors.As(err, &f) {
			return edit.One("copies.folder", string(f.Code), nil, c.Folder)
		}
		return err
	}
	return nil
}
