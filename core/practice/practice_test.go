package practice

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"coldember/core/colour"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner/plantest"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func play(t require.TestingT, ex string, actions []Action) *Played {
	p, err := Play(context.Background(), Find(ex), 3, colour.LitShop, actions)
	require.NoError(t, err)
	return p
}

func fire(s float64) Action { return Action{Do: ToFire, Seconds: s} }

func hit(at float64, way Way, face forge.Face, blows int) Action {
	return Action{Do: Strike, AtMm: at, Way: way, Face: face, Blows: blows}
}

// untilHot is how long the fire takes to bring the working end to so much.
func untilHot(t require.TestingT, ex string, actions []Action, tempC float64) float64 {
	for s := 20.0; s < 600; s += 10 {
		p := play(t, ex, append(append([]Action{}, actions...), fire(s)))
		if p.Places[6].TempC >= tempC {
			return s
		}
	}
	return 600
}

// TestNothingIsLostButScale: whatever is done, what is left and what the fire took is what there was; the piece has no hole, and
// the same actions make the same piece.
func TestNothingIsLostButScale(t *testing.T) {
	rng := rand.New(rand.NewPCG(1, 2))
	for _, ex := range Exercises() {
		actions := []Action{fire(150)}
		for range 25 {
			if rng.IntN(8) == 0 {
				actions = append(actions, fire(20+60*rng.Float64()))
				continue
			}
			way := []Way{Flat, Flat, OnEdge, OnEnd, Corner, Bevel}[rng.IntN(6)]
			a := hit(80*rng.Float64(), way, forge.DrawingFaces()[rng.IntN(4)], 1+rng.IntN(6))
			a.Side, a.Support = []Side{Near, Far}[rng.IntN(2)], forge.Supports()[rng.IntN(4)]
			if k := rng.IntN(8); k < 2 {
				a = Action{Do: []Do{Straighten, Bend}[k], Way: []Way{Flat, OnEdge}[rng.IntN(2)], AtMm: a.AtMm, Blows: 3, Side: a.Side}
			} else if k == 2 {
				a = Action{Do: []Do{Brush, Wait}[rng.IntN(2)], Seconds: 2}
			}
			actions = append(actions, a)
		}
		p := play(t, ex.ID, actions)
		again := play(t, ex.ID, actions)
		require.Equal(t, p, again)
		sum, length := 0.0, 0.0
		g, err := newGame(&ex, 3)
		require.NoError(t, err)
		for i := range actions {
			g.act(&actions[i])
		}
		for i := range g.cells {
			c := &g.cells[i]
			require.Positive(t, c.longMm())
			sum, length = sum+c.wide*c.thick()*c.longMm(), length+c.longMm()
		}
		assert.InEpsilon(t, ex.WidthMm*ex.ThicknessMm*ex.LengthMm, sum+g.scaleMm3, 1e-9)
		assert.InDelta(t, p.LengthMm, length, 1e-9)
		one, err := Play(context.Background(), &ex, 4, colour.LitShop, actions)
		require.NoError(t, err)
		assert.NotEqual(t, p.Places, one.Places, "another hand lands other blows")
	}
}

// TestABlowIsTheStrokeOfThePlan: what lies under the face is thinned, on the mean, by the one law.
func TestABlowIsTheStrokeOfThePlan(t *testing.T) {
	ex := Find("cold")
	g, err := newGame(ex, 1)
	require.NoError(t, err)
	for i := range g.cells {
		g.cells[i].tempC = 1050
	}
	tool := g.smith.Tool(forge.PeenAcross)
	a := hit(60, Flat, forge.PeenAcross, 1)
	first, last := g.under(&a, tool.BiteMm)
	was := append([]cell(nil), g.cells...)
	g.blow(&a, tool, g.smith.UsefulJ())
	strain, all, bite := 0.0, 0.0, 0.0
	for i := first; i <= last; i++ {
		strain, all = strain+math.Log(was[i].thick()/g.cells[i].thick())*was[i].mm3, all+was[i].mm3
		bite += was[i].longMm()
	}
	flow := 1050.0
	s := forge.Stroke{HeightMm: 6, BiteMm: bite, BreadthMm: 25, StressMPa: stressOf(g, flow, 6), UsefulJ: g.smith.UsefulJ(), TargetMm: .2, TempC: flow}
	assert.InEpsilon(t, s.Strike().Strain, strain/all, 1e-6)
	for i := range g.cells {
		if i < first || i > last {
			assert.Equal(t, was[i].thick(), g.cells[i].thick(), "and nothing else")
		}
	}
}

// TestEveryExerciseCanBeDone by the tools at hand, near its par, with nothing wrong with the piece.
func TestEveryExerciseCanBeDone(t *testing.T) {
	for _, ex := range Exercises() {
		t.Run(ex.ID, func(t *testing.T) {
			t.Parallel()
			actions, err := Pilot(context.Background(), &ex, 3)
			require.NoError(t, err)
			p := play(t, ex.ID, actions)
			t.Log(p.Heats, p.Blows, p.Marks, p.Faults, len(actions))
			require.True(t, p.Done)
			assert.InDelta(t, ex.ParHeats, p.Heats, .4*float64(ex.ParHeats)+1)
			assert.InDelta(t, ex.ParBlows, p.Blows, .4*float64(ex.ParBlows)+5)
		})
	}
}

// TestEachMistakeHasItsFault, and no other.
func TestEachMistakeHasItsFault(t *testing.T) {
	kinds := func(p *Played) map[FaultKind]bool {
		out := map[FaultKind]bool{}
		for _, f := range p.Faults {
			out[f.Kind] = true
		}
		return out
	}
	hot := untilHot(t, "cold", nil, 1060)
	assert.Empty(t, kinds(play(t, "cold", []Action{fire(hot), hit(20, Flat, forge.FlatFace, 4), hit(35, Flat, forge.FlatFace, 4)})))
	cold := []Action{}
	for range 25 { // straight from the rack
		cold = append(cold, hit(20, Flat, forge.FlatFace, 12), hit(30, Flat, forge.FlatFace, 12), hit(25, Flat, forge.FlatFace, 12))
	}
	p := play(t, "cold", cold)
	assert.Equal(t, map[FaultKind]bool{Crack: true}, kinds(p))
	assert.Positive(t, p.Cold)
	gouge := []Action{fire(hot), hit(40, Flat, forge.PeenAcross, 20)}
	assert.Equal(t, map[FaultKind]bool{Gouge: true}, kinds(play(t, "cold", gouge)))
	thin := []Action{fire(hot)}
	for range 7 {
		for x := 8.0; x < 70; x += 8 {
			thin = append(thin, hit(x, Flat, forge.FlatFace, 2), other(hit(x, Flat, forge.FlatFace, 1)))
		}
		thin = append(thin, fire(untilHot(t, "cold", thin, 1040)))
	}
	was := play(t, "cold", thin)
	require.Empty(t, kinds(was))
	require.Greater(t, was.Places[8].WideMm/was.Places[8].ThickMm, tallestEdge)
	assert.Equal(t, map[FaultKind]bool{Buckle: true}, kinds(play(t, "cold", append(thin, hit(30, OnEdge, forge.FlatFace, 2)))))
	ex := *Find("cold")
	ex.FireC = 1450
	g, err := newGame(&ex, 1)
	require.NoError(t, err)
	g.fire(500, 0)
	require.NotEmpty(t, g.faults)
	for _, f := range g.faults {
		assert.Equal(t, Burnt, f.Kind)
	}
}

// TestSteelBearsMoreTheWarmerItIs: how often it is struck until it cracks, found out blow by blow, grows with its heat.
func TestSteelBearsMoreTheWarmerItIs(t *testing.T) {
	last := 0.0
	for _, c := range []float64{20, 200, 400, 600, 750} {
		g, err := newGame(Find("cold"), 1)
		require.NoError(t, err)
		strain := 0.0
		for n := 0; len(g.faults) == 0 && n < 4000; n++ {
			for i := range g.cells {
				g.cells[i].tempC = c
			}
			a := hit(40, Flat, forge.PeenAcross, 1)
			i, _ := g.under(&a, 6)
			was := g.cells[i].thick()
			g.blow(&a, g.smith.Tool(forge.PeenAcross), g.smith.UsefulJ()*.2)
			strain += math.Log(was / g.cells[i].thick())
		}
		require.NotEmpty(t, g.faults, "%g", c)
		assert.Greater(t, strain, last)
		last = strain
	}
	assert.InDelta(t, crackCold, bears(20, 850), 1e-12)
	assert.InDelta(t, crackWarm, bears(850, 850), 1e-12)
}

// TestWhatCannotBePlayedIsTold at its action; striking where nothing is, is answered as the anvil would.
func TestWhatCannotBePlayedIsTold(t *testing.T) {
	for _, bad := range [][]Action{{{}}, {{Do: ToFire}}, {{Do: Strike, Way: Flat, Face: forge.FlatFace}}, {{Do: Strike, Way: "side", Face: forge.FlatFace, Blows: 1}}, {{Do: Strike, Way: Flat, Face: "fist", Blows: 1}}, {{Do: ToFire, Seconds: math.NaN()}}, make([]Action, MostActions+1)} {
		_, err := Play(context.Background(), Find("cold"), 1, colour.LitShop, bad)
		require.Error(t, err)
	}
	_, err := Play(context.Background(), Find("none"), 1, colour.LitShop, nil)
	require.Error(t, err)
	gone, stop := context.WithCancel(context.Background())
	stop()
	_, err = Play(gone, Find("cold"), 1, colour.LitShop, []Action{fire(10)})
	require.ErrorIs(t, err, context.Canceled)
	p := play(t, "cold", []Action{hit(400, Flat, forge.FlatFace, 3)})
	assert.Equal(t, "coach.nothing", p.Said[0].Code)
	assert.Zero(t, p.Blows)
	p = play(t, "cold", []Action{hit(40, Flat, forge.FlatFace, 3)})
	assert.Equal(t, 3, p.Cold)
	assert.Less(t, math.Abs(p.LengthMm-150), 1., "cold steel hardly moves")
}

// BenchmarkBlow is a play of two hundred actions, and its last blow.
func BenchmarkBlow(b *testing.B) {
	var actions []Action
	for i := range 200 {
		if i%20 == 0 {
			actions = append(actions, fire(90))
		} else {
			actions = append(actions, hit(10+float64(i%12)*5, Flat, forge.FlatFace, 3))
		}
	}
	for b.Loop() {
		play(b, "taper", actions)
	}
}

func stressOf(g *game, tempC, highMm float64) float64 {
	f := steel.NewFlow(g.grade.CarbonPct, tempC, g.smith.SpeedMPerS*1000/(2*highMm))
	return f.StressMPa(mostStrain) * g.grade.FlowFactor
}

// TestAPieceOfWorkIsAnExercise: its bar, its hand and its forged shape; what is no bar is refused. Thinned where it is
// too thick, it comes nearer to it.
func TestAPieceOfWorkIsAnExercise(t *testing.T) {
	req := plantest.Request()
	p := plantest.Make(t, req)
	ex, err := OfPlan("piece", &req, p)
	require.NoError(t, err)
	assert.InEpsilon(t, p.Bar.StartMm3, ex.WidthMm*ex.ThicknessMm*ex.LengthMm, 1e-9)
	assert.Greater(t, len(ex.Goals), 8)
	off := func(p *Played) (sum float64) {
		for _, m := range p.Marks {
			if m.What == Thick && m.ToMm < 55 { // where it is struck
				sum += math.Abs(m.IsMm-m.WantMm) / m.WithinMm
			}
		}
		return sum
	}
	begin, err := Play(context.Background(), ex, 1, colour.LitShop, nil)
	require.NoError(t, err)
	actions := []Action{}
	for range 4 {
		actions = append(actions, Action{Do: ToFire, Seconds: 110, AtMm: 30})
		for x := 8.0; x < 50; x += 9 {
			actions = append(actions, hit(x, Flat, forge.FlatFace, 3))
		}
	}
	after, err := Play(context.Background(), ex, 1, colour.LitShop, actions)
	require.NoError(t, err)
	assert.Less(t, off(after), off(begin))
	tang := []Action{{Do: ToFire, Seconds: 110, AtMm: ex.LengthMm}}
	far, err := Play(context.Background(), ex, 1, colour.LitShop, tang)
	require.NoError(t, err)
	assert.Greater(t, far.Places[len(far.Places)-3].TempC, far.Places[2].TempC+200, "the other end is in the fire")
	p.Totals.Heats = 0
	_, err = OfPlan("piece", &req, p)
	require.Error(t, err, "nothing of it is forged")
}

// TestTooMuchThatStandsFreeBends, and a short hot end is driven together.
func TestTooMuchThatStandsFreeBends(t *testing.T) {
	end := func(hotMm float64) (*game, float64) {
		ex := Exercise{SteelID: "1084", WidthMm: 16, ThicknessMm: 12, LengthMm: 120, FireC: 1150, HotMm: 60}
		g, err := newGame(&ex, 1)
		require.NoError(t, err)
		for i, x := range g.middles() {
			if x < hotMm {
				g.cells[i].tempC = 1050
			}
		}
		was := g.lengthMm()
		for range 10 {
			g.drive(g.smith.UsefulJ())
		}
		return g, was - g.lengthMm()
	}
	short, by := end(20)
	assert.Empty(t, short.faults)
	assert.Greater(t, by, .5)
	assert.Greater(t, short.cells[1].thick(), 12.2)
	long, by := end(80)
	assert.Equal(t, Buckle, long.faults[0].Kind)
	assert.Zero(t, by)
	last := 0.0
	for hot := 10.0; hot < 80; hot += 2.5 { // the threshold is three thicknesses
		if g, _ := end(hot); len(g.faults) == 0 {
			last = hot
		}
	}
	assert.InDelta(t, freeTimes*12, last, 3)
}

// TestAnyPieceIsAnExercise: of every form of stock and way to begin, its steel is what its plan begins with.
func TestAnyPieceIsAnExercise(t *testing.T) {
	sheet := plantest.Request()
	sheet.Choices.Start, sheet.Bar = plan.FromSheet, plantest.Flat(200, 5, 600)
	bit := plantest.Request()
	bit.Bit = plan.NewBit(plan.CleftBit, &bit, 25, 5)
	rod := plantest.Request()
	rod.Choices.Holding, rod.Bar = plan.WeldedRod, stock.Item{Form: stock.Roller, DiameterMm: 30, LengthMm: 70}
	for name, req := range map[string]plan.Request{"bar": plantest.Request(), "sheet": sheet, "bit": bit, "rod and lump": rod} {
		p := plantest.Make(t, req)
		ex, err := OfPlan(name, &req, p)
		require.NoError(t, err, name)
		g, err := newGame(ex, 1)
		require.NoError(t, err, name)
		sum := 0.0
		for i := range g.cells {
			sum += g.cells[i].mm3
		}
		assert.InEpsilon(t, p.Bar.StartMm3+p.Bar.RodMm3, sum, .01, name)
		assert.Empty(t, g.faults, name)
		_, err = Play(context.Background(), ex, 1, colour.LitShop, []Action{fire(90), hit(30, Flat, forge.FlatFace, 3)})
		require.NoError(t, err, name)
	}
}

// TestAdviceIsWhatThePilotDoes, and the heats of a play are its states one after the other.
func TestAdviceIsWhatThePilotDoes(t *testing.T) {
	ex := Find("cold")
	way, err := Pilot(context.Background(), ex, 3)
	require.NoError(t, err)
	first, err := Advise(context.Background(), ex, 3, nil)
	require.NoError(t, err)
	assert.Equal(t, ToFire, first.Action.Do)
	next, err := Advise(context.Background(), ex, 3, way[:2])
	require.NoError(t, err)
	assert.Equal(t, way[2], next.Action)
	end, err := Advise(context.Background(), ex, 3, way)
	require.NoError(t, err)
	assert.True(t, end.Done)
	heats, err := Heats(context.Background(), ex, 3, colour.LitShop, way)
	require.NoError(t, err)
	p := play(t, "cold", way)
	assert.Len(t, heats, p.Heats+1)
	assert.Equal(t, p.Places, heats[len(heats)-1].After.Places)
	_, err = Heats(context.Background(), ex, 3, colour.LitShop, []Action{{Do: "dance"}})
	require.Error(t, err)
}

// TestTheCoachLeavesOff where nothing brings a piece nearer: after some trips in vain it says what it would do instead,
// and never sends it into the fire for ever.
func TestTheCoachLeavesOff(t *testing.T) {
	req := plantest.Request()
	ex, err := OfPlan("piece", &req, plantest.Make(t, req))
	require.NoError(t, err)
	way, err := Pilot(context.Background(), ex, 1)
	require.NoError(t, err)
	for range 2 * pilotInVain {
		a, err := Advise(context.Background(), ex, 1, way)
		require.NoError(t, err)
		if a.Instead != "" {
			require.NotNil(t, a.Worst)
			assert.False(t, a.Worst.Met)
			assert.Equal(t, a.Worst.IsMm > a.Worst.WantMm, a.Instead == Grind)
			return
		}
		require.False(t, a.Done)
		way = append(way, a.Action)
	}
	require.Fail(t, "it goes on for ever")
}
