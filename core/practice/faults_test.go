package practice

import (
	"math"
	"testing"

	"coldember/core/forge"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// barAt is a bar that is hot all along, in a sure hand, as it is played.
func barAt(t testing.TB, width, thickness, tempC float64, change func(g *game)) *game {
	t.Helper()
	ex := bar("test", width, thickness, 150, 1, 1)
	g, err := newGame(&ex, 1)
	require.NoError(t, err)
	g.smith.LandShare = 1
	for i := range g.cells {
		g.cells[i].tempC = tempC
	}
	if change != nil {
		change(g)
	}
	return g
}

func kinds(g *game) map[FaultKind]bool {
	out := map[FaultKind]bool{}
	for _, f := range g.faults {
		out[f.Kind] = true
	}
	return out
}

// do does so often one thing, the bar as hot as it was.
func do(g *game, times int, a Action) {
	for range times {
		temps := make([]float64, len(g.cells))
		for i := range g.cells {
			temps[i] = g.cells[i].tempC
		}
		g.act(&a)
		for i := range g.cells {
			g.cells[i].tempC = temps[i]
		}
	}
}

func strikeAt(at float64, way Way, blows int) Action {
	return Action{Do: Strike, AtMm: at, Way: way, Face: forge.FlatFace, Blows: blows}
}

// TestEachWrongWayHasItsFault: an autopilot that makes each mistake gets that fault and no other, and one that works as it
// should gets none.
func TestEachWrongWayHasItsFault(t *testing.T) {
	for _, c := range []struct {
		name  string
		fault FaultKind // "" for none
		bar   func() *game
		play  func(g *game)
	}{
		{"the end on edge, its corners sharp", Lip, func() *game { return barAt(t, 27, 7, 1050, nil) }, func(g *game) { do(g, 9, strikeAt(8, OnEdge, 3)) }},
		{"its corners broken first", "", func() *game { return barAt(t, 27, 7, 1050, nil) }, func(g *game) {
			do(g, 2, strikeAt(8, Corner, 3))
			do(g, 2, strikeAt(24, Corner, 3))
			do(g, 9, strikeAt(8, OnEdge, 3))
		}},
		{"a thin end on edge", Fold, func() *game { return barAt(t, 25, 5, 1050, broken) }, func(g *game) { do(g, 1, strikeAt(6, OnEdge, 3)) }},
		{"a thin bar on edge", Buckle, func() *game { return barAt(t, 25, 4, 1050, broken) }, func(g *game) { do(g, 1, strikeAt(60, OnEdge, 3)) }},
		{"the ricasso, struck", Ricasso, func() *game { return barAt(t, 25, 6, 1050, func(g *game) { g.keep(40, 90, 6) }) }, func(g *game) {
			for x := 8.0; x < 145; x += 14 { // evenly, so that it is no gouge
				do(g, 1, strikeAt(x, Flat, 2))
				do(g, 1, other(strikeAt(x+7, Flat, 2)))
			}
		}},
		{"bevelled from one side", Uneven, func() *game { return barAt(t, 25, 5, 1050, loose) }, func(g *game) { do(g, 6, strikeAt(30, Bevel, 2)) }},
		{"bevelled from both", "", func() *game { return barAt(t, 25, 5, 1050, loose) }, func(g *game) {
			for range 3 {
				do(g, 1, strikeAt(30, Bevel, 2))
				do(g, 1, other(strikeAt(30, Bevel, 2)))
			}
		}},
		{"one face alone", Bowed, func() *game { return barAt(t, 25, 5, 1050, nil) }, func(g *game) {
			for x := 5.0; x < 150; x += 10 {
				do(g, 1, strikeAt(x, Flat, 8))
			}
		}},
		{"both faces in turn", "", func() *game { return barAt(t, 25, 5, 1050, nil) }, func(g *game) {
			for x := 5.0; x < 150; x += 10 {
				do(g, 1, strikeAt(x, Flat, 1))
				do(g, 1, other(strikeAt(x, Flat, 1)))
			}
		}},
		{"bevels, and not bent against it before", Swept, func() *game { return barAt(t, 25, 5, 1050, nil) }, func(g *game) {
			for range 2 {
				for x := 6.0; x < 120; x += 12 {
					do(g, 1, strikeAt(x, Bevel, 2))
					do(g, 1, other(strikeAt(x, Bevel, 2)))
				}
			}
		}},
		{"into the scale", Pits, func() *game { return barAt(t, 25, 6, 1050, func(g *game) { scaled(g, .3) }) }, func(g *game) { do(g, 1, strikeAt(30, Flat, 1)) }},
		{"brushed first", "", func() *game { return barAt(t, 25, 6, 1050, func(g *game) { scaled(g, .3) }) }, func(g *game) {
			do(g, 1, Action{Do: Brush})
			do(g, 1, strikeAt(30, Flat, 1))
		}},
		{"twice as deep at one place", Gouge, func() *game { return barAt(t, 25, 6, 1050, nil) }, func(g *game) {
			do(g, 1, Action{Do: Strike, AtMm: 60, Way: Flat, Face: forge.PeenAcross, Blows: 12})
		}},
	} {
		t.Run(c.name, func(t *testing.T) {
			g := c.bar()
			c.play(g)
			want := map[FaultKind]bool{}
			if c.fault != "" {
				want[c.fault] = true
			}
			assert.Equal(t, want, kinds(g))
		})
	}
}

// other is the same on the other side.
func other(a Action) Action {
	a.Side = Far
	return a
}

func broken(g *game) {
	for i := range g.cells {
		g.cells[i].sharp = 0
	}
}

// loose lets the bar sweep and bow without blame: what is looked for is another fault.
func loose(g *game) { g.ex.bends = true }

func scaled(g *game, mm float64) {
	for i := range g.cells {
		g.cells[i].scaleMm = mm
	}
}

// TestALipThatIsStruckInIsAColdShut for good, and what is only a shape is worked out again.
func TestALipThatIsStruckInIsAColdShut(t *testing.T) {
	g := barAt(t, 27, 7, 1050, nil)
	do(g, 9, strikeAt(8, OnEdge, 3))
	do(g, 1, strikeAt(8, Flat, 3))
	assert.True(t, kinds(g)[ColdShut])
	do(g, 1, Action{Do: Straighten, AtMm: 30, Way: Flat, Blows: 4})
	assert.True(t, kinds(g)[ColdShut], "it stays")

	g = barAt(t, 22, 5, 1050, bent)
	g.look()
	require.NotEmpty(t, g.faults)
	for range 4 {
		for x := 5.0; x < g.lengthMm(); x += 20 {
			do(g, 1, Action{Do: Straighten, AtMm: x, Way: Flat, Blows: 3})
			do(g, 1, Action{Do: Straighten, AtMm: x, Way: OnEdge, Blows: 3})
		}
	}
	assert.Empty(t, g.faults)
	assert.Less(t, g.strayMm(), .3)
	do(g, 1, Action{Do: Bend, AtMm: 75, Way: OnEdge, Blows: 4})
	assert.Greater(t, g.strayMm(), .4, "bent on purpose")
}

// least is the least of something that brings a fault, found by halving.
func least(low, high float64, faulty func(v float64) bool) float64 {
	for range 30 {
		if mid := (low + high) / 2; faulty(mid) {
			high = mid
		} else {
			low = mid
		}
	}
	return (low + high) / 2
}

// TestThresholdsMoveAsTheirLawsSay: of every fault the least that brings it, found by halving, against its law at other heats,
// thicknesses and tools.
func TestThresholdsMoveAsTheirLawsSay(t *testing.T) {
	type row struct {
		fault     FaultKind
		of        string
		law, is   float64
		tolerance float64
	}
	var rows []row
	add := func(f FaultKind, of string, law, is, tolerance float64) {
		rows = append(rows, row{f, of, law, is, tolerance})
	}
	for _, thick := range []float64{4, 6, 9} {
		add(Buckle, "width of a bar on edge", tallestEdge*thick, least(thick, 20*thick, func(w float64) bool {
			g := barAt(t, w, thick, 1050, broken)
			do(g, 1, strikeAt(75, OnEdge, 1))
			return g.has(Buckle)
		}), .02)
		add(Fold, "width of an end on edge", foldsAt*thick, least(thick, 20*thick, func(w float64) bool {
			g := barAt(t, w, thick, 1050, broken)
			do(g, 1, strikeAt(6, OnEdge, 1))
			return g.has(Fold)
		}), .02)
		add(Lip, "width of an end with sharp corners", lipRatio*thick, least(thick, 4*thick, func(w float64) bool {
			g := barAt(t, w, thick, 1050, nil)
			was := g.cells[1].lip
			do(g, 1, strikeAt(4, OnEdge, 1))
			return g.cells[1].lip > was
		}), .02)
		add(Bowed, "strain on one face of a bar, over its thickness", 8*bowMm/(150*150*bowShare), least(0, 1, func(e float64) bool {
			g := barAt(t, 25, thick, 1050, nil)
			for i := range g.cells {
				g.cells[i].bow = bowShare * e // a bow of a millimetre's thickness: it goes as one over it
			}
			g.look()
			return g.has(Bowed)
		}), .05)
	}
	low := barAt(t, 25, 6, 900, nil).grade.ForgeLowC
	for _, c := range []float64{20, 300, 600, low - 5} {
		law := crackCold * math.Pow(crackWarm/crackCold, (c-20)/(low-20))
		add(Crack, "strain that cold steel bears", law, least(0, 2, func(e float64) bool {
			g := barAt(t, 25, 6, c, nil)
			g.harm(&g.cells[10], e, 25)
			return g.has(Crack)
		}), .01)
	}
	for _, share := range []float64{1, .6, .3} { // of its thickness at the edge
		g := barAt(t, 25, 6, 20, nil)
		limit := g.grade.ForgeHighC + burnsOverC
		thin := 1 - 2*share/(1+share)
		lead := edgeLeads * math.Max(0, thin)
		fire := 1450.0
		add(Burnt, "heat of a cell whose edge is so thin", (limit-lead*fire)/(1-lead), least(800, fire, func(c float64) bool {
			g := barAt(t, 25, 6, c, nil)
			g.ex.FireC = fire
			x := &g.cells[5]
			x.edge *= share
			return g.edgeC(x) > limit
		}), .001)
	}
	for _, thick := range []float64{5, 8} {
		add(Ricasso, "thickness that has to stay", keptShare*thick, least(thick/2, thick, func(v float64) bool {
			g := barAt(t, 25, thick, 1050, func(g *game) { g.keep(40, 60, thick) })
			c := &g.cells[20]
			c.edge, c.spine = v, v
			g.look()
			return !g.has(Ricasso)
		}), .001)
		add(Gouge, "height of one place among its neighbours", gougeShare*thick, least(thick/2, thick, func(v float64) bool {
			g := barAt(t, 25, thick, 1050, nil)
			g.cells[30].edge, g.cells[30].spine = v, v
			g.look()
			return !g.has(Gouge)
		}), .001)
	}
	add(Pits, "scale that is struck in", pitDeepMm/pressedShare, least(0, 1, func(mm float64) bool {
		g := barAt(t, 25, 6, 1050, func(g *game) { scaled(g, mm) })
		do(g, 1, strikeAt(30, Flat, 1))
		return g.has(Pits)
	}), .001)
	add(Uneven, "strain of one side over the other", unevenStrain, least(0, 1, func(e float64) bool {
		g := barAt(t, 25, 6, 1050, nil)
		g.cells[9].side = e
		g.look()
		return g.has(Uneven)
	}), .001)
	add(Twisted, "degrees from end to middle", twistDeg, least(0, 90, func(deg float64) bool {
		g := barAt(t, 25, 6, 1050, nil)
		for i := range g.cells {
			g.cells[i].twist = 2 * deg * math.Pi / 180 / g.lengthMm()
		}
		g.look()
		return g.has(Twisted)
	}), .03)
	add(Swept, "rise of an arc", sweepMm, least(0, 20, func(mm float64) bool {
		g := barAt(t, 25, 6, 1050, nil)
		for i := range g.cells {
			g.cells[i].sweep = 8 * mm / (g.lengthMm() * g.lengthMm())
		}
		g.look()
		return g.has(Swept)
	}), .05)
	for _, r := range rows {
		t.Logf("%-8s %-50s law %8.3f found %8.3f", r.fault, r.of, r.law, r.is)
		assert.InEpsilon(t, r.law, r.is, r.tolerance, "%s: %s", r.fault, r.of)
	}
	seen := map[FaultKind]bool{ColdShut: true} // a lip, struck
	for _, r := range rows {
		seen[r.fault] = true
	}
	for _, k := range FaultKinds() {
		assert.True(t, seen[k], "%s has no row", k)
	}
}

// TestBevelsBendByTheLawOfPlans: edge and spine struck evenly along, the sweep is that of BevelBend for its section.
func TestBevelsBendByTheLawOfPlans(t *testing.T) {
	g := barAt(t, 25, 5, 1050, loose)
	for range 2 {
		for x := 6.0; x < 145; x += 11 {
			do(g, 1, strikeAt(x, Bevel, 2))
			do(g, 1, other(strikeAt(x, Bevel, 2)))
		}
	}
	c := &g.cells[25]
	require.Less(t, c.edge, 3.6)
	assert.Greater(t, c.spine, 4.9)
	assert.Greater(t, c.wide, 25.2, "it spreads")
	assert.InEpsilon(t, g.bend(c, forge.PinchOut), c.sweep, .02)
	pushed := barAt(t, 25, 5, 1050, loose)
	a := strikeAt(60, Bevel, 4)
	a.Method = forge.PushIn
	do(pushed, 1, a)
	pinched := barAt(t, 25, 5, 1050, loose)
	do(pinched, 1, strikeAt(60, Bevel, 4))
	assert.Less(t, pushed.cells[24].wide, pinched.cells[24].wide, "pushed in, it gains less width")
}

// TestOverTheEdgeOnlyWhatLiesBeyondIsStruck, and over horn and fuller less of the face bears.
func TestOverTheEdgeOnlyWhatLiesBeyondIsStruck(t *testing.T) {
	g := barAt(t, 24, 9, 1050, nil)
	a := strikeAt(30, Flat, 4)
	a.Support = forge.OverEdge
	at := g.middles()
	do(g, 1, a)
	for i := range g.cells {
		if at[i] > 30 {
			assert.InDelta(t, 9, g.cells[i].thick(), 1e-9)
		}
	}
	assert.Less(t, g.cells[10].thick(), 8.8)
	face, horn := barAt(t, 24, 9, 1050, nil), barAt(t, 24, 9, 1050, nil)
	do(face, 1, strikeAt(60, Flat, 2))
	b := strikeAt(60, Flat, 2)
	b.Support = forge.OverHorn
	do(horn, 1, b)
	assert.Less(t, horn.cells[24].thick(), face.cells[24].thick(), "over the horn it bites deeper")
	share := func(g *game) float64 { return math.Log(g.cells[24].wide/24) / math.Log(9/g.cells[24].thick()) }
	assert.Less(t, share(horn), share(face), "and sends less of it into width")
}
