package work

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"image"
	_ "image/jpeg" // photographs
	_ "image/png"  // and scans
	"math"
	"reflect"
	"strconv"
	"strings"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/internal/store"
)

// Bounds of a picture.
const (
	MaxPictureBytes = 12 << 20
	maxPicturePx    = 40_000_000
)

// Picture lies behind the outline: its top left corner at (xMm, yMm) from the
// point and the spine of the heel, so many millimetres a pixel, turned about
// that corner.
type Picture struct {
	ID            string  `json:"id"`
	WidthPx       int     `json:"widthPx"`
	HeightPx      int     `json:"heightPx"`
	XMm           float64 `json:"xMm"`
	YMm           float64 `json:"yMm"`
	MmPerPx       float64 `json:"mmPerPx"`
	TurnDeg       float64 `json:"turnDeg" doc:"clockwise, as it is seen with the point to the left"`
	StrengthShare float64 `json:"strengthShare" doc:"how strongly it shows, 0–1"`
}

func (p *Picture) validate(c fact.Check) {
	if p == nil {
		return
	}
	w := c.Within("picture")
	w.Range("xMm", p.XMm, -3000, 3000)
	w.Range("yMm", p.YMm, -3000, 3000)
	w.Range("mmPerPx", p.MmPerPx, 1e-4, 100)
	w.Range("turnDeg", p.TurnDeg, -360, 360)
	w.Range("strengthShare", p.StrengthShare, .05, 1)
}

// AddPicture keeps a PNG or JPEG and puts it behind the outline of a piece, as
// wide as the blade and level with its middle, until its scale is set.
func (w *Work) AddPicture(ctx context.Context, id string, version int, data []byte) (Piece, *plan.Plan, error) {
	size, format, err := image.DecodeConfig(bytes.NewReader(data))
	switch {
	case len(data) > MaxPictureBytes || err == nil && size.Width*size.Height > maxPicturePx:
		return Piece{}, nil, fileProblem("file", "picture.tooLarge", nil, "")
	case err != nil || size.Width < 2 || size.Height < 2:
		return Piece{}, nil, fileProblem("file", "picture.notImage", nil, "")
	}
	sum := sha256.Sum256(data)
	key := hex.EncodeToString(sum[:12])
	return w.change(ctx, id, version, func(tx store.Tx, d *Doc) error {
		_, err := store.Find[store.Picture](tx, "id = ?", key)
		if errors.Is(err, store.ErrNotFound) {
			err = store.Insert(tx, &store.Picture{ID: key, Mime: "image/" + format, WidthPx: size.Width, HeightPx: size.Height, Data: data, CreatedAt: w.now()})
		}
		b := d.Request.Design
		scale := b.LengthMm / float64(size.Width)
		d.Picture = &Picture{
			ID: key, WidthPx: size.Width, HeightPx: size.Height, MmPerPx: scale, StrengthShare: .5,
			YMm: (float64(size.Height)*scale - b.HeightMm) / 2,
		}
		return err
	})
}

// PictureData is the bytes of a picture and what they are.
func (w *Work) PictureData(ctx context.Context, id string) (data []byte, mime string, err error) {
	err = w.store.Read(ctx, func(tx store.Tx) error {
		row, err := store.Find[store.Picture](tx, "id = ?", id)
		data, mime = row.Data, row.Mime
		return err
	})
	return data, mime, err
}

// editPicture changes how the picture lies:
//
//	picture.xMm, yMm, turnDeg, strengthShare   as fields
//	picture.scale    "10 20; 410 30; 120mm"    two points of it, px, and their real distance
//	picture.widthMm  "240mm"                   of the whole picture
//	picture.remove   ""
func editPicture(d *Doc, what string, e Edit) *FieldProblem {
	if d.Picture == nil {
		return problemAt(e, "field.unknown", -1)
	}
	switch what {
	case "remove":
		d.Picture = nil
		return nil
	case "scale":
		return d.Picture.scale(e)
	case "widthMm":
		mm, bad := typedFigure(what, e)
		if bad == nil {
			d.Picture.MmPerPx = mm / float64(d.Picture.WidthPx)
		}
		return bad
	}
	v, name, ok := field(reflect.ValueOf(d.Picture).Elem(), what)
	if !ok || !strings.HasSuffix(what, "Mm") && what != "turnDeg" && what != "strengthShare" {
		return problemAt(e, "field.unknown", -1)
	}
	n, bad := typedFigure(name, e)
	if bad == nil {
		v.SetFloat(n)
	}
	return bad
}

// scale makes the distance of two points of the picture what it is in truth; the
// first point stays where it lies.
func (p *Picture) scale(e Edit) *FieldProblem {
	parts := strings.Split(e.Text, ";")
	if len(parts) != 3 {
		return problemAt(e, "picture.points", -1)
	}
	a, okA := pixel(parts[0])
	b, okB := pixel(parts[1])
	px := math.Hypot(b[0]-a[0], b[1]-a[1])
	if !okA || !okB || px < 2 {
		return problemAt(e, "picture.points", -1)
	}
	mm, bad := typedLength(e, parts[2], len(parts[0])+len(parts[1])+2)
	if bad != nil {
		return bad
	}
	if !(mm >= 1 && mm <= 3000) {
		return &FieldProblem{FieldError: fact.FieldError{Field: e.Field, Code: "field.rangeLength", Figures: fact.Figures{"lowest": 1, "highest": 3000}}, Text: e.Text, Offset: -1}
	}
	before := p.at(a)
	p.MmPerPx = mm / px
	after := p.at(a)
	p.XMm += before[0] - after[0]
	p.YMm += before[1] - after[1]
	return nil
}

func pixel(s string) (at [2]float64, ok bool) {
	f := strings.Fields(s)
	if len(f) != 2 {
		return at, false
	}
	for i, t := range f {
		v, err := strconv.ParseFloat(t, 64)
		if err != nil {
			return at, false
		}
		at[i] = v
	}
	return at, true
}

// at is where a pixel of the picture lies, mm from the point and up from the
// spine of the heel.
func (p *Picture) at(px [2]float64) blade.Node {
	s, c := math.Sincos(p.TurnDeg * math.Pi / 180)
	x, y := px[0]*p.MmPerPx, px[1]*p.MmPerPx
	return blade.Node{p.XMm + x*c - y*s, p.YMm - (x*s + y*c)}
}
