package work_test

import (
	"fmt"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/quantity"
	"coldember/internal/export"
	"coldember/internal/work"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestOutAndInAgainIsTheSameBlade: every starter written as SVG and as DXF and
// traced again has the volume and the length it had.
func TestOutAndInAgainIsTheSameBlade(t *testing.T) {
	for _, s := range blade.Starters() {
		for _, f := range []export.Format{export.FormatSVG, export.FormatDXF} {
			file, err := export.Write(export.Subject{Name: s.ID, Design: s.Design, Allowances: blade.Allowances{ForgingEdgeMm: 1}}, f, quantity.Metric, "a4")
			require.NoError(t, err)
			o, err := work.ReadOutline(work.OutlineFile{Format: string(f), Text: string(file.Data), Length: fmt.Sprint(s.Design.LengthMm)})
			require.NoError(t, err, "%s as %s", s.ID, f)
			length := o.LengthMm
			assert.InDelta(t, s.Design.LengthMm, length, 1e-9)
			d := s.Design
			d.SetOutline(o.Outline)
			was, err := blade.New(s.Design.Blade())
			require.NoError(t, err)
			is, err := blade.New(d.Blade())
			require.NoError(t, err, "%s as %s", s.ID, f)
			assert.InEpsilon(t, was.Measure().VolumeMm3, is.Measure().VolumeMm3, 6e-3, "%s as %s", s.ID, f)
			for i := 1; i < 20; i++ {
				x := length * float64(i) / 20
				assert.InDelta(t, was.SpineY(x)-was.EdgeY(x), is.SpineY(x)-is.EdgeY(x), .3, "%s as %s at %v", s.ID, f, x)
			}
		}
	}
}

const bare = `<svg><path d="M0 0H120V30H40z"/></svg>`

const square = `<svg width="120mm" viewBox="0 0 120 30"><path d="M0 0H120V30H40z"/></svg>`

func TestTheScaleOfADrawingIsAskedAndChecked(t *testing.T) {
	read := func(f work.OutlineFile) (float64, error) {
		f.Format = "svg"
		if f.Text == "" {
			f.Text = square
		}
		read, err := work.ReadOutline(f)
		return read.LengthMm, err
	}
	l, err := read(work.OutlineFile{})
	require.NoError(t, err)
	assert.InDelta(t, 120, l, 1e-3, "the file's own")
	for _, c := range []struct {
		file   work.OutlineFile
		length float64
		field  string // that is refused
	}{
		{work.OutlineFile{Text: bare}, 0, "length"},
		{work.OutlineFile{Text: bare, Unit: "mm"}, 120, ""},
		{work.OutlineFile{Text: bare, Unit: "cm"}, 1200, ""},
		{work.OutlineFile{Text: bare, Unit: "in"}, 0, "length"}, // ten feet
		{work.OutlineFile{Text: bare, Unit: "ell"}, 0, "unit"},
		{work.OutlineFile{Text: bare, Unit: "mm", Length: "150"}, 0, "length"},
		{work.OutlineFile{Unit: "cm"}, 0, "unit"},
		{work.OutlineFile{Unit: "cm", Scale: true}, 1200, ""},
		{work.OutlineFile{Text: `<svg width="120mm" viewBox="0 0 120 30"><path d="M0 0L120 30L120 0L0 30z"/></svg>`}, 0, "text"},
	} {
		l, err := read(c.file)
		if c.field != "" {
			assert.Contains(t, fields(t, err), c.field, c.file)
			continue
		}
		require.NoError(t, err, c.file)
		assert.InDelta(t, c.length, l, 1e-3, c.file)
	}
	_, err = read(work.OutlineFile{Length: "121"})
	require.NoError(t, err, "agrees within 2 %")
	_, err = read(work.OutlineFile{Length: "6 in"})
	got := fields(t, err)
	assert.Equal(t, "drawing.length", got["length"].Code)
	assert.InDelta(t, 120, got["length"].Figures["fileMm"], 1e-3)
	l, err = read(work.OutlineFile{Length: "6 in", Scale: true})
	require.NoError(t, err)
	assert.InDelta(t, 152.4, l, 1e-9)
	for want, f := range map[string]work.OutlineFile{
		"drawing.noUnit": {Text: `<svg><path d="M0 0H120V30H40z"/></svg>`},
		"drawing.range":  {Length: "5 m"},
		"quantity.unit":  {Length: "5 ells"},
	} {
		_, err := read(f)
		assert.Equal(t, want, fields(t, err)["length"].Code)
	}
	_, err = read(work.OutlineFile{Text: "<svg>"})
	assert.Contains(t, fields(t, err), "text")
	_, err = work.ReadOutline(work.OutlineFile{Format: "dwg"})
	assert.Contains(t, fields(t, err), "format")
}

func TestADrawingIsTakenAsOneStep(t *testing.T) {
	w, _ := fresh(t)
	p := start(t, w)
	before := p.Doc.Request.Design
	q, _, err := w.TraceOutline(ctx, p.ID, p.Version, work.OutlineFile{Format: "svg", Text: square})
	require.NoError(t, err)
	assert.Equal(t, blade.Own, q.Doc.Request.Design.Shape)
	assert.InDelta(t, 120, q.Doc.Request.Design.LengthMm, 1e-3)
	turned, _, err := w.TraceOutline(ctx, q.ID, q.Version, work.OutlineFile{Format: "svg", Text: `<svg width="120mm" viewBox="0 0 120 30"><path d="M120 30H0V0H80z"/></svg>`, TurnEnds: true, TurnOver: true})
	require.NoError(t, err)
	assert.InDelta(t, q.Summary.MassG, turned.Summary.MassG, .2, "turned end for end and over, it is the same")
	back, _, err := w.Undo(ctx, turned.ID, turned.Version, -1)
	require.NoError(t, err)
	back, _, err = w.Undo(ctx, back.ID, back.Version, -1)
	require.NoError(t, err)
	assert.Equal(t, before, back.Doc.Request.Design)
}

// TestATangIsReadBack: every form of a full tang, with slots in it and a ricasso before it, written as SVG and as DXF and
// read again keeps its sides, and makes a pattern with a full tang; a hidden tang makes none.
func TestATangIsReadBack(t *testing.T) {
	for _, form := range blade.TangForms() {
		for _, f := range []export.Format{export.FormatSVG, export.FormatDXF} {
			d := blade.Starters()[0].Design
			d.SetTang(blade.FullTang)
			require.True(t, d.TangForm(form))
			d.Tang.Holes = []blade.Hole{{AtMm: d.Tang.LengthMm / 2, DiameterMm: 5}}
			file, err := export.Write(export.Subject{Name: string(form), Design: d, Allowances: blade.Allowances{ForgingEdgeMm: 1}}, f, quantity.Metric, "a4")
			require.NoError(t, err)
			p, err := work.PatternOfOutline("Read", work.OutlineFile{Format: string(f), Text: string(file.Data), Length: fmt.Sprint(d.LengthMm)})
			require.NoError(t, err, "%s as %s", form, f)
			got := p.Design
			require.Equal(t, blade.FullTang, got.TangKind, "%s as %s", form, f)
			assert.InDelta(t, d.Ricasso.LengthMm, got.Ricasso.LengthMm, .05)
			was, err := blade.New(d.Blade())
			require.NoError(t, err)
			is, err := blade.New(got.Blade())
			require.NoError(t, err, "%s as %s", form, f)
			a, b := was.Blade.Tang, is.Blade.Tang
			assert.InDelta(t, a.LengthMm, b.LengthMm, .05, form)
			for i := 1; i < 30; i++ {
				s := a.LengthMm * float64(i) / 30
				h, _ := a.At(s)
				k, _ := b.At(s)
				assert.InDelta(t, h, k, .25, "%s as %s, height at %v", form, f, s)
				assert.InDelta(t, a.TopMm(s), b.TopMm(s), .2, "%s as %s, top at %v", form, f, s)
			}
		}
	}
	hidden := blade.Starters()[0].Design
	hidden.SetTang(blade.HiddenTang)
	file, err := export.Write(export.Subject{Name: "hidden", Design: hidden, Allowances: blade.Allowances{ForgingEdgeMm: 1}}, export.FormatSVG, quantity.Metric, "a4")
	require.NoError(t, err)
	p, err := work.PatternOfOutline("Hidden", work.OutlineFile{Format: "svg", Text: string(file.Data), Length: fmt.Sprint(hidden.LengthMm)})
	require.NoError(t, err)
	assert.Equal(t, blade.Starters()[0].Design.TangKind, p.Design.TangKind)
}

// TestItsOwnDrawingComesBackTheSame: the finished outline is taken, not the forged one around it, with
// no length said; where the layers have no names it is asked, and the length that is typed picks.
func TestItsOwnDrawingComesBackTheSame(t *testing.T) {
	for _, s := range blade.Starters() {
		for _, f := range []export.Format{export.FormatSVG, export.FormatDXF} {
			file, err := export.Write(export.Subject{Name: s.ID, Design: s.Design, Allowances: blade.ThickAndGrind.Allowances()}, f, quantity.Metric, "a4")
			require.NoError(t, err)
			o, err := work.ReadOutline(work.OutlineFile{Format: string(f), Text: string(file.Data)})
			require.NoError(t, err, "%s as %s", s.ID, f)
			was, err := blade.New(s.Design.Blade())
			require.NoError(t, err)
			assert.InDelta(t, was.LengthMm(), o.LengthMm, .05, "%s as %s", s.ID, f)
			d := s.Design
			d.SetOutline(o.Outline)
			is, err := blade.New(d.Blade())
			require.NoError(t, err)
			for i := 1; i < 20; i++ {
				x := was.LengthMm() * float64(i) / 20
				assert.InDelta(t, was.SpineY(x)-was.EdgeY(x), is.SpineY(x)-is.EdgeY(x), .3, "%s as %s at %v", s.ID, f, x)
			}
			nameless := strings.NewReplacer("id=\"finished\"", "id=\"a\"", "id=\"forged\"", "id=\"b\"", "FINISHED", "A", "FORGED", "B").Replace(string(file.Data))
			_, err = work.ReadOutline(work.OutlineFile{Format: string(f), Text: nameless})
			assert.Contains(t, fields(t, err), "length", "%s as %s: nobody can know", s.ID, f)
			o, err = work.ReadOutline(work.OutlineFile{Format: string(f), Text: nameless, Length: fmt.Sprint(s.Design.LengthMm)})
			require.NoError(t, err, "%s as %s", s.ID, f)
			assert.InDelta(t, was.LengthMm(), o.LengthMm, 1e-9)
		}
	}
}
