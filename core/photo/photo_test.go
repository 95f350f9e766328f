package photo_test

import (
	"context"
	"image"
	"image/color"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/photo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var sheet = photo.Sheet{WideMm: 297 - 2*photo.InsetMm, HighMm: 210 - 2*photo.InsetMm}

// scene is a blank on its sheet, drawn by nothing that reads it: a curve for each edge, a light, a camera.
type scene struct {
	x0, long       float64
	top, bottom    func(x float64) float64
	steel, slope   float64
	glare          [][3]float64 // place and radius
	noise          float64
	pan, tilt, far float64
	rng            *rand.Rand
}

func random(rng *rand.Rand) scene {
	long, high := 120+80*rng.Float64(), 22+16*rng.Float64()
	belly, drop := 3+5*rng.Float64(), 6*rng.Float64()
	s := scene{
		x0: 35, long: long, steel: .12 + .2*rng.Float64(), slope: .5 * rng.Float64(), noise: .02, rng: rng,
		pan: (rng.Float64() - .5) * 24, tilt: (rng.Float64() - .5) * 24, far: 560,
	}
	s.top = func(x float64) float64 { u := x / long; return 85 + drop*(1-u)*(1-u) }
	s.bottom = func(x float64) float64 {
		u := x / long
		return s.top(x) + high*math.Sqrt(math.Min(1, u*6))*.9 + belly*math.Sin(math.Pi*u)*.3
	}
	for range 3 {
		x := long * (.2 + .6*rng.Float64())
		s.glare = append(s.glare, [3]float64{s.x0 + x, s.top(x) + high*(.35+.3*rng.Float64()), 2 + 2*rng.Float64()})
	}
	return s
}

// bright is how bright the sheet is at a place: paper, marks, thin printed lines, steel and glare, under a light that falls
// off to one side.
func (s *scene) bright(x, y float64) float64 {
	light := .95 - s.slope*(x/sheet.WideMm)*.8
	v := .93
	for k, c := range [4][2]float64{{0, 0}, {sheet.WideMm, 0}, {sheet.WideMm, sheet.HighMm}, {0, sheet.HighMm}} {
		d := math.Hypot(x-c[0], y-c[1])
		if d < photo.RingMm/2 && d > photo.WhiteMm/2 || k == 0 && d < photo.DotMm/2 {
			v = .06
		}
	}
	if math.Abs(y-150) < .15 || math.Abs(x-60) < .12 && y > 130 && y < 170 {
		v = .1
	}
	if u := x - s.x0; u > 0 && u < s.long && y > s.top(u) && y < s.bottom(u) {
		v = s.steel
		for _, g := range s.glare {
			if math.Hypot(x-g[0], y-g[1]) < g[2] {
				v = .98
			}
		}
	}
	if x < -photo.InsetMm || y < -photo.InsetMm || x > sheet.WideMm+photo.InsetMm || y > sheet.HighMm+photo.InsetMm {
		v = .35 // the bench
	}
	return v * light
}

// shot is the picture that a camera takes of it: each pixel sent back onto the sheet.
func (s *scene) shot(w, h int) image.Image {
	img := image.NewGray(image.Rect(0, 0, w, h))
	f := float64(w) * 1.25 * s.far / 560
	sp, cp := math.Sincos(s.pan * math.Pi / 180)
	st, ct := math.Sincos(s.tilt * math.Pi / 180)
	for j := range h {
		for i := range w {
			sum := 0.0
			for k := range 4 {
				dx, dy := (float64(i)+.25+.5*float64(k%2)-float64(w)/2)/f, (float64(j)+.25+.5*float64(k/2)-float64(h)/2)/f
				// the ray turned by tilt, then pan; the camera stands over the middle, turned to it
				rx, ry, rz := dx, dy*ct-st, dy*st+ct
				rx, rz = rx*cp+rz*sp, -rx*sp+rz*cp
				ox, oy, oz := -s.far*sp*ct, s.far*st, -s.far*cp*ct
				t := -oz / rz
				sum += s.bright(ox+t*rx+sheet.WideMm/2, oy+t*ry+sheet.HighMm/2) / 4
			}
			sum += s.noise * s.rng.NormFloat64()
			img.SetGray(i, j, color.Gray{Y: uint8(math.Max(0, math.Min(255, sum*255)))})
		}
	}
	return img
}

// TestHeightsAreRead within half a millimetre from tilted photographs in uneven light with glare: where it says that it sees.
func TestHeightsAreRead(t *testing.T) {
	rng := rand.New(rand.NewPCG(11, 12))
	all, good, wild, read := 0, 0, 0, 0
	const pictures = 6
	for range pictures {
		s := random(rng)
		o, err := photo.Read(context.Background(), s.shot(1800, 1350), sheet)
		if err != nil {
			t.Log(err, s.pan, s.tilt, s.slope)
			continue
		}
		read++
		assert.InDelta(t, s.long, o.LengthMm, 1.5)
		for _, a := range o.Along {
			if !a.Seen || a.XMm < 8 || a.XMm > s.long-2 {
				continue
			}
			all++
			off := math.Abs(a.HeightMm() - (s.bottom(a.XMm) - s.top(a.XMm)))
			if off <= .5 {
				good++
			}
			if off > 1.5 {
				wild++
			}
		}
	}
	require.GreaterOrEqual(t, read, pictures-1)
	assert.Greater(t, float64(good)/float64(all), .95)
	assert.Less(t, float64(wild)/float64(all), .005, "never a wrong figure unmarked")
}

// TestWhatCannotBeSeenIsSaid: no marks, no first mark, no blank, one that hangs over, an edge that glare hides.
func TestWhatCannotBeSeenIsSaid(t *testing.T) {
	code := func(img image.Image) string {
		_, err := photo.Read(context.Background(), img, sheet)
		var e *photo.Error
		require.ErrorAs(t, err, &e)
		return e.Code
	}
	assert.Equal(t, "photo.noMarks", code(image.NewGray(image.Rect(0, 0, 600, 400))))
	s := random(rand.New(rand.NewPCG(1, 1)))
	s.noise, s.glare = 0, nil
	bare := s
	bare.long = 0
	assert.Equal(t, "photo.noBlank", code(bare.shot(1500, 1125)))
	over := s
	over.x0 = 297 - s.long
	assert.Contains(t, []string{"photo.overEdge", "photo.noMarks", "photo.noFirst"}, code(over.shot(1500, 1125)))
	hidden := s
	for x := 0.0; x < s.long; x += 5 {
		hidden.glare = append(hidden.glare, [3]float64{s.x0 + x, s.top(x), 5})
	}
	o, err := photo.Read(context.Background(), hidden.shot(1500, 1125), sheet)
	if err != nil {
		assert.Equal(t, "photo.notSeen", code(hidden.shot(1500, 1125)))
	} else {
		for _, a := range o.Along {
			assert.True(t, !a.Seen || a.XMm < 8 || math.Abs(a.HeightMm()-(s.bottom(a.XMm)-s.top(a.XMm))) < 2, "at %g", a.XMm)
		}
	}
	plain, err := photo.Read(context.Background(), s.shot(1500, 1125), sheet)
	require.NoError(t, err)
	assert.Greater(t, plain.Seen, .9)
}
