package billet_test

import (
	"context"
	"math"
	"testing"

	"coldember/core/billet"
	"coldember/core/fact"
	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// ends is a square bar of two steels that is cut across.
func ends(p billet.Pattern) billet.Recipe {
	r := billet.NewRecipe("1084", "15N20")
	r.Pattern, r.SliceMm, r.Turns = p, 12, 0
	r.BarWidthMm, r.BarThicknessMm = 18, 5
	return r
}

// TestEveryGramOfEveryPatternIsCounted: what is laid, edge and all, is the bar and what the list says went.
func TestEveryGramOfEveryPatternIsCounted(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		r := ends(rapid.SampledFrom(billet.Patterns()).Draw(rt, "pattern"))
		r.Fours, r.Beside = rapid.IntRange(0, 3).Draw(rt, "fours"), rapid.IntRange(1, 3).Draw(rt, "beside")
		r.SliceMm = rapid.Float64Range(2, 30).Draw(rt, "slice")
		r.LengthMm = rapid.Float64Range(60, 300).Draw(rt, "long")
		if r.Pattern.Filled() {
			r.Fill = billet.UsualFill(r.Pattern)
			r.Steps = []billet.Step{{Kind: billet.Weld, Heats: 2}, {Kind: billet.Crop, EndsMm: 12}, {Kind: billet.Draw, WidthMm: 20, ThicknessMm: 20}}
			r.Flux = billet.Canister
		}
		if rapid.Bool().Draw(rt, "edge") {
			r.EdgeSteelID, r.EdgeMm, r.EdgeThickMm = "1095", 5, 1.2
			r.EdgeWay = rapid.SampledFrom([]billet.EdgeWay{billet.Below, billet.Wrapped, billet.Cleft}).Draw(rt, "way")
		}
		o, err := r.Out(forge.NewFire())
		require.NoError(rt, err)
		gone := 0.0
		for _, l := range o.Lost {
			gone += l.G
		}
		assert.InDelta(rt, o.LaidG, o.MassG+gone, 1e-9*o.LaidG)
		shares := 0.0
		for _, s := range o.Shares {
			shares += s.Share
		}
		assert.InDelta(rt, 1, shares, 1e-9)
		if o.MassG > 0 {
			assert.InEpsilon(rt, o.MassG, r.BarWidthMm*r.BarThicknessMm*o.LengthMm*7.85e-3, 1e-9)
		}
	})
}

// TestEndsShowTheSection: a point of the face is the place of the old section, however deep, as long
// as the bar was not twisted; each slice anew.
func TestEndsShowTheSection(t *testing.T) {
	b := billet.Bar{Pattern: billet.EndGrain, WidthMm: 16, ThicknessMm: 16, SliceMm: 10, Layers: 20, ForgedWidthMm: 16, ForgedThicknessMm: 10}
	require.NoError(t, b.Validate())
	rapid.Check(t, func(rt *rapid.T) {
		tile, at := float64(rapid.IntRange(0, 9).Draw(rt, "tile")), rapid.Float64Range(.01, .99).Draw(rt, "at")
		p := billet.Point{XMm: 16 * (tile + at), YMm: rapid.Float64Range(-8, 8).Draw(rt, "y"), DepthShare: rapid.Float64Range(0, 1).Draw(rt, "d"), Side: rapid.SampledFrom([]float64{1, -1}).Draw(rt, "side")}
		assert.InDelta(rt, 20*at, b.LayerAt(p), 1e-6)
	})
}

// TestAMosaicMirrors: each quarter is a mirror of its neighbours, once and again; and every steel keeps
// its share of the face.
func TestAMosaicMirrors(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		b := billet.Bar{Pattern: billet.Mosaic, WidthMm: 16, ThicknessMm: 16, SliceMm: 10, Layers: 20, ForgedWidthMm: 16, ForgedThicknessMm: 10, Fours: rapid.IntRange(1, 3).Draw(rt, "fours"), OnCorner: rapid.Bool().Draw(rt, "corner")}
		x, y := rapid.Float64Range(.01, 7.9).Draw(rt, "x"), rapid.Float64Range(.01, 7.9).Draw(rt, "y")
		at := func(x, y float64) float64 {
			return b.LayerAt(billet.Point{XMm: 8 + x, YMm: y, DepthShare: .5, Side: 1})
		}
		assert.InDelta(rt, at(x, y), at(-x, y), 1e-6)
		assert.InDelta(rt, at(x, y), at(x, -y), 1e-6)
		if b.Fours > 1 {
			assert.InDelta(rt, at(x/2, y), at(8-x/2, y), 1e-6)
		}
		const n = 317
		cut, below := rapid.Float64Range(2, 18).Draw(rt, "cut"), 0
		for i := range n {
			for j := range n {
				if at(16*((float64(i)+.5)/n-.5), 16*((float64(j)+.5)/n-.5)) < cut {
					below++
				}
			}
		}
		assert.InDelta(rt, cut/20, float64(below)/n/n, .01)
	})
}

// TestATwistedBarsEndsTurn: a slice so thick that the bar turns once in it shows the same above and
// below, half as thick what is half a turn on.
func TestATwistedBarsEndsTurn(t *testing.T) {
	b := billet.Bar{Pattern: billet.EndGrain, WidthMm: 16, ThicknessMm: 16, SliceMm: 20, Layers: 20, TurnsPer100Mm: 5, ForgedWidthMm: 16, ForgedThicknessMm: 20}
	for x := .5; x < 16; x += 1.7 {
		for y := -7.; y < 8; y += 1.3 {
			top, bottom := b.LayerAt(billet.Point{XMm: x, YMm: y, DepthShare: 1, Side: 1}), b.LayerAt(billet.Point{XMm: x, YMm: y, DepthShare: 1, Side: -1})
			assert.InDelta(t, top, bottom, 1e-6)
			middle := b.LayerAt(billet.Point{XMm: x, YMm: y, DepthShare: 0, Side: 1})
			assert.InDelta(t, 20-top, middle, 1e-6)
		}
	}
}

// TestFilledBilletsKeepTheirShares: wires and their skins, chain and powder have of a section what was laid.
func TestFilledBilletsKeepTheirShares(t *testing.T) {
	for _, p := range []billet.Pattern{billet.Cable, billet.Chain} {
		r := billet.NewRecipe("1084", "15N20")
		r.Pattern, r.Fill, r.Flux, r.WidthMm, r.Turns = p, billet.UsualFill(p), billet.Canister, 30, 3
		if p == billet.Cable {
			r.Fill.WireMm = 1 // many, since those at the rim are cut
		}
		r.Steps = []billet.Step{{Kind: billet.Weld, Heats: 1}, {Kind: billet.Draw, WidthMm: 18, ThicknessMm: 18}}
		r.BarWidthMm, r.BarThicknessMm = 18, 6
		o, err := r.Out(forge.NewFire())
		require.NoError(t, err)
		require.NotNil(t, o.Bar, p)
		o.Bar.Layers = 1
		n, first := 0, 0
		period := 2 * r.Fill.LinkMm
		if p == billet.Cable {
			period = 100
		}
		scale := o.Bar.LaidWidthMm * o.Bar.LaidThicknessMm / (18 * 6)
		for i := range 60 {
			for j := range 60 {
				for k := range 60 {
					d := 2*(float64(k)+.5)/60 - 1
					at := billet.Point{XMm: period * scale * (float64(i) + .5) / 60, YMm: 18 * ((float64(j)+.5)/60 - .5), DepthShare: math.Abs(d), Side: math.Copysign(1, d)}
					if n++; o.Bar.LayerAt(at) < o.Bar.FirstShare {
						first++
					}
				}
			}
		}
		assert.InDelta(t, o.Bar.FirstShare, float64(first)/float64(n), .012, p)
	}
}

// TestWhatIsNotLaidInLayersIsToldSo: steps that only layers have are refused at their place; links that
// the can does not hold, and an open fire round powder, stop.
func TestWhatIsNotLaidInLayersIsToldSo(t *testing.T) {
	r := billet.NewRecipe("1084", "15N20")
	r.Pattern, r.Fill = billet.Chain, billet.UsualFill(billet.Chain)
	c := fact.NewCheck()
	r.Validate(c)
	var invalid fact.FieldErrors
	require.ErrorAs(t, c.Err(), &invalid)
	assert.Equal(t, "steps.0.kind", invalid[0].Field)
	r.Steps, r.WidthMm = []billet.Step{{Kind: billet.Draw, WidthMm: 20, ThicknessMm: 20}}, 20
	o, err := r.Out(forge.NewFire())
	require.NoError(t, err)
	codes := map[string]fact.Figures{}
	for _, f := range o.Findings {
		codes[f.Code] = f.Figures
	}
	assert.InDelta(t, 28, codes["billet.canNarrow"]["limitMm"], 1e-9)
	assert.Contains(t, codes, "billet.wantsCan")
	assert.Greater(t, o.PouredMm, r.Fill.CanMm, "powder settles")
	r.Fill = nil
	c = fact.NewCheck()
	r.Validate(c)
	require.Error(t, c.Err())
}

// TestRimsAndUnlikeBars: rims steeper than they may be, and an edge that is stiffer than the rest, are
// told with the figure that would do, which does.
func TestRimsAndUnlikeBars(t *testing.T) {
	codes := func(r billet.Recipe) map[string]fact.Figures {
		o, err := r.Out(forge.NewFire())
		require.NoError(t, err)
		out := map[string]fact.Figures{}
		for _, f := range o.Findings {
			out[f.Code] = f.Figures
		}
		return out
	}
	r := billet.NewRecipe("1084", "15N20")
	r.Pattern, r.PitchMm, r.DepthMm, r.RadiusMm = billet.Dimple, 9, 2, 3
	sharp := codes(r)
	require.Contains(t, sharp, "billet.sharpRim")
	r.RadiusMm = sharp["billet.sharpRim"]["limitMm"]
	assert.NotContains(t, codes(r), "billet.sharpRim")
	r.EdgeSteelID, r.EdgeMm = "1084", 6
	assert.NotContains(t, codes(r), "billet.unequal")
	r.EdgeSteelID = "O1"
	assert.Contains(t, codes(r), "billet.unequal")
}

// TestLabour: a press takes fewer strokes than the hand, both at least the work that the steel asks for; and grinding
// a tenth less saves what the ledger says.
func TestLabour(t *testing.T) {
	r := billet.NewRecipe("1084", "15N20")
	fire := forge.NewFire()
	o, err := r.Out(fire)
	require.NoError(t, err)
	smith := forge.NewSmith(forge.Steady)
	g, _ := o.Grade()
	setup := forge.Setup{Smith: smith, Fire: fire, Steel: g}
	hand := r.Labour(context.Background(), &o, setup, nil)
	press := r.Labour(context.Background(), &o, setup, forge.NewMachine(forge.Press))
	require.Empty(t, hand.TooStiff)
	require.Empty(t, press.TooStiff)
	assert.Greater(t, hand.Blows, 3*press.Blows)
	assert.Greater(t, hand.TimeS, press.TimeS)
	drawn := o.States[3]
	strain := math.Log(o.States[2].WidthMm * o.States[2].ThicknessMm / (drawn.WidthMm * drawn.ThicknessMm))
	least := drawn.VolumeMm3 * strain * 40 / 1000 // at 40 MPa, less than any of it resists, J
	assert.Greater(t, hand.Steps[2].Blows*smith.UsefulJ(), least)
	less := r
	less.Steps = append([]billet.Step{}, r.Steps...)
	less.Steps[0].PerFaceMm -= .1
	lighter, err := less.Out(fire)
	require.NoError(t, err)
	assert.InDelta(t, lighter.MassG-o.MassG, hand.Steps[0].SaveG, .12*hand.Steps[0].SaveG) // the welds burn a share of it
	stopped, cancel := context.WithCancel(context.Background())
	cancel()
	assert.Zero(t, r.Labour(stopped, &o, setup, nil).Blows)
}

// TestTheEdgeHasWhatItsWayTakes: sampled over the section, bar, wrap and bit are as large as the
// ledger says; what they leave of the body keeps all its layers.
func TestTheEdgeHasWhatItsWayTakes(t *testing.T) {
	for way, want := range map[billet.EdgeWay]float64{billet.Below: 6 * 5, billet.Wrapped: 1*5 + 2*1*(6-1), billet.Cleft: 2 * 6. / 2} {
		r := billet.NewRecipe("1084", "15N20")
		r.BarWidthMm, r.BarThicknessMm, r.EdgeSteelID, r.EdgeMm, r.EdgeWay, r.EdgeThickMm = 24, 5, "1095", 6, way, map[billet.EdgeWay]float64{billet.Wrapped: 1, billet.Cleft: 2}[way]
		o, err := r.Out(forge.NewFire())
		require.NoError(t, err)
		const n = 400
		edge, skin := 0, 0.0
		for i := range n {
			for j := range n {
				in, d := o.Join.Beside(24*(float64(i)+.5)/n, (float64(j)+.5)/n, 5)
				if in {
					edge++
				} else {
					skin = math.Max(skin, d)
				}
				require.True(t, in || d >= -1e-9 && d <= 1+1e-9, d)
			}
		}
		assert.InDelta(t, want, 24*5*float64(edge)/n/n, .2, way)
		assert.Greater(t, skin, .98, way)
	}
}
