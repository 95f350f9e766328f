package billet_test

import (
	"math"
	"testing"

	"coldember/core/billet"
	"coldember/core/fact"
	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// TestJoinedBarsKeepTheirSteel: what was laid, the edge with it, is what is left and what went; the
// shares are of all of it, and the edge's is its part of the width.
func TestJoinedBarsKeepTheirSteel(t *testing.T) {
	fire := forge.NewFire()
	rapid.Check(t, func(rt *rapid.T) {
		r := billet.NewRecipe("1084", "15N20")
		r.Beside, r.Alternate = rapid.IntRange(1, 5).Draw(rt, "beside"), true
		r.EdgeMm = rapid.Float64Range(0, 15).Draw(rt, "edge")
		r.EdgeSteelID = "80CrV2"
		o, err := r.Out(fire)
		require.NoError(rt, err)
		lost, sum, edge := 0.0, 0.0, 0.0
		for _, l := range o.Lost {
			lost += l.G
		}
		for _, s := range o.Shares {
			sum += s.Share
			if s.SteelID == "80CrV2" {
				edge = s.Share
			}
		}
		assert.InEpsilon(rt, o.LaidG, o.MassG+lost, 1e-9)
		assert.InDelta(rt, 1, sum, 1e-9)
		assert.InDelta(rt, r.EdgeMm/r.BarWidthMm, edge, 1e-9)
		assert.InEpsilon(rt, o.MassG, o.LengthMm*r.BarWidthMm*r.BarThicknessMm*7.85e-3, 2e-3, "and it is the bar")
		if r.Beside > 1 || r.EdgeMm > 0 {
			assert.Positive(rt, o.JoinedG, "welding them burns some")
		} else {
			assert.Zero(rt, o.JoinedG)
		}
	})
}

// TestAnEdgeBarIsTheEdge: every point below the seam is of the edge bar and none above it is, the
// seam where even spread has it; where it comes too near to the edge that is told in the same figure.
func TestAnEdgeBarIsTheEdge(t *testing.T) {
	b := etched(t)
	b.Tones["80CrV2"] = billet.Grey // of its own tone, to be seen
	whole := b.Bar.ForgedWidthMm
	b.Join = billet.Join{Bars: 1, EdgeSteelID: "80CrV2", EdgeMm: whole / 3}
	b.Bar.ForgedWidthMm = whole * 2 / 3
	const nx, ny = 90, 60
	front, back := b.Faces(nx, ny)
	shift := b.Forged.LengthMm() - b.Finished.LengthMm()
	least, tall := math.Inf(1), 0.0
	for x := 1.0; x < b.Finished.LengthMm(); x++ {
		tall = math.Max(tall, b.Finished.SectionAt(x).HeightMm)
	}
	for i := range nx {
		x := b.Finished.LengthMm() * (float64(i) + .5) / nx
		fin, forged := b.Finished.SectionAt(x), b.Forged.SectionAt(x+shift)
		seam := b.Forged.EdgeY(x+shift) + forged.HeightMm/3 - b.Finished.EdgeY(x) // nothing eaten here
		if fin.HeightMm >= tall/2 {
			least = math.Min(least, seam)
		}
		for j := range ny {
			up := front.ToY - (front.ToY-front.FromY)*(float64(j)+.5)/ny - b.Finished.EdgeY(x)
			if up < .6 || up > fin.HeightMm-.6 || math.Abs(up-seam) < .6 {
				continue
			}
			for _, p := range []byte{front.Pixel[j*nx+i], back.Pixel[j*nx+i]} {
				assert.Equal(t, up < seam, p == 138, "%v up at %v, the seam at %v", up, x, seam)
			}
		}
	}
	up, _, ok := b.Seam()
	require.True(t, ok)
	assert.InDelta(t, least, up, .25, "looked at in other places")
	b.Join.EdgeMm = 0
	_, _, ok = b.Seam()
	assert.False(t, ok)
}

// TestBarsLieSideBySide: two that turn alike show the same at the same place of each, and one that
// turns the other way shows what the first does turned over end for end.
func TestBarsLieSideBySide(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		bar := billet.Bar{Pattern: billet.Twist, WidthMm: 18, ThicknessMm: 18, Layers: 13, TurnsPer100Mm: rapid.Float64Range(1, 12).Draw(rt, "turns"), ForgedWidthMm: 10, ForgedThicknessMm: 6}
		other := bar
		other.Hand = billet.Left
		p := billet.Point{XMm: rapid.Float64Range(0, 100).Draw(rt, "x"), YMm: rapid.Float64Range(-4.9, 4.9).Draw(rt, "y"), DepthShare: rapid.Float64Range(.05, 1).Draw(rt, "deep"), Side: 1}
		q := p
		q.XMm = -p.XMm
		assert.InDelta(rt, bar.LayerAt(p), other.LayerAt(q), 1e-9)
	})
	b := etched(t)
	w := b.Bar.ForgedWidthMm
	b.Bar.ForgedWidthMm = w / 2
	b.Join = billet.Join{Bars: 2, Alternate: true}
	herring, _ := b.Faces(120, 80)
	b.Join.Alternate = false
	alike, _ := b.Faces(120, 80)
	upper, lower := 0, 0
	for i, v := range herring.Pixel {
		if v == alike.Pixel[i] {
			continue
		}
		if i/120 < 40 {
			upper++
		} else {
			lower++
		}
	}
	assert.Greater(t, upper, 10*max(1, lower), "the second lies above the first, and it alone is turned")
}

// TestAnEdgeOfNoKnownSteel is refused at its field.
func TestAnEdgeOfNoKnownSteel(t *testing.T) {
	r := billet.NewRecipe("1084", "15N20")
	r.EdgeMm, r.EdgeSteelID = 6, "unobtainium"
	c := fact.NewCheck()
	r.Validate(c)
	var bad fact.FieldErrors
	require.ErrorAs(t, c.Err(), &bad)
	assert.Equal(t, "edgeSteelId", bad[0].Field)
}
