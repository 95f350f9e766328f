package work

import (
	"bytes"
	"context"
	"encoding/json"
	"image"
	"image/jpeg"
	"image/png"
	"math"
	"runtime"
	"slices"

	"coldember/internal/store"

	"golang.org/x/image/draw"
	"golang.org/x/sync/errgroup"
)

// mostPhotoPx is how many dots the photographs of a log have together in a shared file: PNG keeps every one of them, some three
// bytes each. Beyond, all of them are drawn smaller alike, so that a long log still goes in one file.
const mostPhotoPx = 80_000_000

// asPNG makes PNG of photographs, which a shop keeps as JPEG, and names them, so that who takes them keeps them so again. What
// lies behind an outline keeps its size: its scale goes by it. The error is the context's, or that of a picture that is none.
func (s *Shared) asPNG(ctx context.Context, pictures []store.Picture) ([]store.Picture, error) {
	rest := s.Piece
	rest.Sessions = nil
	text, err := json.Marshal(rest)
	if err != nil {
		return nil, err
	}
	behind := pictureIDs(string(text))
	logged := 0
	for _, p := range pictures {
		if p.Mime == "image/jpeg" {
			s.Photographs = append(s.Photographs, p.ID)
			if !slices.Contains(behind, p.ID) {
				logged += p.WidthPx * p.HeightPx
			}
		}
	}
	scale := 1.0
	if logged > mostPhotoPx {
		scale = math.Sqrt(mostPhotoPx / float64(logged))
	}
	out := slices.Clone(pictures)
	all, ctx := errgroup.WithContext(ctx)
	all.SetLimit(runtime.GOMAXPROCS(0))
	for i := range out {
		if p := &out[i]; p.Mime == "image/jpeg" {
			k := scale
			if slices.Contains(behind, p.ID) {
				k = 1
			}
			all.Go(func() error { return photoAsPNG(ctx, p, k) })
		}
	}
	return out, all.Wait()
}

// photoAsPNG draws a photograph as PNG, so much smaller.
func photoAsPNG(ctx context.Context, p *store.Picture, scale float64) error {
	if err := ctx.Err(); err != nil {
		return err
	}
	img, err := jpeg.Decode(bytes.NewReader(p.Data))
	if err != nil {
		return err
	}
	b := img.Bounds()
	side := func(px int) int { return max(2, int(float64(px)*scale)) }
	dots := image.NewRGBA(image.Rect(0, 0, side(b.Dx()), side(b.Dy()))) // eight bits a colour: the encoder takes sixteen for what is none
	if dots.Rect.Size() == b.Size() {
		draw.Draw(dots, dots.Rect, img, b.Min, draw.Src)
	} else {
		draw.CatmullRom.Scale(dots, dots.Rect, img, b, draw.Src, nil)
	}
	var w bytes.Buffer
	if err := png.Encode(&w, dots); err != nil {
		return err
	}
	p.Mime, p.Data, p.WidthPx, p.HeightPx = "image/png", w.Bytes(), dots.Rect.Dx(), dots.Rect.Dy()
	return nil
}
