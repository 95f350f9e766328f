// Package export writes plans and blades in open formats: one file a format.
package export

import (
	"bytes"
	_ "embed"
	"fmt"
	"image/color"
	"strings"
	"time"

	"coldember/internal/text"

	"codeberg.org/go-pdf/fpdf"
)

var (
	//go:embed fonts/source-sans-3-latin-400-normal.ttf
	sansRegular []byte
	//go:embed fonts/source-sans-3-latin-600-normal.ttf
	sansBold []byte
	//go:embed fonts/barlow-condensed-latin-500-normal.ttf
	narrowRegular []byte
	//go:embed fonts/barlow-condensed-latin-700-normal.ttf
	narrowBold []byte
)

// fonts are those of the papers.
var fonts = []struct {
	family, style string
	data          []byte
}{{"sans", "", sansRegular}, {"sans", "B", sansBold}, {"narrow", "", narrowRegular}, {"narrow", "B", narrowBold}}

// CheckFonts reads the fonts of the papers by setting a line of each, and counts them.
func CheckFonts() (int, error) {
	b := newBook("", PaperOf("a4"))
	b.page(1)
	for _, f := range fonts {
		b.pdf.SetFont(f.family, f.style, 10)
		b.pdf.Cell(0, 0, "0 ½ ° ñ")
	}
	_, err := b.bytes()
	return len(fonts), err
}

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
	ink   = color.RGBA{0x20, 0x26, 0x2a, 0xff}
	quiet = color.RGBA{0x5a, 0x62, 0x60, 0xff}
	hair  = color.RGBA{0xb8, 0xb2, 0xa4, 0xff}
	none  = color.RGBA{}
	white = color.RGBA{0xff, 0xff, 0xff, 0xff}

	ember   = color.RGBA{0xc2, 0x3c, 0x14, 0xff}
	zoneInk = map[string]color.RGBA{
		"point": {0xd9, 0xb6, 0x5c, 0xff}, "blade": {0xb9, 0x78, 0x3f, 0xff},
		"ricasso": {0x8c, 0x5b, 0x91, 0xff}, "tang": {0x4d, 0x7f, 0xa9, 0xff},
	}
)

// book is a document being printed, page by page. Its text can be searched, and the same
// pages give the same bytes.
type book struct {
	pdf   *fpdf.Fpdf
	paper Paper
}

func newBook(title string, p Paper) *book {
	pdf := fpdf.NewCustom(&fpdf.InitType{UnitStr: "mm", Size: fpdf.SizeType{Wd: p.WidthMm, Ht: p.HeightMm}})
	pdf.SetAutoPageBreak(false, 0)
	pdf.SetCellMargin(0)
	pdf.SetTitle(title, true)
	pdf.SetCreator("Cold Ember", true)
	pdf.SetCreationDate(time.Unix(0, 0).UTC())
	pdf.SetModificationDate(time.Unix(0, 0).UTC())
	pdf.SetCatalogSort(true)
	pdf.SetLineJoinStyle("round")
	for _, f := range fonts {
		pdf.AddUTF8FontFromBytes(f.family, f.style, f.data)
	}
	return &book{pdf: pdf, paper: p}
}

// bytes is the finished document.
func (b *book) bytes() ([]byte, error) {
	var out bytes.Buffer
	if err := b.pdf.Output(&out); err != nil {
		return nil, fmt.Errorf("export: pdf: %w", err)
	}
	return out.Bytes(), nil
}

// sheet is one page being written from the top down. y grows downward from the
// top edge; scale shrinks the type where a page would overflow.
type sheet struct {
	pdf    *fpdf.Fpdf
	paper  Paper
	margin float64
	y      float64
	scale  float64
}

// page begins the next page.
func (b *book) page(scale float64) *sheet {
	b.pdf.AddPage()
	return &sheet{pdf: b.pdf, paper: b.paper, margin: 11, y: 11, scale: scale}
}

func (s *sheet) width() float64 { return s.paper.WidthMm - 2*s.margin }

// face is type of a size and colour.
type face struct {
	family, style string
	pt            float64
	col           color.RGBA
}

// face is type of pt points; kind is one of "sans", "bold", "narrow", "label".
func (s *sheet) face(kind string, pt float64, col color.RGBA) face {
	f := face{family: "sans", pt: pt * s.scale, col: col}
	switch kind {
	case "bold":
		f.style = "B"
	case "narrow":
		f.family = "narrow"
	case "label":
		f.family, f.style = "narrow", "B"
	}
	return f
}

// mmPerPt is what a point of type measures.
const mmPerPt = 25.4 / 72

// use takes up a face; it returns how far its type reaches up from the line it stands
// on, and how far lines are apart, mm.
func (s *sheet) use(f face) (ascent, leading float64) {
	s.pdf.SetFont(f.family, f.style, f.pt)
	s.pdf.SetTextColor(int(f.col.R), int(f.col.G), int(f.col.B))
	d := s.pdf.GetFontDesc(f.family, f.style)
	em := f.pt * mmPerPt / 1000
	return float64(d.Ascent) * em, float64(d.Ascent-d.Descent) * em
}

// text writes wrapped text with its top at y and returns its height.
func (s *sheet) text(x, y, width float64, f face, words string) float64 {
	words = text.Local(strings.TrimSpace(words))
	if words == "" {
		return 0
	}
	ascent, leading := s.use(f)
	lines := s.pdf.SplitText(words, width)
	for i, l := range lines {
		s.pdf.Text(x, y+ascent+float64(i)*leading, strings.TrimRight(l, " "))
	}
	return (float64(len(lines)) + .08) * leading
}

// label writes one line centred on x with its top at y.
func (s *sheet) label(x, y float64, f face, words string) {
	ascent, _ := s.use(f)
	words = text.Local(words)
	s.pdf.Text(x-s.pdf.GetStringWidth(words)/2, y+ascent, words)
}

func (s *sheet) line(x0, y0, x1, y1, width float64, col color.RGBA, dashes ...float64) {
	s.polyline([][2]float64{{x0, y0}, {x1, y1}}, width, col, false, none, dashes...)
}

// polyline draws points given in sheet coordinates, filled where fill is not
// transparent.
func (s *sheet) polyline(pts [][2]float64, width float64, col color.RGBA, closed bool, fill color.RGBA, dashes ...float64) {
	if len(pts) < 2 {
		return
	}
	s.pdf.SetLineWidth(width)
	s.pdf.SetDrawColor(int(col.R), int(col.G), int(col.B))
	s.pdf.SetDashPattern(dashes, 0)
	style := "D"
	if fill != none {
		s.pdf.SetFillColor(int(fill.R), int(fill.G), int(fill.B))
		style = "FD"
	}
	s.pdf.MoveTo(pts[0][0], pts[0][1])
	for _, p := range pts[1:] {
		s.pdf.LineTo(p[0], p[1])
	}
	if closed {
		s.pdf.ClosePath()
	}
	s.pdf.DrawPath(style)
}

// tint is a zone's colour, light enough to print on.
func tint(zone string) color.RGBA {
	c := zoneInk[zone]
	mix := func(v uint8) uint8 { return uint8((int(v)*45 + 255*55) / 100) }
	return color.RGBA{mix(c.R), mix(c.G), mix(c.B), 0xff}
}
