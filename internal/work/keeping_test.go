package work_test

import (
	"bytes"
	"encoding/binary"
	"image"
	"image/color"
	"image/jpeg"
	"strings"
	"testing"

	"coldember/internal/doc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// sideways is a photograph 40 wide and 20 high, bright at its top left, that says how it
// is to be turned.
func sideways(t *testing.T, how uint16) []byte {
	t.Helper()
	m := image.NewGray(image.Rect(0, 0, 40, 20))
	for y := range 10 {
		for x := range 10 {
			m.Set(x, y, color.White)
		}
	}
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, m, nil))
	exif := []byte("Exif\x00\x00MM\x00\x2a\x00\x00\x00\x08\x00\x01\x01\x12\x00\x03\x00\x00\x00\x01\x00\x00\x00\x00\x00\x00\x00\x00")
	binary.BigEndian.PutUint16(exif[24:], how)
	head := []byte{0xff, 0xd8, 0xff, 0xe1, 0, byte(len(exif) + 2)}
	return append(append(head, exif...), b.Bytes()[2:]...)
}

// TestAPhotographIsTurnedAsItSays: where its bright corner comes to lie, by the figures of
// Exif 2.3.
func TestAPhotographIsTurnedAsItSays(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	for how, bright := range map[uint16]image.Point{1: {2, 2}, 2: {37, 2}, 3: {37, 17}, 4: {2, 17}, 5: {2, 2}, 6: {17, 2}, 7: {17, 37}, 8: {2, 37}} {
		raw := sideways(t, how)
		var err error
		p, _, err = w.AddPicture(ctx, p.ID, p.Version, raw)
		require.NoError(t, err, how)
		data, mime, err := w.PictureData(ctx, p.Doc.Picture.ID)
		require.NoError(t, err)
		assert.Equal(t, "image/jpeg", mime)
		assert.NotContains(t, string(data), "Exif", "nothing is kept but what is seen")
		img, _, err := image.Decode(bytes.NewReader(data))
		require.NoError(t, err)
		want := image.Pt(40, 20)
		if how >= 5 {
			want = image.Pt(20, 40)
		}
		assert.Equal(t, want, img.Bounds().Size(), how)
		assert.Equal(t, want, image.Pt(p.Doc.Picture.WidthPx, p.Doc.Picture.HeightPx), how)
		for _, at := range []image.Point{{2, 2}, {want.X - 3, 2}, {2, want.Y - 3}, {want.X - 3, want.Y - 3}} {
			v, _, _, _ := img.At(at.X, at.Y).RGBA()
			assert.Equal(t, at == bright, v > 0x8000, "turned by %d, at %v", how, at)
		}
	}
}

// TestOnlyWholePicturesAreKept, without what hangs on to them, and only while something
// refers to them.
func TestOnlyWholePicturesAreKept(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	raw := photo(t, 200, 50)
	_, _, err := w.AddPicture(ctx, p.ID, p.Version, raw[:len(raw)-30])
	assert.Equal(t, "picture.notImage", fields(t, err)["file"].Code, "half a picture")
	p, _, err = w.AddPicture(ctx, p.ID, p.Version, append(bytes.Clone(raw), "<script>"...))
	require.NoError(t, err)
	first := p.Doc.Picture.ID
	data, _, err := w.PictureData(ctx, first)
	require.NoError(t, err)
	assert.NotContains(t, string(data), "script")

	next, _, err := w.AddPicture(ctx, p.ID, p.Version, photo(t, 60, 20))
	require.NoError(t, err)
	require.NotEqual(t, first, next.Doc.Picture.ID)
	gone, err := w.Tidy(ctx)
	require.NoError(t, err)
	assert.Zero(t, gone, "it can be undone")
	_, _, err = w.Undo(ctx, p.ID, next.Version, -1)
	require.NoError(t, err)
	_, _, err = w.PictureData(ctx, first)
	require.NoError(t, err)
}

// TestATableIsShownAndNotRun: no cell begins with what a spreadsheet would run, and the
// table comes back as it was.
func TestATableIsShownAndNotRun(t *testing.T) {
	w, _ := fresh(t)
	named := []string{`=HYPERLINK("x")`, "+1", "-2 bars", "@home", "'quoted", "'=both", "plain"}
	for _, n := range named {
		_, err := w.AddStock(ctx, doc.Stock{Name: n, Piece: bar(20, 5, 500), SteelID: "1084", Count: 1, Notes: n})
		require.NoError(t, err)
	}
	table, err := w.RackCSV(ctx)
	require.NoError(t, err)
	for _, line := range strings.Split(strings.TrimSpace(string(table)), "\n") {
		assert.NotContains(t, "=+-@", line[:1])
		assert.NotContains(t, line, `,"=`)
	}
	other, _ := fresh(t)
	n, err := other.ImportRackCSV(ctx, table)
	require.NoError(t, err)
	assert.Len(t, n, len(named))
	back, _, err := other.Rack(ctx, false)
	require.NoError(t, err)
	var got []string
	for _, s := range back {
		got = append(got, s.Doc.Name)
		assert.Equal(t, s.Doc.Name, s.Doc.Notes)
	}
	assert.ElementsMatch(t, named, got)
}
