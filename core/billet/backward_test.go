package billet_test

import (
	"math"
	"strings"
	"testing"

	"coldember/core/billet"
	"coldember/core/fact"
	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestLaidForABar: forward again, what is to be laid gives the bar, and a millimetre less of it does
// not; it is no higher than is welded at once.
func TestLaidForABar(t *testing.T) {
	fire := forge.NewFire()
	rapid.Check(t, func(rt *rapid.T) {
		r := billet.NewRecipe("1084", "15N20")
		if rapid.Bool().Draw(rt, "restacked") {
			r.Steps = append(r.Steps, billet.Step{Kind: billet.Restack, Pieces: 3, KerfMm: 2, PerFaceMm: .3}, billet.Step{Kind: billet.Weld, Heats: 1}, billet.Step{Kind: billet.Draw, WidthMm: 20, ThicknessMm: 20})
		}
		want := billet.Wanted{Layers: rapid.IntRange(5, 400).Draw(rt, "layers"), LengthMm: math.Round(rapid.Float64Range(80, 500).Draw(rt, "long"))}
		got, err := r.For(want, fire)
		require.NoError(rt, err)
		o, err := got.Out(fire)
		require.NoError(rt, err)
		assert.GreaterOrEqual(rt, o.LengthMm, want.LengthMm)
		assert.InDelta(rt, want.Layers, o.Layers, math.Max(4, .15*float64(want.Layers)))
		assert.LessOrEqual(rt, o.States[0].ThicknessMm, billet.MostStackMm)
		got.LengthMm--
		if less, err := got.Out(fire); err == nil {
			assert.Less(rt, less.LengthMm, want.LengthMm)
		}
	})
}

// TestWhatCannotBeLaid: told with what could.
func TestWhatCannotBeLaid(t *testing.T) {
	for name, want := range map[string]billet.Wanted{"billet.wantLayers": {Layers: 0, LengthMm: 100}, "billet.wantLong": {Layers: 20, LengthMm: 5}, "billet.wantLess": {Layers: 5, LengthMm: 1900}} {
		t.Run(name, func(t *testing.T) {
			r := billet.NewRecipe("1084", "15N20")
			if name == "billet.wantLess" { // a low stack and a heavy bar
				r.BarWidthMm, r.BarThicknessMm, r.WidthMm = 60, 40, 20
			}
			_, err := r.For(want, forge.NewFire())
			var wrong *billet.Error
			require.ErrorAs(t, err, &wrong)
			assert.Equal(t, name, wrong.Code)
			if name == "billet.wantLess" {
				want.LengthMm = wrong.Limit
				_, err = r.For(want, forge.NewFire())
				assert.NoError(t, err, "the figure that is told does")
			}
		})
	}
}

// TestScaleEatsTheSkin: what scale takes is of the outer layers alone, and as deep on edge as on face.
func TestScaleEatsTheSkin(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		b := billet.Bar{ForgedWidthMm: rapid.Float64Range(10, 60).Draw(rt, "w"), ForgedThicknessMm: rapid.Float64Range(3, 20).Draw(rt, "t")}
		share := rapid.Float64Range(0, .3).Draw(rt, "share")
		th, wd := b.Eaten(share)
		assert.InDelta(rt, th*b.ForgedThicknessMm, wd*b.ForgedWidthMm, 1e-9, "as deep")
		assert.InDelta(rt, share, th+wd, 1e-12, "and as much of the section, to first order")
	})
	laid := []billet.Layer{{SteelID: "1084", ThicknessMm: .02}, {SteelID: "15N20", ThicknessMm: .02}, {SteelID: "1084", ThicknessMm: .96}}
	b := billet.Blade{Bar: billet.Bar{ForgedWidthMm: 30, ForgedThicknessMm: 10}, Laid: laid, Eaten: .08}
	assert.InDelta(t, 1.5, b.EatenLayers(), 1e-9, "6 % of the thickness, 3 % of a face: one and a half of 2 %")
}

// TestAnotherCountThanWasAskedIsSaid with both neighbours, which can be had, and none between them.
func TestAnotherCountThanWasAskedIsSaid(t *testing.T) {
	fire := forge.NewFire()
	said := 0
	for asked := 20; asked < 120; asked++ {
		r := billet.NewRecipe("1084", "15N20")
		got, err := r.For(billet.Wanted{Layers: asked, LengthMm: 150}, fire)
		require.NoError(t, err)
		o, err := got.Out(fire)
		require.NoError(t, err)
		var found *fact.Warning
		for i := range o.Findings {
			if f := &o.Findings[i]; strings.HasPrefix(f.Code, "billet.layers") && f.Code != "billet.layersThin" {
				found = f
			}
		}
		assert.Equal(t, o.Layers != asked, found != nil, "%d asked, %d laid", asked, o.Layers)
		if found == nil {
			continue
		}
		said++
		assert.InDelta(t, asked, found.Figures["asked"], 0)
		assert.InDelta(t, o.Layers, found.Figures["layers"], 0)
		if found.Code == "billet.layersOff" {
			lower, upper := found.Figures["lower"], found.Figures["upper"]
			assert.True(t, lower < float64(asked) && float64(asked) < upper, "%v < %d < %v", lower, asked, upper)
			assert.InDelta(t, found.Figures["step"], upper-lower, 0)
			laid := map[float64]bool{}
			for n := got.Repeats - 1; n <= got.Repeats+1; n++ {
				again := got
				again.Repeats = n
				if out, err := again.Out(fire); err == nil {
					laid[float64(out.Layers)] = true
				}
			}
			assert.True(t, laid[lower] && laid[upper], "%d: both can be had: %v", asked, laid)
		}
	}
	assert.Greater(t, said, 30)
}
