package work_test

import (
	"errors"
	"testing"

	"coldember/core/blade"
	"coldember/internal/edit"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestPatternsKeepTheirRevisions(t *testing.T) {
	w, _ := fresh(t)
	all, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	require.Len(t, all, len(blade.Starters()))
	require.NoError(t, w.Ensure(ctx))
	p := all[0]
	doc := p.Doc
	doc.Design.LengthMm = 123
	q, err := w.SavePattern(ctx, p.ID, p.Version, doc)
	require.NoError(t, err)
	assert.Equal(t, 2, q.Revision)
	_, err = w.SavePattern(ctx, p.ID, p.Version, doc)
	var stale *work.StaleError
	require.True(t, errors.As(err, &stale))
	doc.Name, doc.Design.LengthMm = "", 5000
	_, err = w.AddPattern(ctx, doc)
	assert.Contains(t, fields(t, err), "name")
	assert.Contains(t, fields(t, err), "design.lengthMm")
}

func TestPatternsAreEditedScaledComparedAndRestored(t *testing.T) {
	w, _ := fresh(t)
	all, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	p, err := w.EditPattern(ctx, all[0].ID, all[0].Version, []edit.Edit{{Field: "tags", Text: " boat, deck ,boat,"}, {Field: "design.lengthMm", Text: "4 1/2 in"}, {Field: "name", Text: "Deck knife"}})
	require.NoError(t, err)
	assert.Equal(t, []string{"boat", "deck"}, p.Doc.Tags)
	p, err = w.EditPattern(ctx, p.ID, p.Version, typed("scale", "110"))
	require.NoError(t, err)
	assert.InDelta(t, 114.3*1.1, p.Doc.Design.LengthMm, 1e-9)
	p, err = w.EditPattern(ctx, p.ID, p.Version, typed("scaleThickness", "90 %"))
	require.NoError(t, err)
	h, err := w.History(ctx, p.ID, 30, 6)
	require.NoError(t, err)
	require.Len(t, h, 4)
	assert.Equal(t, 4, h[0].N)
	assert.InEpsilon(t, h[2].Measures.MassG*1.1*1.1*1.1, h[1].Measures.MassG, 1e-3)
	assert.InEpsilon(t, h[1].Measures.MassG*.9, h[0].Measures.MassG, 1e-3)
	assert.InEpsilon(t, h[0].Measures.ForgedMassG/7.85*1000/180, h[0].Measures.BarMm, 1e-9)
	back, err := w.RestoreRevision(ctx, p.ID, p.Version, 1)
	require.NoError(t, err)
	assert.Equal(t, all[0].Doc, back.Doc)
	assert.Equal(t, 5, back.Revision, "nothing is overwritten")
	for field, text := range map[string]string{"scale": "900", "scaleLength": "x", "design.heightMm": "3 m", "design.nothing": "1"} {
		_, err := w.EditPattern(ctx, p.ID, back.Version, typed(field, text))
		assert.Contains(t, fields(t, err), field)
	}
	_, err = w.History(ctx, p.ID, 0, 6)
	assert.Contains(t, fields(t, err), "barWidthMm")
	_, err = w.RestoreRevision(ctx, p.ID, back.Version, 77)
	require.ErrorIs(t, err, work.ErrNotFound)
	_, err = w.ArchivePattern(ctx, p.ID, back.Version, true)
	require.NoError(t, err)
	left, _, err := w.Patterns(ctx, false)
	require.NoError(t, err)
	assert.Len(t, left, len(all)-1)
	var stale *work.StaleError
	_, err = w.ArchivePattern(ctx, p.ID, back.Version, true)
	require.True(t, errors.As(err, &stale))
}

func TestAGrooveIsPutInAndEdited(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	for kind, faces := range map[string]float64{"strip": 2, "back": 1, "fuller": 2} {
		var err error
		p, _, err = w.SavePiece(ctx, p.ID, p.Version, typed("design.groove", kind))
		require.NoError(t, err, kind)
		require.NotNil(t, p.Doc.Request.Design.Grind.Groove)
		assert.InDelta(t, faces, p.Doc.Request.Design.Grind.Groove.Faces, 0)
	}
	before := p.Doc
	q, _, err := w.SavePiece(ctx, p.ID, p.Version, typed("design.grind.groove.depthMm", "0.3"))
	require.NoError(t, err)
	assert.InDelta(t, .3, q.Doc.Request.Design.Grind.Groove.DepthMm, 1e-12)
	assert.InDelta(t, before.Request.Design.Grind.Groove.DepthMm, .4, .2, "what was read before is not changed behind its back")
	_, _, err = w.SavePiece(ctx, q.ID, q.Version, typed("design.grind.groove.depthMm", "5"))
	assert.Contains(t, fields(t, err), "design.grind.groove.depthMm")
	q, _, err = w.SavePiece(ctx, q.ID, q.Version, typed("design.groove", "none"))
	require.NoError(t, err)
	assert.Nil(t, q.Doc.Request.Design.Grind.Groove)
}

func TestOutlineEditsNameWhatIsWrong(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	for text, want := range map[string]struct {
		field, code string
		offset      int
	}{
		"12":         {"outline.edge.1", "outline.pair", 2},
		"12; x":      {"outline.edge.1", "quantity.missingNumber", 4},
		"q; 4":       {"outline.edge.1", "quantity.missingNumber", 0},
		"12; -8":     {"outline.edge.99", "outline.noNode", -1},
		"12; -9":     {"outline.edge.one", "field.unknown", -1},
		"spine 9in;": {"outline.add", "quantity.unit", 7},
		"middle 4":   {"outline.add", "field.choice", 0},
		"spine x":    {"outline.delete", "outline.noNode", 6},
		"spine 0":    {"outline.delete", "outline.noNode", -1},
		"edge 1":     {"outline.polish", "field.unknown", -1},
	} {
		_, _, err := w.SavePiece(ctx, p.ID, p.Version, typed(want.field, text))
		got := fields(t, err)
		require.Contains(t, got, want.field, text)
		assert.Equal(t, want.code, got[want.field].Code, text)
		assert.Equal(t, want.offset, got[want.field].Offset, text)
	}
	n := len(p.Doc.Request.Design.OwnOutline().Edge)
	q, _, err := w.SavePiece(ctx, p.ID, p.Version, typed("outline.add", "edge 2in"))
	require.NoError(t, err)
	assert.Len(t, q.Doc.Request.Design.Outline.Edge, n+1)
	q, _, err = w.SavePiece(ctx, q.ID, q.Version, typed("design.shape", "spear"))
	require.NoError(t, err)
	q, _, err = w.SavePiece(ctx, q.ID, q.Version, typed("design.shape", "own"))
	require.NoError(t, err, "the drawn outline is still there")
	assert.Len(t, q.Doc.Request.Design.Outline.Edge, n+1)
}
