package drawing_test

import (
	"errors"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/internal/drawing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func read(t testing.TB, name string) (drawing.Drawing, error) {
	t.Helper()
	raw, err := os.ReadFile(filepath.Join("testdata", name))
	require.NoError(t, err)
	if strings.HasSuffix(name, ".svg") {
		return drawing.ReadSVG(raw)
	}
	return drawing.ReadDXF(raw)
}

func area(p []blade.Node) float64 {
	a := 0.0
	for i := range p {
		q := p[(i+1)%len(p)]
		a += p[i][0]*q[1] - q[0]*p[i][1]
	}
	return math.Abs(a / 2)
}

// quarter is a blade of 120 × 30 whose point is a quarter circle of radius 30.
const quarter = 120*30 - (900 - math.Pi*900/4)

func TestOutlinesAreReadWithTheirCurvesAndUnit(t *testing.T) {
	spline := 30*120.0 - 60*30 + bezierArea()
	for name, want := range map[string]struct{ area, unit float64 }{
		"light-polyline.dxf":      {quarter, 1}, // the arc is a bulge; the small circle is not the blade
		"arc-r12.dxf":             {quarter, 0}, // lines and an arc, joined end to end
		"lines-and-spline.dxf":    {spline, 1},
		"rational-spline.dxf":     {quarter, 1}, // the same quarter circle as a rational spline
		"bulge-second-writer.dxf": {quarter, 1},
		"block-third-writer.dxf":  {quarter, 1}, // a block of lines and a spline near the quarter circle
		"arc-second-writer.svg":   {quarter, 1},
		"curves.svg":              {quarter, 1}, // 13 cm for 130 units
		"polygon.svg":             {120*30 - 20*22/2. - 40*8 + 40*8/2. - 20*8, 0},
	} {
		d, err := read(t, name)
		require.NoError(t, err, name)
		assert.InEpsilon(t, want.area, area(d.Loops[0]), 2e-3, name)
		assert.InDelta(t, want.unit, d.UnitMm, 1e-9, name)
		o, err := blade.TraceLoop(d.Loops[0], 120)
		require.NoError(t, err, name)
		assert.InDelta(t, 120, o.Spine[len(o.Spine)-1][0], 1e-9, name)
		assert.InDelta(t, -30, o.Edge[len(o.Edge)-1][1], .05, name)
	}
}

// bezierArea is the area between y = 0 and the cubic of the spline drawing,
// which has four control points and no inner knots.
func bezierArea() float64 {
	x, y := [4]float64{60, 30, 5, 0}, [4]float64{-30, -30, -20, 0}
	at := func(c [4]float64, t float64) float64 {
		s := 1 - t
		return s*s*s*c[0] + 3*s*s*t*c[1] + 3*s*t*t*c[2] + t*t*t*c[3]
	}
	const n = 20000
	a := 0.0
	for i := range n {
		t0, t1 := float64(i)/n, float64(i+1)/n
		a += (at(x, t0) - at(x, t1)) * -(at(y, t0) + at(y, t1)) / 2
	}
	return a
}

func TestWhatCannotBeReadSaysWhere(t *testing.T) {
	for text, want := range map[string]string{
		"":               "drawing.notDxf",
		"hello\nworld\n": "drawing.notDxf",
		"  0\nEOF\n":     "drawing.noLoop",
		"  0\nSECTION\n  2\nENTITIES\n  0\nLINE\n 10\nxx\n": "drawing.number",
		insertOf("NONE"):   "drawing.blocks",
		insertOf("ITSELF"): "drawing.blocks",
		insertOf("MANY"):   "drawing.tooMany",
		"  0\nSECTION\n  2\nENTITIES\n  0\nSPLINE\n 71\n3\n 10\n0\n 20\n0\n": "drawing.spline",
	} {
		_, err := drawing.ReadDXF([]byte(text))
		assert.Equal(t, want, code(t, err), text)
	}
	for text, want := range map[string]string{
		"":                              "drawing.noLoop",
		"<html/>":                       "drawing.notSvg",
		"<svg><path":                    "drawing.notSvg",
		"<svg><path d='M0 0L5'/></svg>": "drawing.path",
		"<svg><g transform='bend(2)'><path d='M0 0h9v9z'/></g></svg>": "drawing.transform",
		"<svg><defs><path d='M0 0h9v9z'/></defs></svg>":               "drawing.noLoop",
		"<svg><polygon points='0,0 a,b'/></svg>":                      "drawing.number",
		"<svg><path d='M0 0h9v9'/></svg>":                             "drawing.noLoop",
		"<svg>" + strings.Repeat("<g/>", 20001) + "</svg>":            "drawing.tooMany",
	} {
		_, err := drawing.ReadSVG([]byte(text))
		assert.Equal(t, want, code(t, err), text[:min(len(text), 60)])
	}
	_, err := drawing.ReadDXF(make([]byte, drawing.MaxBytes+1))
	assert.Equal(t, "drawing.tooLarge", code(t, err))
}

// TestEntitiesThatSayNothing are read as what they are, or refused at their line.
func TestEntitiesThatSayNothing(t *testing.T) {
	for kind, want := range map[string]string{
		"SPLINE": "drawing.spline", "INSERT": "drawing.blocks", "LINE": "drawing.noLoop",
		"LWPOLYLINE": "drawing.noLoop", "POLYLINE": "drawing.noLoop", "VERTEX": "drawing.noLoop", "SEQEND": "drawing.noLoop", "BLOCK": "drawing.noLoop", "ENDBLK": "drawing.noLoop",
	} {
		_, err := drawing.ReadDXF([]byte("0\nSECTION\n2\nENTITIES\n0\n" + kind + "\n0\nENDSEC\n"))
		assert.Equal(t, want, code(t, err), kind)
		if kind == "SPLINE" || kind == "INSERT" {
			var at *drawing.Error
			require.ErrorAs(t, err, &at)
			assert.Equal(t, 6, at.Line, kind)
		}
	}
}

// insertOf is a drawing of a block that inserts itself, of one that is placed
// too often, and of an insert by name.
func insertOf(name string) string {
	pairs := "0 SECTION 2 BLOCKS 0 BLOCK 2 ITSELF 10 0 20 0 0 INSERT 2 ITSELF 10 1 20 1 0 ENDBLK 0 ENDSEC 0 SECTION 2 ENTITIES 0 INSERT 2 "
	if name == "MANY" {
		pairs = "0 SECTION 2 ENTITIES 0 INSERT 70 900 71 900 2 "
	}
	return strings.ReplaceAll(pairs+name+" 0 ENDSEC", " ", "\n") + "\n"
}

func TestBlocksAreFollowedWhereTheyAreInserted(t *testing.T) {
	// placed at (200, 100), turned by 30° and twice as large, its point in a block
	// of its own
	d, err := read(t, "block.dxf")
	require.NoError(t, err)
	assert.InEpsilon(t, 4*quarter, area(d.Loops[0]), 2e-3)
	far := 0.0
	for _, n := range d.Loops[0] {
		far = math.Max(far, math.Hypot(n[0]-200, n[1]-100))
	}
	assert.InDelta(t, 2*math.Hypot(120, 30), far, 1e-6, "its base point stands where it is placed")
}

func TestTransformsOfAnSvgAreFollowed(t *testing.T) {
	const inner = "<path d='M0 0h120v30H0z'/>"
	for transform, want := range map[string]struct{ area, width float64 }{
		"scale(2)":                    {4 * 3600, 240},
		"translate(50,7) scale(1,-2)": {2 * 3600, 120},
		"rotate(90)":                  {3600, 30},
		"rotate(90, 5, 5)":            {3600, 30},
		"matrix(0 1 -1 0 3 4)":        {3600, 30},
		"skewX(45)":                   {3600, 150},
		"skewY(45),scale(1)":          {3600, 120},
		"translate(3)":                {3600, 120},
	} {
		for _, svg := range []string{
			"<svg><g transform='" + transform + "'>" + inner + "</g></svg>",
			"<svg><g transform='" + transform + "'><rect width='120' height='30'/></g></svg>",
			"<svg><g transform='translate(9 9)'><g transform='" + transform + "'><g>" + inner + "</g></g></g></svg>",
		} {
			d, err := drawing.ReadSVG([]byte(svg))
			require.NoError(t, err, svg)
			assert.InEpsilon(t, want.area, area(d.Loops[0]), 1e-9, svg)
			lo, hi := math.Inf(1), math.Inf(-1)
			for _, n := range d.Loops[0] {
				lo, hi = math.Min(lo, n[0]), math.Max(hi, n[0])
			}
			assert.InDelta(t, want.width, hi-lo, 1e-9, svg)
		}
	}
}

func code(t *testing.T, err error) string {
	t.Helper()
	var de *drawing.Error
	require.True(t, errors.As(err, &de), "%v", err)
	return de.Code
}

func TestLoopsThatAreNoBladeAreRefused(t *testing.T) {
	for want, loop := range map[string][]blade.Node{
		"trace.points": {{0, 0}, {1, 1}},
		"trace.flat":   {{0, 0}, {0, 50}, {0.1, 50}, {0.1, 0}},
	} {
		_, err := blade.TraceLoop(loop, 100)
		var te *blade.TraceError
		require.True(t, errors.As(err, &te))
		assert.Equal(t, want, te.Code)
	}
}

func fuzz(f *testing.F, pattern string, readFile func([]byte) (drawing.Drawing, error)) {
	f.Helper()
	files, err := filepath.Glob("testdata/" + pattern)
	require.NoError(f, err)
	for _, name := range files {
		raw, err := os.ReadFile(name)
		require.NoError(f, err)
		f.Add(raw)
	}
	f.Fuzz(func(t *testing.T, data []byte) {
		d, err := readFile(data)
		if err != nil {
			return
		}
		if len(d.Loops) == 0 {
			t.Fatal("no error and no loop")
		}
		if o, err := blade.TraceLoop(d.Loops[0], 100); err == nil && (len(o.Spine) < 2 || len(o.Edge) < 2) {
			t.Fatal("an outline without curves")
		}
	})
}

func FuzzReadDXF(f *testing.F) { fuzz(f, "*.dxf", drawing.ReadDXF) }

func FuzzReadSVG(f *testing.F) { fuzz(f, "*.svg", drawing.ReadSVG) }

// entities is a DXF of these, given as code and value in turn.
func entities(layers string, groups ...string) []byte {
	return []byte("  0\nSECTION\n  2\nTABLES\n" + layers + "  0\nENDSEC\n  0\nSECTION\n  2\nENTITIES\n" + strings.Join(groups, "\n") + "\n  0\nENDSEC\n  0\nEOF\n")
}

// TestAnArcIsAsLongAsItIs, however often its angles were counted round; an ellipse is read,
// whole or in part; and what is on a layer that is switched off is not there.
func TestAnArcIsAsLongAsItIs(t *testing.T) {
	line := func(x0, y0, x1, y1 string, on string) string {
		return "0\nLINE\n8\n" + on + "\n10\n" + x0 + "\n20\n" + y0 + "\n11\n" + x1 + "\n21\n" + y1
	}
	// a quarter of a circle of 30 from −180° to 270°, which is −180° to −90°, closed by two lines
	for _, angles := range [][2]string{{"180", "270"}, {"-180", "270"}, {"-180", "-90"}, {"540", "-90"}} {
		d, err := drawing.ReadDXF(entities("", "0\nARC\n8\n0\n10\n0\n20\n0\n40\n30\n50\n"+angles[0]+"\n51\n"+angles[1], line("-30", "0", "0", "0", "0"), line("0", "0", "0", "-30", "0")))
		require.NoError(t, err, angles)
		assert.InEpsilon(t, math.Pi*900/4, area(d.Loops[0]), 2e-3, angles)
	}
	d, err := drawing.ReadDXF(entities("", "0\nELLIPSE\n8\n0\n10\n5\n20\n5\n11\n40\n21\n0\n40\n0.5\n41\n0\n42\n6.283185307"))
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi*40*20, area(d.Loops[0]), 2e-3)
	d, err = drawing.ReadDXF(entities("", "0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n0\n21\n40\n40\n0.5\n41\n0\n42\n3.14159265", line("0", "40", "0", "-40", "0")))
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi*40*20/2, area(d.Loops[0]), 2e-3)

	off := "  0\nLAYER\n  2\nHELP\n 70\n0\n 62\n-7\n  0\nLAYER\n  2\nICE\n 70\n1\n 62\n7\n"
	small := []string{line("0", "0", "60", "0", "0"), line("60", "0", "60", "20", "0"), line("60", "20", "0", "0", "0")}
	for _, layer := range []string{"HELP", "ICE"} {
		box := []string{line("0", "0", "500", "0", layer), line("500", "0", "500", "300", layer), line("500", "300", "0", "0", layer)}
		d, err = drawing.ReadDXF(entities(off, append(box, small...)...))
		require.NoError(t, err)
		assert.InDelta(t, 600, area(d.Loops[0]), 1e-6, layer)
	}
}

// TestWhatIsNotSeenIsNotTaken, and what is used is.
func TestWhatIsNotSeenIsNotTaken(t *testing.T) {
	big, small := `<path %s d="M0 0h500v300z"/>`, `<path d="M0 0h60v20z"/>`
	for _, how := range []string{`display="none"`, `style="fill:red; display: none"`, `visibility="hidden"`} {
		d, err := drawing.ReadSVG([]byte("<svg>" + strings.Replace(big, "%s", how, 1) + small + "</svg>"))
		require.NoError(t, err)
		assert.InDelta(t, 600, area(d.Loops[0]), 1e-6, how)
		d, err = drawing.ReadSVG([]byte("<svg><g " + how + ">" + strings.Replace(big, "%s", "", 1) + "</g>" + small + "</svg>"))
		require.NoError(t, err)
		assert.InDelta(t, 600, area(d.Loops[0]), 1e-6, how)
	}
	d, err := drawing.ReadSVG([]byte(`<svg xmlns:xlink="http://www.w3.org/1999/xlink"><defs><g id="b">` + small + `</g></defs><use xlink:href="#b" x="7" transform="scale(2)"/></svg>`))
	require.NoError(t, err)
	assert.InDelta(t, 2400, area(d.Loops[0]), 1e-6)
	d, err = drawing.ReadSVG([]byte(`<svg><ellipse cx="3" cy="4" rx="40" ry="20"/></svg>`))
	require.NoError(t, err)
	assert.InEpsilon(t, math.Pi*800, area(d.Loops[0]), 2e-3)
	_, err = drawing.ReadSVG([]byte(`<svg><g id="a"><use href="#a"/></g></svg>`))
	assert.Equal(t, "drawing.tooMany", code(t, err), "what uses itself ends")
}
