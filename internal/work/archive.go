package work

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"

	"coldember/core/fact"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// ArchiveFormat and ArchiveVersion name the archive of a whole shop.
const (
	ArchiveFormat  = "coldember-shop"
	ArchiveVersion = 1
)

// inArchive is the file of a ZIP that has everything but the pictures.
const inArchive = "shop" + ".json"

// Bounds of an archive that is read.
const (
	MaxArchiveBytes = 512 << 20
	mostUnpacked    = 2 << 30
)

// Pack writes the whole shop as a ZIP of open files: shop.json and its pictures.
func (w *Work) Pack(ctx context.Context, out io.Writer) error {
	z := zip.NewWriter(out)
	err := w.store.Read(ctx, func(tx store.Tx) error {
		all, err := tx.Whole()
		if err != nil {
			return err
		}
		f, err := z.Create(inArchive)
		if err != nil {
			return err
		}
		e := json.NewEncoder(f)
		e.SetIndent("", " ")
		if err := e.Encode(archiveOf(all, w.now())); err != nil {
			return err
		}
		for _, id := range all.Pictures {
			p, err := tx.Picture(id)
			if err != nil {
				return err
			}
			f, err := z.CreateHeader(&zip.FileHeader{Name: "pictures/" + id + "." + strings.TrimPrefix(p.Mime, "image/"), Method: zip.Store})
			if err != nil {
				return err
			}
			if _, err := f.Write(p.Data); err != nil {
				return err
			}
		}
		return nil
	})
	return errors.Join(err, z.Close())
}

// Unpack puts a whole shop from an archive in the place of what is here, which is copied
// first. Everything in it meets the rules of what is typed; otherwise nothing is changed
// and the error (*edit.InvalidError) names the first thing that is wrong.
func (w *Work) Unpack(ctx context.Context, data []byte) (kept string, err error) {
	folder, err := os.MkdirTemp(filepath.Dir(w.store.Path()), ".unpacking-*")
	if err != nil {
		return "", store.Faulty(filepath.Dir(w.store.Path()), err)
	}
	defer func() { _ = os.RemoveAll(folder) }()
	file := filepath.Join(folder, "unpacked")
	if err := w.UnpackInto(ctx, file, data); err != nil {
		return "", err
	}
	if kept, err = w.CopyNow(ctx, BeforeRestore); err != nil {
		return "", err
	}
	w.copying.mu.Lock()
	defer w.copying.mu.Unlock()
	if err := w.store.Exchange(ctx, file, w.now()); err != nil {
		return "", err
	}
	w.fires.forget()
	w.tell(Event{"all", "", 0})
	return kept, w.Speak(ctx)
}

// UnpackInto makes a new file of an archive.
func (w *Work) UnpackInto(ctx context.Context, file string, data []byte) error {
	return UnpackInto(ctx, file, data, w.now())
}

// UnpackInto makes a new file of an archive; errors are those of Unpack.
func UnpackInto(ctx context.Context, file string, data []byte, now time.Time) (err error) {
	rows, pictures, err := readArchive(ctx, data, now)
	if err != nil {
		return err
	}
	if _, err := store.Look(ctx, file); err == nil {
		return &Fault{Code: store.Exists, Path: file}
	}
	st, err := store.Open(ctx, file, nil)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, st.Close()) }()
	return st.Write(ctx, func(tx store.Tx) error {
		if err := tx.Fill(rows); err != nil {
			return wrong(inArchive, err)
		}
		for _, p := range pictures {
			if err := tx.KeepPicture(p); err != nil {
				return err
			}
		}
		return nil
	})
}

// wrong says what of an archive cannot be.
func wrong(where string, err error) error {
	var many fact.FieldErrors
	var inv *edit.InvalidError
	var newer *doc.NewerError
	switch {
	case errors.As(err, &many):
		where += ", " + many[0].Field
	case errors.As(err, &newer):
		where += fmt.Sprintf(", docVersion %d > %d", newer.Version, newer.Reads)
	case errors.As(err, &inv):
		where += ", " + inv.Fields[0].Field
	}
	return edit.One("file", "archive.wrong", nil, where)
}

// otherForm says of what form a file is, and which would be read.
func otherForm(format string, version int, wanted string, newest int) error {
	return edit.One("file", "archive.form", fact.Figures{"version": float64(version), "newest": float64(newest)}, fmt.Sprintf("%.40s", format)+" ≠ "+wanted)
}

// ids are what rows are named by.
var ids = regexp.MustCompile(`^[0-9A-Za-z-]{1,64}$`)

// readArchive reads a ZIP into rows, and looks at every document in it.
func readArchive(ctx context.Context, data []byte, now time.Time) (rows store.Whole, pictures []store.Picture, err error) {
	text, entries, err := readZIP(data, inArchive, mostUnpacked)
	if err != nil {
		return rows, nil, err
	}
	var a Archive
	if err := json.Unmarshal(text, &a); err != nil {
		return rows, nil, wrong(inArchive, nil)
	}
	if a.Format != ArchiveFormat || a.Version < 1 || a.Version > ArchiveVersion {
		return rows, nil, otherForm(a.Format, a.Version, ArchiveFormat, ArchiveVersion)
	}
	for _, z := range entries {
		p, err := z.drawn(ctx, false, now)
		if err != nil {
			return rows, nil, err
		}
		pictures = append(pictures, p)
	}
	rows, err = a.rows()
	return rows, pictures, err
}

// zipped is a picture in a ZIP, by its name without the ending.
type zipped struct {
	id   string
	read func() ([]byte, error)
}

// readZIP reads one file of a ZIP and names the pictures beside it, which are to be drawn anew; nothing else of it is opened, and
// nothing of it is ever written to a place that it names. Unpacked, what is read of it may have so many bytes.
func readZIP(data []byte, inside string, most int64) (text []byte, pictures []zipped, err error) {
	z, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, nil, wrong("ZIP", nil)
	}
	left := most
	read := func(f *zip.File) ([]byte, error) {
		r, err := f.Open()
		if err != nil {
			return nil, wrong(f.Name, err)
		}
		defer func() { _ = r.Close() }()
		b, err := io.ReadAll(io.LimitReader(r, left+1))
		if left -= int64(len(b)); err != nil || left < 0 {
			return nil, wrong(f.Name, err)
		}
		return b, nil
	}
	for _, f := range z.File {
		dir, name := path.Split(f.Name)
		switch {
		case f.Name == inside:
			if text, err = read(f); err != nil {
				return nil, nil, err
			}
		case dir == "pictures/" && name != "":
			id := strings.TrimSuffix(name, path.Ext(name))
			if !ids.MatchString(id) {
				return nil, nil, wrong(f.Name, nil)
			}
			pictures = append(pictures, zipped{id, func() ([]byte, error) { return read(f) }})
		}
	}
	return text, pictures, nil
}

// drawn is the picture, drawn anew and named as it is named there; a photograph is kept as one.
func (z zipped) drawn(ctx context.Context, photograph bool, now time.Time) (p store.Picture, err error) {
	if err := ctx.Err(); err != nil {
		return p, err
	}
	raw, err := z.read()
	if err != nil {
		return p, err
	}
	if err := openable(raw); err != nil {
		return p, wrong("pictures/"+z.id, nil)
	}
	clean, format, size, err := redrawn(raw, photograph)
	if err != nil {
		return p, wrong("pictures/"+z.id, err)
	}
	return store.Picture{ID: z.id, Mime: "image/" + format, WidthPx: size.X, HeightPx: size.Y, Data: clean, CreatedAt: now}, nil
}

// looked decodes a document, looks it over and writes it in the present form.
func looked[T doc.Document](where string, raw json.RawMessage, check func(*T) error) (string, error) {
	d, err := doc.Decode[T](string(raw))
	if err == nil && check != nil {
		err = check(&d)
	}
	if err != nil {
		return "", wrong(where, err)
	}
	return doc.Encode(d), nil
}

func checkPiece(p *doc.Piece) error { return errors.Join(p.Validate(), p.Request.Validate()) }

// rows are the rows of an archive, every document of them looked at.
func (a *Archive) rows() (out store.Whole, err error) {
	seen := map[string]bool{}
	named := func(kind, id string) error {
		if !ids.MatchString(id) || seen[kind+id] {
			return wrong(fmt.Sprintf("%s, id %q", kind, id), nil)
		}
		seen[kind+id] = true
		return nil
	}
	if s := a.Shop; s != nil {
		text, err := looked("shop", s.Doc, (*doc.Shop).Validate)
		if err != nil {
			return out, err
		}
		out.Shop = []store.Shop{{ID: 1, Doc: text, Version: s.Version, UpdatedAt: s.UpdatedAt}}
	}
	for _, p := range a.Patterns {
		if err := named("patterns", p.ID); err != nil {
			return out, err
		}
		heads := 0
		for _, r := range p.Revisions {
			text, err := looked("patterns "+p.Name, r.Doc, (*doc.Pattern).Validate)
			if err != nil {
				return out, err
			}
			if r.N == p.Head {
				heads++
			}
			out.Revisions = append(out.Revisions, store.PatternRevision{PatternID: p.ID, N: r.N, Doc: text, CreatedAt: r.CreatedAt})
		}
		if heads != 1 {
			return out, wrong("patterns "+p.Name+", head", nil)
		}
		out.Patterns = append(out.Patterns, store.Pattern{ID: p.ID, Name: p.Name, Head: p.Head, Version: max(1, p.Version), ArchivedAt: p.ArchivedAt, CreatedAt: p.CreatedAt, UpdatedAt: p.UpdatedAt})
	}
	for _, s := range a.Stock {
		if err := named("stock", s.ID); err != nil {
			return out, err
		}
		text, err := looked("stock "+s.ID, s.Doc, (*doc.Stock).Validate)
		if err != nil {
			return out, err
		}
		out.Stock = append(out.Stock, store.StockItem{ID: s.ID, Doc: text, Version: max(1, s.Version), ArchivedAt: s.ArchivedAt, CreatedAt: s.CreatedAt, UpdatedAt: s.UpdatedAt})
		for _, m := range s.Made {
			out.Made = append(out.Made, store.CutMade{StockID: s.ID, PieceID: m.PieceID, Name: m.Name, LengthMm: m.LengthMm, At: m.At})
		}
	}
	for i := range a.Pieces {
		if err := named("pieces", a.Pieces[i].ID); err != nil {
			return out, err
		}
		if err := a.Pieces[i].rows(&out, seen); err != nil {
			return out, err
		}
	}
	if err := a.practiceRows(&out, named); err != nil {
		return out, err
	}
	return out, a.timerRows(&out, named, seen)
}

// practiceRows adds what was practised, every document of it looked at.
func (a *Archive) practiceRows(out *store.Whole, named func(kind, id string) error) error {
	for _, p := range a.Practised {
		if err := named("practised", p.ID); err != nil {
			return err
		}
		text, err := looked("practised "+p.ID, p.Doc, (*doc.Practised).Validate)
		if err != nil {
			return err
		}
		d, err := doc.Decode[doc.Practised](text)
		if err != nil {
			return wrong("practised "+p.ID, err)
		}
		out.Practised = append(out.Practised, store.Practised{ID: p.ID, Who: d.Who, Exercise: d.Exercise, Doc: text, CreatedAt: p.CreatedAt, RemovedAt: p.RemovedAt})
	}
	return nil
}

// timerRows adds what is waited for.
func (a *Archive) timerRows(out *store.Whole, named func(kind, id string) error, seen map[string]bool) error {
	for _, t := range a.Timers {
		if err := named("timers", t.ID); err != nil {
			return err
		}
		known := slices.Contains(TimerKinds(), TimerKind(t.Kind)) && t.Label != "" && len(t.Label) <= doc.MostText && t.Seconds >= 1 && t.Seconds <= longestTimerS
		if !known || t.PieceID != nil && !seen["pieces"+*t.PieceID] {
			return wrong(fmt.Sprintf("timers, id %q", t.ID), nil)
		}
		out.Timers = append(out.Timers, store.Timer{ID: t.ID, PieceID: t.PieceID, Kind: t.Kind, Label: t.Label, Seconds: t.Seconds, StartedAt: t.StartedAt})
	}
	return nil
}

// rows adds the rows of a piece; seen are the ids of the rack.
func (p *ArchivedPiece) rows(out *store.Whole, seen map[string]bool) error {
	where := "pieces " + p.ID
	text, err := looked(where, p.Doc, checkPiece)
	if err != nil {
		return err
	}
	var sum doc.Summary
	if err := json.Unmarshal(p.Summary, &sum); err != nil {
		return wrong(where, err)
	}
	out.Pieces = append(out.Pieces, store.Piece{
		ID: p.ID, Doc: text, Summary: encodeSummary(sum), Version: max(1, p.Version), Cursor: p.Cursor, ArchivedAt: p.ArchivedAt, CreatedAt: p.CreatedAt, UpdatedAt: p.UpdatedAt,
	})
	shown := false
	for _, s := range p.Steps {
		text, err := looked(where, s.Doc, checkPiece)
		if err != nil {
			return err
		}
		shown = shown || s.N == p.Cursor
		out.Edits = append(out.Edits, store.PieceEdit{PieceID: p.ID, Seq: s.N, Doc: text, Label: s.Label, CreatedAt: s.CreatedAt})
	}
	if !shown {
		return wrong(where+", cursor", nil)
	}
	for _, s := range p.Named {
		text, err := looked(where, s.Doc, checkPiece)
		if err != nil {
			return err
		}
		out.Named = append(out.Named, store.PieceRevision{PieceID: p.ID, N: s.N, Label: s.Label, Doc: text, CreatedAt: s.CreatedAt})
	}
	for _, c := range p.Cuts {
		okState := c.State == CutProposed || c.State == CutBooked || c.State == CutMadeNow
		if !okState || !(c.LengthMm >= 0 && c.LengthMm <= 20000 && c.KerfMm >= 0 && c.KerfMm <= 50) || c.StockID != nil && !seen["stock"+*c.StockID] {
			return wrong(fmt.Sprintf("%s, role %q", where, c.Role), nil)
		}
		out.Cuts = append(out.Cuts, store.Cut{ID: p.ID + "-" + c.Role, PieceID: p.ID, StockID: c.StockID, LengthMm: c.LengthMm, KerfMm: c.KerfMm, Role: c.Role, State: c.State, CreatedAt: c.CreatedAt, UpdatedAt: c.UpdatedAt})
	}
	return p.fireRows(out, seen)
}
