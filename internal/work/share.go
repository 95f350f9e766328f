package work

import (
	"archive/zip"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strings"
	"time"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// SharedFormat and SharedVersion name the file that one piece of work goes to another machine as.
const (
	SharedFormat  = "coldember-piece"
	SharedVersion = 1
)

// inShared is the file of the ZIP that is read again; the others are for other readers.
const (
	ending   = ".json"
	inShared = "piece" + ending
)

// Bounds of a shared piece that is read.
const (
	MaxSharedBytes     = 256 << 20
	mostSharedUnpacked = 512 << 20
	mostSharedPictures = 500
	mostSharedPx       = 400_000_000
	mostSharedSteps    = 5000
)

// Shared is a piece of work as it goes from one shop to another: with its pattern, the stock that it
// is taken from, its history, the plans that were taken to the fire and what happened there.
// Documents are as they are stored, each with the version of its form; pictures lie beside as files.
type Shared struct {
	Format  string          `json:"format" enum:"coldember-piece"`
	Version int             `json:"version"`
	MadeAt  time.Time       `json:"madeAt"`
	Piece   ArchivedPiece   `json:"piece"`
	Stock   []ArchivedStock `json:"stock"`
	Pattern json.RawMessage `json:"pattern" doc:"the blade as a pattern of the library"`

	Photographs []string `json:"photographs,omitempty" doc:"pictures, all of which are PNG here, that were JPEG and become it again"`
}

// Share writes a piece of work as a ZIP of open files: piece.json, the schema that describes it, its
// plan as it is now (plan.json, which is made anew where it is read), and its pictures.
func (w *Work) Share(ctx context.Context, id string, schema []byte, out io.Writer) error {
	p, err := w.Piece(ctx, id)
	if err != nil {
		return err
	}
	made, err := w.Plan(ctx, p.Doc)
	if err != nil {
		return err
	}
	s, pictures, err := w.shared(ctx, id, &p)
	if err != nil {
		return err
	}
	if pictures, err = s.asPNG(ctx, pictures); err != nil {
		return err
	}
	if err := s.fits(pictures); err != nil {
		return err
	}
	var b bytes.Buffer
	if err := s.write(&b, schema, made, pictures); err != nil {
		return err
	}
	if b.Len() > MaxSharedBytes {
		return tooMuch
	}
	_, err = out.Write(b.Bytes())
	return err
}

// tooMuch is what could be written and not read again.
var tooMuch = edit.One("file", "share.tooMuch", fact.Figures{"pictures": mostSharedPictures, "mb": MaxSharedBytes >> 20}, "")

// fits refuses what is beyond the bounds of what is read, before any of it is written.
func (s *Shared) fits(pictures []store.Picture) error {
	size, px := 0, 0
	for _, p := range pictures {
		size, px = size+len(p.Data), px+p.WidthPx*p.HeightPx
	}
	if len(pictures) > mostSharedPictures || px > mostSharedPx || size > MaxSharedBytes || s.states() > mostSharedSteps {
		return tooMuch
	}
	return nil
}

// states are all the states of the piece that the file holds.
func (s *Shared) states() int { return len(s.Piece.Steps) + len(s.Piece.Named) + len(s.Piece.Frozen) }

// shared gathers what belongs to a piece. What is this shop's own alone (where a bar lies, what it
// cost, what it was cut from, what else is laid on it) stays here.
func (w *Work) shared(ctx context.Context, id string, p *Piece) (s Shared, pictures []store.Picture, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		rows, err := tx.WholePiece(id)
		if err != nil {
			return err
		}
		a := archiveOf(rows, w.now())
		s = Shared{Format: SharedFormat, Version: SharedVersion, MadeAt: a.MadeAt, Piece: a.Pieces[0], Stock: a.Stock}
		for i := range s.Stock {
			d, err := doc.Decode[doc.Stock](string(s.Stock[i].Doc))
			if err != nil {
				return err
			}
			d.Place, d.Cost, d.ParentID, d.Layout = "", 0, "", nil
			s.Stock[i].Doc = json.RawMessage(doc.Encode(d))
			s.Stock[i].Made = slices.DeleteFunc(s.Stock[i].Made, func(c ArchivedCut) bool { return c.PieceID != id })
		}
		r := p.Doc.Request
		s.Pattern = json.RawMessage(doc.Encode(doc.Pattern{Name: p.Doc.Name, Tags: []string{}, Design: r.Design, Allowances: r.Allowances}))
		text, err := json.Marshal(s)
		if err != nil {
			return err
		}
		for _, found := range pictureIDs(string(text)) {
			row, err := tx.Picture(found)
			if err == nil {
				pictures = append(pictures, row)
			}
		}
		return nil
	})
	return s, pictures, err
}

// pictureID is how a document names a picture: by what it shows.
var pictureID = regexp.MustCompile(`"[0-9a-f]{24}"`)

// pictureIDs are what may be pictures in a text, each once.
func pictureIDs(text string) []string {
	out := pictureID.FindAllString(text, -1)
	slices.Sort(out)
	out = slices.Compact(out)
	for i := range out {
		out[i] = strings.Trim(out[i], `"`)
	}
	return out
}

func (s *Shared) write(out io.Writer, schema []byte, made *plan.Plan, pictures []store.Picture) error {
	z := zip.NewWriter(out)
	text, err := json.MarshalIndent(s, "", " ")
	if err != nil {
		return err
	}
	planned, err := json.MarshalIndent(made, "", " ")
	if err != nil {
		return err
	}
	for name, b := range map[string][]byte{inShared: text, "piece.schema" + ending: schema, "plan" + ending: planned} {
		f, err := z.Create(name)
		if err != nil {
			return err
		}
		if _, err := f.Write(b); err != nil {
			return err
		}
	}
	for _, p := range pictures {
		f, err := z.CreateHeader(&zip.FileHeader{Name: "pictures/" + p.ID + "." + strings.TrimPrefix(p.Mime, "image/"), Method: zip.Store})
		if err != nil {
			return err
		}
		if _, err := f.Write(p.Data); err != nil {
			return err
		}
	}
	return z.Close()
}

// TakeShared takes a piece of work that another shop shared, under ids of its own, so that nothing
// of this shop is touched and the same file can be taken twice. Its steel comes as stock that is off
// the rack: it lies elsewhere. Its pattern comes into the library where there is none like it. What
// happened at the fire can be read, and teaches this shop nothing. Everything in it meets the rules
// of what is typed; otherwise nothing is changed, and the error (*edit.InvalidError) names the
// first thing that is wrong.
func (w *Work) TakeShared(ctx context.Context, data []byte) (Piece, error) {
	if len(data) > MaxSharedBytes {
		return Piece{}, edit.One("file", "share.tooLarge", nil, "")
	}
	s, pictures, err := w.readShared(ctx, data)
	if err != nil {
		return Piece{}, err
	}
	rows, err := (&Archive{Pieces: []ArchivedPiece{s.Piece}, Stock: s.Stock}).rows()
	if err != nil {
		return Piece{}, err
	}
	d, err := doc.Decode[doc.Piece](rows.Pieces[0].Doc)
	if err != nil {
		return Piece{}, err
	}
	d = owned(ctx, d)
	if d.Name, err = w.freePieceName(ctx, d.Name); err != nil {
		return Piece{}, err
	}
	made, err := w.planToSave(ctx, d)
	if err != nil {
		return Piece{}, err
	}
	now := w.now()
	row := &rows.Pieces[0]
	row.Doc, row.Summary, row.ArchivedAt, row.UpdatedAt = doc.Encode(d), encodeSummary(summarise(d, made)), nil, now
	for i := range rows.Edits {
		if rows.Edits[i].Seq == row.Cursor {
			rows.Edits[i].Doc = row.Doc
		}
	}
	for i := range rows.Stock {
		rows.Stock[i].ArchivedAt = &now
	}
	if err := teachesNothing(rows.Sessions); err != nil {
		return Piece{}, err
	}
	pattern, isNew, err := w.sharedPattern(ctx, s.Pattern)
	if err != nil {
		return Piece{}, err
	}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		if err := tx.Fill(rows); err != nil {
			return err
		}
		for _, p := range pictures {
			if err := tx.KeepPicture(p); err != nil {
				return err
			}
		}
		if isNew {
			if err := tx.AddPattern(w.newPattern(pattern.Name), doc.Encode(pattern)); err != nil {
				return err
			}
		}
		return w.snapshot(tx, row.ID, d, made)
	})
	if err != nil {
		return Piece{}, err
	}
	w.tell(Event{"piece", row.ID, row.Version})
	if isNew {
		w.tell(Event{"pattern", "", 1})
	}
	return w.Piece(ctx, row.ID)
}

// teachesNothing marks sessions as those of another shop.
func teachesNothing(rows []store.Session) error {
	for i := range rows {
		d, err := doc.Decode[doc.Session](rows[i].Doc)
		if err != nil {
			return err
		}
		d.Shared = true
		rows[i].Doc = doc.Encode(d)
	}
	return nil
}

// readShared reads the file and gives everything in it ids of its own.
func (w *Work) readShared(ctx context.Context, data []byte) (s Shared, pictures []store.Picture, err error) {
	text, entries, err := readZIP(data, inShared, mostSharedUnpacked)
	if err != nil {
		return s, nil, err
	}
	if len(entries) > mostSharedPictures {
		return s, nil, wrong(fmt.Sprintf("pictures: %d > %d", len(entries), mostSharedPictures), nil)
	}
	if text == nil {
		return s, nil, wrong(inShared, nil)
	}
	return w.sharedIn(ctx, text, entries)
}

// sharedIn reads the text of the file, beside which these pictures lay.
func (w *Work) sharedIn(ctx context.Context, text []byte, entries []zipped) (s Shared, pictures []store.Picture, err error) {
	if err := json.Unmarshal(text, &s); err != nil {
		return s, nil, wrong(inShared, err)
	}
	if s.Format != SharedFormat || s.Version < 1 || s.Version > SharedVersion {
		return s, nil, otherForm(s.Format, s.Version, SharedFormat, SharedVersion)
	}
	if n := s.states(); n > mostSharedSteps || len(s.Stock) > 100 {
		return s, nil, wrong(fmt.Sprintf("%s: %d > %d", inShared, n, mostSharedSteps), nil)
	}
	var swap []string
	afresh := func(id, is string) { swap = append(swap, `"`+id+`"`, `"`+is+`"`) }
	own := []string{s.Piece.ID}
	for _, k := range s.Stock {
		own = append(own, k.ID)
	}
	for _, f := range s.Piece.Sessions {
		own = append(own, f.ID)
	}
	for _, id := range own {
		if !ids.MatchString(id) || len(id) < 6 {
			return s, nil, wrong(fmt.Sprintf("%s, id %q", inShared, id), nil)
		}
		afresh(id, w.newID())
	}
	px := 0
	for _, z := range entries {
		p, err := z.drawn(ctx, slices.Contains(s.Photographs, z.id), w.now())
		if err != nil {
			return s, nil, err
		}
		if px += p.WidthPx * p.HeightPx; px > mostSharedPx {
			return s, nil, wrong("pictures/"+z.id, nil)
		}
		p.ID = shownIn(p.Data)
		afresh(z.id, p.ID)
		pictures = append(pictures, p)
	}
	var out Shared
	if err := json.Unmarshal([]byte(strings.NewReplacer(swap...).Replace(string(text))), &out); err != nil {
		return s, nil, wrong(inShared, err)
	}
	return out, pictures, nil
}

// sharedPattern is the pattern that came, under a free name; isNew is false where the library has
// one with the same blade.
func (w *Work) sharedPattern(ctx context.Context, raw json.RawMessage) (d doc.Pattern, isNew bool, err error) {
	if len(raw) == 0 {
		return d, false, nil
	}
	text, err := looked("pattern", raw, (*doc.Pattern).Validate)
	if err != nil {
		return d, false, err
	}
	if d, err = doc.Decode[doc.Pattern](text); err != nil {
		return d, false, err
	}
	all, _, err := w.Patterns(ctx, false)
	if err != nil {
		return d, false, err
	}
	blade := func(p doc.Pattern) string { return doc.Encode(doc.Pattern{Design: p.Design, Allowances: p.Allowances}) }
	for _, p := range all {
		if blade(p.Doc) == blade(d) {
			return d, false, nil
		}
	}
	d.Name, err = w.freePatternName(ctx, d.Name)
	return d, true, err
}
