package export_test

import (
	"archive/zip"
	"bytes"
	"encoding/binary"
	"encoding/xml"
	"errors"
	"io"
	"math"
	"os"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/figure"
	"coldember/core/quantity"
	"coldember/internal/export"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func subject(i int) export.Subject {
	return export.Subject{Name: "Knife & <tang>", Tags: []string{"deck"}, Design: blade.Starters()[i].Design, Allowances: blade.ThickAndGrind.Allowances()}
}

func write(t require.TestingT, s export.Subject, f export.Format) []byte {
	out, err := export.Write(s, f, quantity.Metric, "a4")
	require.NoError(t, err)
	return out.Data
}

func subjectOf(id string) export.Subject {
	for i, s := range blade.Starters() {
		if s.ID == id {
			return subject(i)
		}
	}
	panic(id)
}

// area of a closed polygon by the shoelace.
func area(p [][2]float64) float64 {
	a := 0.0
	for i := range p {
		q := p[(i+1)%len(p)]
		a += p[i][0]*q[1] - q[0]*p[i][1]
	}
	return math.Abs(a / 2)
}

// outlineArea of the blade proper, integrated from its curves.
func outlineArea(t require.TestingT, s export.Subject) float64 {
	b, err := blade.New(s.Design.Blade())
	require.NoError(t, err)
	const n = 20000
	a := 0.0
	for i := range n {
		x := b.LengthMm() * (float64(i) + .5) / n
		a += (b.SpineY(x) - b.EdgeY(x)) * b.LengthMm() / n
	}
	return a
}

var number = regexp.MustCompile(`-?\d+\.\d+`)

func TestSVGIsTheOutlineInMillimetres(t *testing.T) {
	for i := range blade.Starters() {
		s := subject(i)
		var doc struct {
			Width string `xml:"width,attr"`
			Title string `xml:"title"`
			Paths []struct {
				ID string `xml:"id,attr"`
				D  string `xml:"d,attr"`
			} `xml:"path"`
		}
		require.NoError(t, xml.Unmarshal(write(t, s, export.FormatSVG), &doc))
		assert.Equal(t, s.Name, doc.Title)
		assert.True(t, strings.HasSuffix(doc.Width, "mm"))
		layers := map[string]bool{}
		for _, p := range doc.Paths {
			layers[p.ID] = true
			if p.ID != export.LayerFinished {
				continue
			}
			n := number.FindAllString(p.D, -1)
			var pts [][2]float64
			for k := 0; k+1 < len(n); k += 2 {
				x, _ := strconv.ParseFloat(n[k], 64)
				y, _ := strconv.ParseFloat(n[k+1], 64)
				pts = append(pts, [2]float64{x, y})
			}
			assert.InEpsilon(t, outlineArea(t, s), area(pts), 1e-3)
		}
		for _, l := range []string{"finished", "forged", "ricasso", "tang", "check-50mm"} {
			assert.True(t, layers[l], l)
		}
	}
}

// TestDXFReadsBack with a reader of pairs, as release 12 is.
func TestDXFReadsBack(t *testing.T) {
	s := subject(0)
	lines := strings.Split(string(write(t, s, export.FormatDXF)), "\r\n")
	polylines := map[string][][2]float64{}
	var layer, entity string
	var x float64
	units, ended := "", false
	for i := 0; i+1 < len(lines); i += 2 {
		code, err := strconv.Atoi(strings.TrimSpace(lines[i]))
		require.NoError(t, err, "line %d", i)
		value := lines[i+1]
		switch {
		case code == 9 && value == "$INSUNITS":
			units = lines[i+3]
		case code == 0:
			entity = value
			ended = value == "EOF"
		case code == 8:
			layer = value
		case code == 10 && entity == "VERTEX":
			x, err = strconv.ParseFloat(value, 64)
			require.NoError(t, err)
		case code == 20 && entity == "VERTEX":
			y, err := strconv.ParseFloat(value, 64)
			require.NoError(t, err)
			polylines[layer] = append(polylines[layer], [2]float64{x, y})
		}
	}
	assert.Equal(t, "4", units, "millimetres")
	assert.True(t, ended)
	require.Len(t, polylines, 4)
	assert.InEpsilon(t, outlineArea(t, s), area(polylines["FINISHED"]), 1e-3)
	assert.Greater(t, area(polylines["FORGED"]), area(polylines["FINISHED"]))
	r := s.Design.Ricasso
	assert.InEpsilon(t, r.LengthMm*r.HeightMm, area(polylines["RICASSO"]), 1e-6)
}

func meshVolume(v [][3]float64, tr [][3]int) float64 {
	return blade.Mesh{Vertices: v, Triangles: tr}.VolumeMm3()
}

func TestSolidsReadBackWithTheirVolume(t *testing.T) {
	for i, st := range blade.Starters() {
		own := st.Design.FlatBend != nil || st.Design.Grind.Groove != nil || len(st.Design.Tang.Holes) > 0 || st.Design.Ricasso.RiseMm > 0
		if i%4 != 0 && !own && os.Getenv("LONG") == "" {
			continue // the readers that are not ours read them all
		}
		s := subject(i)
		fin, fog, _, err := figure.Bodies(s.Design, s.Allowances)
		require.NoError(t, err)
		stl := write(t, s, export.FormatSTL)
		n := int(binary.LittleEndian.Uint32(stl[80:84]))
		require.Len(t, stl, 84+50*n)
		var v [][3]float64
		var tr [][3]int
		for k := range n {
			for c := range 3 {
				var p [3]float64
				for axis := range p {
					p[axis] = float64(math.Float32frombits(binary.LittleEndian.Uint32(stl[84+50*k+12+12*c+4*axis:])))
				}
				v = append(v, p)
			}
			tr = append(tr, [3]int{3 * k, 3*k + 1, 3*k + 2})
		}
		assert.InEpsilon(t, fog.Measure().VolumeMm3, meshVolume(v, tr), 1e-3)

		raw := write(t, s, export.Format3MF)
		z, err := zip.NewReader(bytes.NewReader(raw), int64(len(raw)))
		require.NoError(t, err)
		names := []string{}
		var model struct {
			Unit    string `xml:"unit,attr"`
			Objects []struct {
				Name     string `xml:"name,attr"`
				Vertices []struct {
					X float64 `xml:"x,attr"`
					Y float64 `xml:"y,attr"`
					Z float64 `xml:"z,attr"`
				} `xml:"mesh>vertices>vertex"`
				Triangles []struct {
					A int `xml:"v1,attr"`
					B int `xml:"v2,attr"`
					C int `xml:"v3,attr"`
				} `xml:"mesh>triangles>triangle"`
			} `xml:"resources>object"`
			Items []struct{} `xml:"build>item"`
		}
		for _, f := range z.File {
			names = append(names, f.Name)
			r, err := f.Open()
			require.NoError(t, err)
			text, err := io.ReadAll(r)
			require.NoError(t, err)
			if f.Name == "3D/3dmodel.model" {
				require.NoError(t, xml.Unmarshal(text, &model))
			} else {
				require.NoError(t, xml.Unmarshal(text, new(struct{})))
			}
		}
		assert.ElementsMatch(t, []string{"[Content_Types].xml", "_rels/.rels", "3D/3dmodel.model"}, names)
		assert.Equal(t, "millimeter", model.Unit)
		require.Len(t, model.Objects, 2)
		require.Len(t, model.Items, 2)
		for k, want := range []float64{fin.Measure().VolumeMm3, fog.Measure().VolumeMm3} {
			var v [][3]float64
			var tr [][3]int
			for _, p := range model.Objects[k].Vertices {
				v = append(v, [3]float64{p.X, p.Y, p.Z})
			}
			for _, p := range model.Objects[k].Triangles {
				tr = append(tr, [3]int{p.A, p.B, p.C})
			}
			assert.InEpsilon(t, want, meshVolume(v, tr), 1.1e-3, model.Objects[k].Name)
		}
	}
}

// TestJSONReadsBackIdentically for any design, drawn ones too.
func TestJSONReadsBackIdentically(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := subject(rapid.IntRange(0, len(blade.Starters())-1).Draw(t, "starter"))
		s.Design.LengthMm = rapid.Float64Range(60, 300).Draw(t, "length")
		if rapid.Bool().Draw(t, "drawn") {
			s.Design.AddNode(blade.EdgeSide, s.Design.LengthMm*rapid.Float64Range(.1, .9).Draw(t, "x"))
		}
		if rapid.Bool().Draw(t, "groove") {
			s.Design.Grind.Groove = blade.NewGroove("fuller", s.Design)
			s.Design.Grind.Groove.DepthMm = .2
		}
		if rapid.Bool().Draw(t, "handle") {
			s.Design.SetTang(rapid.SampledFrom(blade.TangKinds()).Draw(t, "tang"))
			s.Design.FitHand(rapid.Float64Range(70, 100).Draw(t, "breadth"), 185)
			s.Design.AddHole()
			s.Design.AddTaperNode(s.Design.LengthMm * rapid.Float64Range(.1, .9).Draw(t, "taper"))
			z := s.Allowances.ByZone()
			s.Allowances.Zones = &z
		}
		raw := write(t, s, export.FormatJSON)
		p, err := export.ReadPattern(raw)
		require.NoError(t, err)
		require.Equal(t, s, export.Subject{Name: p.Name, Tags: p.Tags, Design: p.Design, Allowances: p.Allowances})
		require.Equal(t, string(raw), string(write(t, export.Subject{Name: p.Name, Tags: p.Tags, Design: p.Design, Allowances: p.Allowances}, export.FormatJSON)))
	})
}

func TestStrangePatternsAreRefused(t *testing.T) {
	const head = "{\"format\":\"coldember.pattern\",\n\"version\":1,\n"
	for text, want := range map[string]export.FileError{
		"":                                      {Code: "patternFile.notJson", Line: 1},
		"{\n\"format\": x}":                     {Code: "patternFile.notJson", Line: 2},
		"[]":                                    {Code: "patternFile.kind", Line: 1},
		`{"format":"other"}`:                    {Code: "patternFile.format", Line: 1},
		head[:30] + `"version":9}`:              {Code: "patternFile.version", Line: 1},
		strings.Repeat(" ", 2<<20):              {Code: "patternFile.tooLarge"},
		head + `"nam":"x"}`:                     {Code: "patternFile.unknown", Line: 3, Found: "nam"},
		head + "\"design\":{\n\"lenghtMm\":8}}": {Code: "patternFile.unknown", Line: 4, Found: "lenghtMm"},
		head + "\"design\":{\n\"lengthMm\":\"8\"}}": {Code: "patternFile.kind", Line: 4, Found: "design.lengthMm"},
		head + `"name":"x"} {`:                      {Code: "patternFile.notJson", Line: 3},
	} {
		_, err := export.ReadPattern([]byte(text))
		var got *export.FileError
		require.ErrorAs(t, err, &got, text)
		assert.Equal(t, want.Code, got.Code, text)
		assert.Equal(t, want.Line, got.Line, text)
		if want.Found != "" {
			assert.Equal(t, want.Found, got.Found, text)
		}
	}
}

// TestTheTemplateIsExactlyOneToOne measures the check bar and the tang's end
// back from the file.
func TestTheTemplateIsExactlyOneToOne(t *testing.T) {
	short := subjectOf("rigging") // 195 mm: one sheet
	pdf := write(t, short, export.FormatPDF)
	assert.Len(t, page.FindAll(pdf, -1), 1)
	pts := points(t, pdf)
	has := func(x float64) bool {
		for _, p := range pts {
			if math.Abs(p[0]-x) < .1 {
				return true
			}
		}
		return false
	}
	// the forged point, 1.5 mm before the finished one, lies at the margin
	for what, x := range map[string]float64{"check bar": 11 + 50, "heel": 11 + 1.5 + 86, "end of the tang": 11 + 1.5 + 86 + 14 + 95} {
		assert.True(t, has(x), "%s at %v mm", what, x)
	}
	long := subjectOf("camp")
	long.Design.LengthMm = 420
	assert.Len(t, page.FindAll(write(t, long, export.FormatPDF), -1), 3, "553 mm in tiles of 275 that overlap by 10")
}

func TestWhatCannotBeWritten(t *testing.T) {
	_, err := export.Write(subject(0), "dwg", quantity.Metric, "a4")
	require.ErrorIs(t, err, export.ErrFormat)
	bad := subjectOf("fillet")
	bad.Design.Grind.WheelRadiusMm = 1
	_, err = export.Write(bad, export.FormatSVG, quantity.Metric, "a4")
	var fe fact.FieldErrors
	require.True(t, errors.As(err, &fe))
}

func FuzzReadPattern(f *testing.F) {
	f.Add(write(f, subject(0), export.FormatJSON))
	f.Add([]byte(`{"format":"coldember.pattern","version":1,"design":{"shape":"own","outline":{"spine":[[0,0]],"edge":[]}}}`))
	f.Fuzz(func(_ *testing.T, data []byte) {
		p, err := export.ReadPattern(data)
		if err != nil {
			return
		}
		c := fact.NewCheck()
		p.Design.Validate(c)
		p.Allowances.Validate(c)
		if c.Err() != nil {
			return // never drawn
		}
		for _, format := range export.Formats() {
			_, _ = export.Write(export.Subject{Name: p.Name, Design: p.Design, Allowances: p.Allowances}, format, quantity.Metric, "a4")
		}
	})
}
