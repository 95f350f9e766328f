package billet_test

import (
	"math"
	"testing"

	"coldember/core/billet"
	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestEveryGramIsCounted: what was laid is what is left and what each step took.
func TestEveryGramIsCounted(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		b := billet.Billet{
			Stack:   []billet.Layer{{SteelID: "1084", ThicknessMm: rapid.Float64Range(1, 5).Draw(rt, "a")}, {SteelID: "15N20", ThicknessMm: rapid.Float64Range(1, 3).Draw(rt, "b")}},
			Repeats: rapid.IntRange(1, 9).Draw(rt, "repeats"), WidthMm: rapid.Float64Range(20, 60).Draw(rt, "w"), LengthMm: rapid.Float64Range(80, 250).Draw(rt, "l"),
		}
		for range rapid.IntRange(0, 6).Draw(rt, "steps") {
			b.Steps = append(b.Steps, billet.Step{
				Kind: rapid.SampledFrom(billet.Kinds()).Draw(rt, "kind"), PerFaceMm: rapid.Float64Range(0, .2).Draw(rt, "face"), LossFraction: rapid.Float64Range(0, .1).Draw(rt, "loss"),
				WidthMm: rapid.Float64Range(15, 50).Draw(rt, "dw"), ThicknessMm: rapid.Float64Range(8, 30).Draw(rt, "dt"), EndsMm: rapid.Float64Range(0, 20).Draw(rt, "ends"),
				PerSideMm: rapid.Float64Range(0, 1).Draw(rt, "side"), Pieces: rapid.IntRange(2, 5).Draw(rt, "pieces"), KerfMm: rapid.Float64Range(0, 2).Draw(rt, "kerf"), TurnEverySecond: rapid.Bool().Draw(rt, "turn"),
			})
		}
		states, err := b.Run()
		if err != nil {
			return // told, with the figure that would do
		}
		lost := 0.0
		for i, s := range states {
			lost += s.LostMm3
			sum := 0.0
			for _, l := range s.Laid {
				sum += l.ThicknessMm
			}
			assert.InEpsilon(rt, s.ThicknessMm, sum, 1e-9)
			assert.Len(rt, s.Laid, s.Layers)
			if i > 0 && (s.Step == "draw" || s.Step == "crop" || s.Step == "weld") {
				assert.Equal(rt, states[i-1].Layers, s.Layers)
			}
		}
		assert.InEpsilon(rt, states[0].VolumeMm3, states[len(states)-1].VolumeMm3+lost, 1e-9)
	})
}

// TestRestacksMultiply: as many layers as pieces times, less one for each pair of like faces that
// meet.
func TestRestacksMultiply(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		repeats, pieces := rapid.IntRange(1, 20).Draw(rt, "repeats"), rapid.IntRange(2, 6).Draw(rt, "pieces")
		odd := rapid.Bool().Draw(rt, "capped")
		b := billet.Billet{Stack: []billet.Layer{{SteelID: "1084", ThicknessMm: 2}, {SteelID: "15N20", ThicknessMm: 2}}, Repeats: repeats, WidthMm: 30, LengthMm: 400}
		layers := 2 * repeats
		if odd {
			b.Cap = []billet.Layer{{SteelID: "1084", ThicknessMm: 2}}
			layers++
		}
		b.Steps = []billet.Step{{Kind: billet.Restack, Pieces: pieces, KerfMm: 1}}
		states, err := b.Run()
		require.NoError(rt, err)
		want := layers * pieces
		if odd {
			want -= pieces - 1
		}
		assert.Equal(rt, want, states[1].Layers)
	})
}

func bar(p billet.Pattern) billet.Bar {
	return billet.Bar{Pattern: p, WidthMm: 16, ThicknessMm: 16, Layers: 25, TurnsPer100Mm: 6, PitchMm: 10, DepthMm: 3, HalfWidthMm: 3, RadiusMm: 3, ForgedWidthMm: 28, ForgedThicknessMm: 6}
}

// TestATwistOfNoTurnsIsStraight, and whole turns come back to it.
func TestATwistOfNoTurnsIsStraight(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		p := billet.Point{
			XMm: rapid.Float64Range(0, 200).Draw(rt, "x"), YMm: rapid.Float64Range(-14, 14).Draw(rt, "y"), DepthShare: rapid.Float64Range(0, 1).Draw(rt, "d"), Side: rapid.SampledFrom([]float64{1, -1}).Draw(rt, "side"),
		}
		twist, straight := bar(billet.Twist), bar(billet.Straight)
		twist.TurnsPer100Mm = 0
		assert.InDelta(rt, straight.LayerAt(p), twist.LayerAt(p), 1e-9)
		twist = bar(billet.Twist)
		again := p
		again.XMm += 100 / twist.TurnsPer100Mm * (16 * 16) / (28 * 6) // one turn of the bar as it was twisted
		assert.InDelta(rt, twist.LayerAt(p), twist.LayerAt(again), 1e-6)
		assert.GreaterOrEqual(rt, twist.LayerAt(p), -1e-9)
		assert.LessOrEqual(rt, twist.LayerAt(p), twist.Layers+1e-9)
	})
}

// TestASkinOfStraightLayersIsOneLayer, and a ladder without depth is straight.
func TestASkinOfStraightLayersIsOneLayer(t *testing.T) {
	b := bar(billet.Straight)
	for x := 0.0; x < 100; x += 7 {
		for y := -13.0; y < 13; y += 3 {
			assert.InDelta(t, 25, b.LayerAt(billet.Point{XMm: x, YMm: y, DepthShare: 1, Side: 1}), 1e-9)
			for _, p := range []billet.Pattern{billet.Ladder, billet.Pressed, billet.Dimple} {
				flat := bar(p)
				flat.DepthMm = 0
				assert.InDelta(t, 25*.75, flat.LayerAt(billet.Point{XMm: x, YMm: y, DepthShare: .5, Side: 1}), 1e-9)
			}
		}
	}
}

// TestTheSharesOfASectionAreTheStacks: over the whole of a twisted section each steel has as much
// as was laid of it.
func TestTheSharesOfASectionAreTheStacks(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		b := bar(billet.Twist)
		x := rapid.Float64Range(0, 120).Draw(rt, "x")
		cut := rapid.Float64Range(.1, .9).Draw(rt, "cut") * b.Layers
		const n = 160
		below := 0
		for i := range n {
			for j := range n {
				z := 2*(float64(j)+.5)/n - 1
				side := math.Copysign(1, z)
				if b.LayerAt(billet.Point{XMm: x, YMm: b.ForgedWidthMm * ((float64(i)+.5)/n - .5), DepthShare: math.Abs(z), Side: side}) < cut {
					below++
				}
			}
		}
		assert.InDelta(rt, cut/b.Layers, float64(below)/n/n, .02, "skin and core are true to area, their mixture to two parts in a hundred")
	})
}

// TestARecipe comes to a bar, tells its losses, and what should be known of it.
func TestARecipe(t *testing.T) {
	r := billet.NewRecipe("1084", "15N20")
	c := fact.NewCheck()
	r.Validate(c)
	require.NoError(t, c.Err())
	o, err := r.Out(forge.NewFire())
	require.NoError(t, err)
	lost := 0.0
	for _, l := range o.Lost {
		lost += l.G
	}
	assert.InEpsilon(t, o.LaidG, o.MassG+lost, 1e-9)
	assert.Equal(t, 13, o.Layers)
	assert.Positive(t, o.FireS)
	weld := o.States[2]
	assert.InDelta(t, .03, weld.LostMm3/o.States[1].VolumeMm3, .025, "two welding heats take a few per cent")
	codes := func(o billet.Outcome) map[string]bool {
		out := map[string]bool{}
		for _, f := range o.Findings {
			out[f.Code] = true
		}
		return out
	}
	for code, change := range map[string]func(*billet.Recipe){
		"billet.noContrast":  func(r *billet.Recipe) { r.Stack[1].SteelID = "1075" },
		"billet.notSquare":   func(r *billet.Recipe) { r.Steps[2].WidthMm = 40 },
		"billet.tooDeep":     func(r *billet.Recipe) { r.Pattern, r.PitchMm, r.HalfMm, r.DepthMm = billet.Ladder, 9, 3, 8 },
		"billet.hardenApart": func(r *billet.Recipe) { r.Stack[1].SteelID = "5160" },
		"billet.unknown":     func(r *billet.Recipe) { r.Stack[1].SteelID = "unknown-spring" },
		"billet.barThick":    func(r *billet.Recipe) { r.BarThicknessMm = 30 },
		"billet.twistHeats":  func(r *billet.Recipe) { r.Turns = 20 },
	} {
		assert.False(t, codes(o)[code] && code != "billet.twistHeats", code)
		other := billet.NewRecipe("1084", "15N20")
		change(&other)
		is, err := other.Out(forge.NewFire())
		require.NoError(t, err, code)
		assert.True(t, codes(is)[code], code)
	}
	g, ok := o.Grade()
	require.True(t, ok)
	assert.Greater(t, g.NickelPct, 0.)
	r.Steps[0].PerFaceMm = 1
	c = fact.NewCheck()
	r.Validate(c)
	var errs fact.FieldErrors
	require.ErrorAs(t, c.Err(), &errs)
	assert.Equal(t, "steps.0.perFaceMm", errs[0].Field)
	assert.InDelta(t, .8, errs[0].Figures["limitMm"], 1e-9, "half of the thinnest")
}

// etched is a starter forged from the usual billet.
func etched(t testing.TB) *billet.Blade {
	d := blade.Starters()[0].Design
	b := d.Blade()
	fin, err := blade.New(b)
	require.NoError(t, err)
	forged, err := blade.New(fin.Blade.Forged(blade.ThickAndGrind.Allowances(), 6))
	require.NoError(t, err)
	r := billet.NewRecipe("1084", "15N20")
	o, err := r.Out(forge.NewFire())
	require.NoError(t, err)
	tones := map[string]billet.Tone{}
	for _, s := range o.Shares {
		tones[s.SteelID] = s.Tone
	}
	return &billet.Blade{Finished: fin, Forged: forged, Bar: *o.Bar, Laid: o.Laid, Tones: tones, OnBarMm: 70}
}

// TestTheFaceIsTheChain: points of the face, computed here from the geometry alone, are as bright as
// the layer that shows there.
func TestTheFaceIsTheChain(t *testing.T) {
	b := etched(t)
	const nx, ny = 1800, 400
	front, back := b.Faces(nx, ny)
	length := b.Finished.LengthMm()
	volume := func(to float64) (v float64) { v, _ = b.Forged.VolumeMm3(0, to); return v }
	whole := volume(b.Forged.LengthMm())
	same, looked := 0, 0
	for _, u := range []float64{.12, .23, .31, .44, .52, .63, .71, .83, .94} {
		for _, v := range []float64{.07, .18, .29, .41, .52, .6, .73, .86, .95} {
			for side, face := range map[float64]billet.Etched{1: front, -1: back} {
				i, j := int(u*nx), int(v*ny)
				x := length * (float64(i) + .5) / nx
				y := face.ToY - (face.ToY-face.FromY)*(float64(j)+.5)/ny
				sec := b.Finished.SectionAt(x)
				up := y - b.Finished.EdgeY(x)
				if up < .3 || up > sec.HeightMm-.3 {
					continue
				}
				xf := x + b.Forged.LengthMm() - length
				forged := b.Forged.SectionAt(xf)
				share := sec.ThicknessAt(up) / forged.ThicknessAt(y-b.Forged.EdgeY(xf))
				layer := b.Bar.LayerAt(billet.Point{XMm: 70 * volume(xf) / whole, YMm: ((y-b.Forged.EdgeY(xf))/forged.HeightMm - .5) * b.Bar.ForgedWidthMm, DepthShare: share, Side: side})
				at, id := 0.0, ""
				near := 1.
				for _, l := range b.Laid {
					near = math.Min(near, math.Abs(at-layer))
					if at += l.ThicknessMm; at >= layer && id == "" {
						id = l.SteelID
					}
				}
				if near < .01 {
					continue // on a seam the mean of both is right
				}
				looked++
				bright := face.Pixel[j*nx+i] > 140
				if bright == (b.Tones[id] == billet.Bright) {
					same++
				}
			}
		}
	}
	assert.Greater(t, looked, 80)
	assert.GreaterOrEqual(t, same, looked-1, "of %d", looked)
}

// TestDeeperShowsAnotherLayer, and ground bevels others than forged ones.
func TestDeeperShowsAnotherLayer(t *testing.T) {
	b := etched(t)
	was, _ := b.Faces(200, 40)
	b.DeeperMm = .3
	deeper, _ := b.Faces(200, 40)
	b.DeeperMm, b.Ground = 0, true
	ground, _ := b.Faces(200, 40)
	assert.NotEqual(t, was.Pixel, deeper.Pixel)
	assert.NotEqual(t, was.Pixel, ground.Pixel)
}

// BenchmarkFace of 1200 × 200 points, both faces.
func BenchmarkFace(b *testing.B) {
	x := etched(b)
	for b.Loop() {
		x.Faces(1200, 200)
	}
}

// TestAWishIsAnswered: what shows now is said, and with the allowance that is named it does show.
func TestAWishIsAnswered(t *testing.T) {
	b := etched(t)
	was := b.Wishes(12)
	require.Len(t, was, 5)
	some := 0
	for _, w := range was {
		if w.Want == billet.WideTurns || w.Want == billet.FineTurns {
			turned := *b
			if turned.Bar.TurnsPer100Mm = w.Turns; w.Shows {
				continue
			}
			for _, is := range turned.Wishes(12) {
				assert.True(t, is.Want != w.Want || is.Shows, "with the turns that are named it shows")
			}
			continue
		}
		if w.Shows {
			some++
			assert.Zero(t, w.FaceMm)
			continue
		}
		if !w.Can || w.Want == billet.Stripes {
			continue
		}
		// the same blade with that allowance left on it
		forged, err := blade.New(b.Finished.Blade.Forged(blade.Allowances{FaceMm: w.FaceMm, OutlineMm: 1.5, ForgingEdgeMm: 1.5}, 0))
		require.NoError(t, err)
		then := *b
		then.Forged = forged
		for _, is := range then.Wishes(12) {
			if is.Want == w.Want {
				assert.InDelta(t, w.Share, is.Now, .12, "%s", w.Want)
			}
		}
	}
	assert.LessOrEqual(t, some, 1)
	for _, w := range b.Wishes(2)[:3] {
		assert.True(t, w.Shows || !w.Can, "a bar of two millimetres has nothing to give")
	}
	b.Bar.Pattern = billet.Ladder
	assert.Empty(t, b.Wishes(12))
}

// TestTheCoreComesOutAtTheBevel: a hard layer between two soft ones shows above the edge, lower where
// it is thinner, and the edge stays in it until it is thinner than the edge.
func TestTheCoreComesOutAtTheBevel(t *testing.T) {
	b := etched(t)
	b.Bar.Pattern = billet.Straight
	three := func(core float64) []billet.Layer {
		return []billet.Layer{{SteelID: "15N20", ThicknessMm: (1 - core) / 2}, {SteelID: "1084", ThicknessMm: core}, {SteelID: "15N20", ThicknessMm: (1 - core) / 2}}
	}
	last := 0.0
	for _, share := range []float64{.25, .35, .45} {
		b.Laid = three(share)
		c, ok := b.CoreOf()
		require.True(t, ok)
		require.Equal(t, "1084", c.SteelID)
		middle := c.UpMm[len(c.UpMm)/2]
		assert.Greater(t, middle, last, "a thicker core comes out higher")
		last = middle
		// and there the face is as far from the middle as the core's skin
		x := c.XMm[len(c.XMm)/2]
		sec, xf := b.Finished.SectionAt(x), x+b.Forged.LengthMm()-b.Finished.LengthMm()
		whole := b.Forged.SectionAt(xf)
		assert.InDelta(t, share*whole.ThicknessAt(b.Finished.EdgeY(x)+middle-b.Forged.EdgeY(xf)), sec.ThicknessAt(middle), 1e-6)
		assert.Equal(t, c.EdgeIn, c.OffMm >= 0)
	}
	b.Laid = three(.02)
	c, _ := b.CoreOf()
	assert.False(t, c.EdgeIn, "thinner than the edge")
	b.Laid = b.Laid[:2]
	_, ok := b.CoreOf()
	assert.False(t, ok)
}
