package export_test

import (
	"bytes"
	"image"
	"image/color"
	"image/jpeg"
	"image/png"
	"math"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/quantity"
	"coldember/internal/export"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func coded(s blade.Starter) export.Subject {
	return export.Subject{Name: s.ID, Tags: []string{"own"}, Design: s.Design, Allowances: blade.ThickAndGrind.Allowances()}
}

// TestEveryPatternFitsItsSquares: every starter goes into a code and comes out the same; what is not whole is told.
func TestEveryPatternFitsItsSquares(t *testing.T) {
	longest := 0
	for _, s := range blade.Starters() {
		want := coded(s)
		code, err := export.CodeOf(want)
		require.NoError(t, err, s.ID)
		longest = max(longest, len(code))
		got, err := export.ReadPattern([]byte(code))
		require.NoError(t, err, s.ID)
		assert.Equal(t, want, export.Subject{Name: got.Name, Tags: got.Tags, Design: got.Design, Allowances: got.Allowances})
	}
	t.Log("longest code:", longest)
	code, err := export.CodeOf(coded(blade.Starters()[0]))
	require.NoError(t, err)
	for _, broken := range []string{code[:len(code)-2], code[:20], code + "!", strings.Replace(code, "COLDEMBER:1:", "COLDEMBER:1:::", 1), "COLDEMBER:1:"} {
		_, err := export.ReadPattern([]byte(broken))
		var fe *export.FileError
		require.ErrorAs(t, err, &fe)
	}
	_, ok, err := export.ReadCode(strings.Replace(code, ":1:", ":2:", 1))
	require.NoError(t, err)
	assert.False(t, ok)
}

// TestAPhotographOfThePageIsThePattern: printed, drawn by a reader of PDF that is not ours, turned, lit unevenly, blurred and
// packed as a photograph, it is read back.
func TestAPhotographOfThePageIsThePattern(t *testing.T) {
	reader, err := exec.LookPath("pdftoppm")
	if err != nil {
		t.Skip("pdftoppm of poppler-utils is not here")
	}
	for _, id := range []string{"scribe", "recurve"} {
		var want export.Subject
		for _, s := range blade.Starters() {
			if s.ID == id {
				want = coded(s)
			}
		}
		page, err := export.PatternPage(want, quantity.Metric, "a4")
		require.NoError(t, err)
		file := filepath.Join(t.TempDir(), "page.pdf")
		require.NoError(t, os.WriteFile(file, page, 0o600))
		raw, err := exec.CommandContext(t.Context(), reader, "-r", "250", "-png", "-singlefile", file).Output()
		require.NoError(t, err)
		img, err := png.Decode(bytes.NewReader(raw))
		require.NoError(t, err)
		text, err := export.ScanCode(photographed(t, img))
		require.NoError(t, err, id)
		got, err := export.ReadPattern([]byte(text))
		require.NoError(t, err)
		assert.Equal(t, want.Design, got.Design)
	}
	_, err = export.ScanCode(image.NewGray(image.Rect(0, 0, 40, 40)))
	var fe *export.FileError
	require.ErrorAs(t, err, &fe)
	assert.Equal(t, "patternFile.noSquares", fe.Code)
}

// photographed is a page as a camera in the hand sees it.
func photographed(t *testing.T, page image.Image) image.Image {
	t.Helper()
	b := page.Bounds()
	out := image.NewGray(b)
	rng := rand.New(rand.NewPCG(1, 2)) //nolint:gosec // a test
	sin, cos := math.Sincos(3 * math.Pi / 180)
	cx, cy := float64(b.Dx())/2, float64(b.Dy())/2
	grey := func(x, y int) float64 {
		if !(image.Point{x, y}).In(b) {
			return 200
		}
		r, g, bl, _ := page.At(x, y).RGBA()
		return float64(r+g+bl) / 3 / 257
	}
	for y := range b.Dy() {
		for x := range b.Dx() {
			dx, dy := float64(x)-cx, float64(y)-cy
			u, v := int(cx+dx*cos-dy*sin), int(cy+dx*sin+dy*cos)
			soft := (grey(u, v) + grey(u+1, v) + grey(u, v+1) + grey(u+1, v+1)) / 4
			lit := .55 + .4*float64(x)/float64(b.Dx())
			out.SetGray(x, y, color.Gray{Y: uint8(math.Max(0, math.Min(255, soft*lit+rng.NormFloat64()*6)))})
		}
	}
	var packed bytes.Buffer
	require.NoError(t, jpeg.Encode(&packed, out, &jpeg.Options{Quality: 70}))
	img, err := jpeg.Decode(&packed)
	require.NoError(t, err)
	return img
}

// FuzzReadCode: no text of a square code ends the program, or unpacks into more than its bound; what is read as a pattern is one.
func FuzzReadCode(f *testing.F) {
	for _, s := range blade.Starters()[:3] {
		code, err := export.CodeOf(coded(s))
		require.NoError(f, err)
		f.Add(code)
	}
	f.Add("COLDEMBER:1:")
	f.Fuzz(func(t *testing.T, text string) {
		data, ok, err := export.ReadCode(text)
		if err != nil || !ok {
			return
		}
		assert.LessOrEqual(t, len(data), 256<<10)
		if p, err := export.ReadPattern(data); err == nil {
			assert.Equal(t, "coldember.pattern", p.Format)
		}
	})
}
