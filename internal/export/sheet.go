// Package export writes plans and blades in open formats: one file a format.
package export

import (
	"bytes"
	_ "embed"
	"fmt"
	"image/color"
	"strings"
	"sync"

	"github.com/tdewolff/canvas"
	"github.com/tdewolff/canvas/renderers/pdf"
)

var (
	//go:embed fonts/source-sans-3-latin-400-normal.woff2
	sansRegular []byte
	//go:embed fonts/source-sans-3-latin-600-normal.woff2
	sansBold []byte
	//go:embed fonts/barlow-condensed-latin-500-normal.woff2
	narrowRegular []byte
	//go:embed fonts/barlow-condensed-latin-700-normal.woff2
	narrowBold []byte
)

// typefaces are loaded once; loading is the slow part.
var typefaces = sync.OnceValues(func() (f struct{ sans, narrow *canvas.FontFamily }, err error) {
	f.sans, f.narrow = canvas.NewFontFamily("sans"), canvas.NewFontFamily("narrow")
	for _, l := range []struct {
		to    *canvas.FontFamily
		data  []byte
		style canvas.FontStyle
	}{
		{f.sans, sansRegular, canvas.FontRegular},
		{f.sans, sansBold, canvas.FontBold},
		{f.narrow, narrowRegular, canvas.FontRegular},
		{f.narrow, narrowBold, canvas.FontBold},
	} {
		if err := l.to.LoadFont(l.data, 0, l.style); err != nil {
			return f, fmt.Errorf("export: fonts: %w", err)
		}
	}
	return f, nil
})

// Paper is a size of sheet, mm.
type Paper struct{ WidthMm, HeightMm float64 }

// PaperOf names the usual sizes; anything else is A4.
func PaperOf(name string) Paper {
	if name == "letter" {
		return Paper{215.9, 279.4}
	}
	return Paper{210, 297}
}

// Inks of the printed sheets: they must survive a copier.
var (
	ink        = color.RGBA{0x20, 0x26, 0x2a, 0xff}
	quiet      = color.RGBA{0x5a, 0x62, 0x60, 0xff}
	hair       = color.RGBA{0xb8, 0xb2, 0xa4, 0xff}
	canvasNone = color.RGBA{}

	ember   = color.RGBA{0xc2, 0x3c, 0x14, 0xff}
	zoneInk = map[string]color.RGBA{
		"point": {0xd9, 0xb6, 0x5c, 0xff}, "blade": {0xb9, 0x78, 0x3f, 0xff},
		"ricasso": {0x8c, 0x5b, 0x91, 0xff}, "tang": {0x4d, 0x7f, 0xa9, 0xff},
	}
)

// sheet is one page being written from the top down. y grows downward from the
// top edge; scale shrinks the type where a page would overflow.
type sheet struct {
	c      *canvas.Context
	paper  Paper
	margin float64
	y      float64
	scale  float64
}

func newSheet(p Paper, scale float64) (*canvas.Canvas, *sheet) {
	c := canvas.New(p.WidthMm, p.HeightMm)
	return c, &sheet{c: canvas.NewContext(c), paper: p, margin: 11, y: 11, scale: scale}
}

func (s *sheet) width() float64 { return s.paper.WidthMm - 2*s.margin }

// face is type of pt points; kind is one of "sans", "bold", "narrow", "label".
func (s *sheet) face(kind string, pt float64, col color.RGBA) *canvas.FontFace {
	f, err := typefaces()
	if err != nil {
		panic(err) // the caller checked typefaces before the first sheet
	}
	pt *= s.scale
	switch kind {
	case "bold":
		return f.sans.Face(pt, col, canvas.FontBold)
	case "narrow":
		return f.narrow.Face(pt, col, canvas.FontRegular)
	case "label":
		return f.narrow.Face(pt, col, canvas.FontBold)
	default:
		return f.sans.Face(pt, col, canvas.FontRegular)
	}
}

// text writes wrapped text with its top at y and returns its height.
func (s *sheet) text(x, y, width float64, f *canvas.FontFace, words string) float64 {
	words = strings.TrimSpace(words)
	if words == "" {
		return 0
	}
	t := canvas.NewTextBox(f, words, width, 0, canvas.Left, canvas.Top, nil)
	s.c.DrawText(x, s.paper.HeightMm-y, t)
	return t.Bounds().H() + f.LineHeight()*0.08
}

// label writes one line centred on x with its top at y.
func (s *sheet) label(x, y float64, f *canvas.FontFace, words string) {
	s.c.DrawText(x, s.paper.HeightMm-y-f.Metrics().Ascent, canvas.NewTextLine(f, words, canvas.Center))
}

func (s *sheet) line(x0, y0, x1, y1, width float64, col color.RGBA, dashes ...float64) {
	s.polyline([][2]float64{{x0, y0}, {x1, y1}}, width, col, false, color.RGBA{}, dashes...)
}

// polyline draws points given in sheet coordinates, filled where fill is not
// transparent.
func (s *sheet) polyline(pts [][2]float64, width float64, col color.RGBA, closed bool, fill color.RGBA, dashes ...float64) {
	p := &canvas.Path{}
	for i, q := range pts {
		if i == 0 {
			p.MoveTo(q[0], s.paper.HeightMm-q[1])
		} else {
			p.LineTo(q[0], s.paper.HeightMm-q[1])
		}
	}
	if closed {
		p.Close()
	}
	s.c.SetFill(fill)
	s.c.SetStroke(col)
	s.c.SetStrokeWidth(width)
	s.c.SetDashes(0, dashes...)
	s.c.DrawPath(0, 0, p)
	s.c.SetDashes(0)
}

// tint is a zone's colour, light enough to print on.
func tint(zone string) color.RGBA {
	c := zoneInk[zone]
	mix := func(v uint8) uint8 { return uint8((int(v)*45 + 255*55) / 100) }
	return color.RGBA{mix(c.R), mix(c.G), mix(c.B), 0xff}
}

// writePDF writes the pages into one document.
func writePDF(title string, pages ...*canvas.Canvas) ([]byte, error) {
	var b bytes.Buffer
	w := pdf.New(&b, pages[0].W, pages[0].H, &pdf.Options{Compress: true, SubsetFonts: true})
	w.SetInfo(title, "", "", "", "Cold Ember")
	for i, p := range pages {
		if i > 0 {
			w.NewPage(p.W, p.H)
		}
		p.RenderTo(w)
	}
	if err := w.Close(); err != nil {
		return nil, fmt.Errorf("export: pdf: %w", err)
	}
	return b.Bytes(), nil
}
