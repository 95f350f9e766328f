package stock_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

var lumps = map[string]stock.Item{
	"ball":    {Form: stock.Ball, DiameterMm: 45},
	"roller":  {Form: stock.Roller, DiameterMm: 24, LengthMm: 36},
	"cone":    {Form: stock.TaperedRound, StartDiameterMm: 30, EndDiameterMm: 22, LengthMm: 40},
	"rasp":    {Form: stock.TaperedFlat, StartWidthMm: 40, EndWidthMm: 20, StartThicknessMm: 8, EndThicknessMm: 5, LengthMm: 300},
	"coil":    {Form: stock.Coil, WireDiameterMm: 13, MeanDiameterMm: 110, PitchMm: 40, Turns: 2.5},
	"leaf":    {Form: stock.Leaf, WidthMm: 60, ThicknessMm: 8, ChordMm: 700, RiseMm: 90},
	"race":    {Form: stock.Race, OuterDiameterMm: 120, InnerDiameterMm: 100, WidthMm: 28},
	"cable":   {Form: stock.Cable, DiameterMm: 25, LengthMm: 300, SolidFraction: .62},
	"layers":  {Form: stock.Layers, WidthMm: 40, LengthMm: 120, Layers: []stock.Layer{{Count: 7, ThicknessMm: 3}}},
	"chain":   {Form: stock.Chain, WireDiameterMm: 12, LinkLengthMm: 70, LinkWidthMm: 42, Links: 1},
	"flat":    {Form: stock.Flat, WidthMm: 40, ThicknessMm: 6, LengthMm: 610},
	"round":   {Form: stock.Round, DiameterMm: 12, LengthMm: 400},
	"hexagon": {Form: stock.Hex, AcrossFlatsMm: 20, LengthMm: 200},
}

// TestAStartHoldsTheVolumeOfItsPiece whatever the form.
func TestAStartHoldsTheVolumeOfItsPiece(t *testing.T) {
	for name, p := range lumps {
		solid, err := p.Solid()
		require.NoError(t, err, name)
		s, err := p.Even()
		require.NoError(t, err, name)
		assert.InEpsilon(t, solid.VolumeMm3, s.AreaMm2*s.WholeMm+s.PrepLossMm3, 1e-9, name)
		assert.GreaterOrEqual(t, s.WidthMm, s.ThicknessMm, name)
		assert.Equal(t, name == "coil" || name == "leaf" || name == "race" || name == "chain", s.BendRadiusMm > 0, name)
	}
}

func TestEveryFormHasAUsualSizeThatIsOne(t *testing.T) {
	for _, f := range stock.Forms() {
		_, err := stock.Usual(f).Solid()
		require.NoError(t, err, f)
		if _, err = stock.Usual(f).Even(); f != stock.Tube {
			require.NoError(t, err, f)
		}
	}
}

func TestNewFormsMatchClosedForms(t *testing.T) {
	for name, c := range map[string]struct {
		p    stock.Item
		want float64
	}{
		"race":      {lumps["race"], math.Pi / 4 * (120*120 - 100*100) * 28},
		"half disc": {stock.Item{Form: stock.Disc, DiameterMm: 400, InnerDiameterMm: 50, ThicknessMm: 5, ShareFraction: .5, StripWidthMm: 45}, math.Pi / 8 * (400*400 - 50*50) * 5},
		"link":      {lumps["chain"], math.Pi / 4 * 144 * (math.Pi*30 + 2*28)},
		"tube":      {stock.Item{Form: stock.Tube, DiameterMm: 30, WallMm: 3, LengthMm: 100}, math.Pi / 4 * (900 - 576) * 100},
	} {
		s, err := c.p.Solid()
		require.NoError(t, err, name)
		assert.InEpsilon(t, c.want, s.VolumeMm3, 1e-9, name)
	}
	// teeth of 0.5 mm off both faces of an even flat 20 × 6
	file := stock.Item{Form: stock.TaperedFlat, StartWidthMm: 20, EndWidthMm: 20, StartThicknessMm: 6, EndThicknessMm: 6, LengthMm: 200, TeethMm: .5}
	s, err := file.Even()
	require.NoError(t, err)
	assert.InDelta(t, 5, s.ThicknessMm, 1e-9)
	assert.InDelta(t, 20*200, s.PrepLossMm3, 1e-6)
	// a strip across a whole disc is as long as the chord at its edges
	strip, err := stock.Item{Form: stock.Disc, DiameterMm: 100, ThicknessMm: 5, ShareFraction: 1, StripWidthMm: 60}.Even()
	require.NoError(t, err)
	assert.InDelta(t, 80, strip.WholeMm, 1e-9)
}

func TestDeadStretchesLeaveTheLongestBetweenThem(t *testing.T) {
	p := lumps["flat"]
	p.Dead = []stock.Dead{{FromMm: 300, ToMm: 320, Why: "hole"}, {FromMm: 0, ToMm: 40, Why: "wear"}, {FromMm: 310, ToMm: 330, Why: "crack"}}
	s, err := p.Even()
	require.NoError(t, err)
	assert.Equal(t, []stock.Span{{FromMm: 40, ToMm: 300}, {FromMm: 330, ToMm: 610}}, p.Usable(610))
	assert.InDelta(t, 330, s.FromMm, 1e-9)
	assert.InDelta(t, 280, s.LengthMm, 1e-9)
}

// TestMarksOnATaperedPieceLieWhereItsVolumeReaches: laid end to end they take it
// up.
func TestMarksOnATaperedPieceLieWhereItsVolumeReaches(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := stock.Item{
			Form: stock.TaperedFlat, LengthMm: rapid.Float64Range(100, 400).Draw(t, "l"),
			StartWidthMm: rapid.Float64Range(20, 50).Draw(t, "w0"), EndWidthMm: rapid.Float64Range(10, 50).Draw(t, "w1"),
			StartThicknessMm: rapid.Float64Range(4, 12).Draw(t, "t0"), EndThicknessMm: rapid.Float64Range(3, 12).Draw(t, "t1"),
		}
		s, err := p.Even()
		require.NoError(t, err)
		solid, err := p.Solid()
		require.NoError(t, err)
		require.InDelta(t, p.LengthMm, p.AtVolume(s, solid.VolumeMm3), 1e-6*p.LengthMm)
		half := p.AtVolume(s, solid.VolumeMm3/2)
		first := p
		first.LengthMm = half
		u := half / p.LengthMm
		first.EndWidthMm = p.StartWidthMm + (p.EndWidthMm-p.StartWidthMm)*u
		first.EndThicknessMm = p.StartThicknessMm + (p.EndThicknessMm-p.StartThicknessMm)*u
		part, err := first.Solid()
		require.NoError(t, err)
		require.InEpsilon(t, solid.VolumeMm3/2, part.VolumeMm3, 1e-6)
	})
}

func TestContradictoryPiecesNameTheDimension(t *testing.T) {
	for field, p := range map[string]stock.Item{
		"innerDiameterMm": {Form: stock.Race, OuterDiameterMm: 50, InnerDiameterMm: 60, WidthMm: 10},
		"wallMm":          {Form: stock.Tube, DiameterMm: 30, WallMm: 15, LengthMm: 100},
		"shareFraction":   {Form: stock.Disc, DiameterMm: 300, ThicknessMm: 5, ShareFraction: 1.5, StripWidthMm: 40},
		"stripWidthMm":    {Form: stock.Disc, DiameterMm: 300, InnerDiameterMm: 60, ThicknessMm: 5, ShareFraction: 1, StripWidthMm: 130},
		"linkWidthMm":     {Form: stock.Chain, WireDiameterMm: 12, LinkLengthMm: 70, LinkWidthMm: 24, Links: 3},
		"teethMm":         {Form: stock.TaperedFlat, StartWidthMm: 20, EndWidthMm: 20, StartThicknessMm: 4, EndThicknessMm: 4, LengthMm: 200, TeethMm: 2},
		"dead.0":          {Form: stock.Flat, WidthMm: 20, ThicknessMm: 4, LengthMm: 100, Dead: []stock.Dead{{FromMm: 50, ToMm: 40}}},
		"dead":            {Form: stock.Flat, WidthMm: 20, ThicknessMm: 4, LengthMm: 100, Dead: []stock.Dead{{FromMm: 0, ToMm: 100}}},
		"form":            {Form: stock.Tube, DiameterMm: 30, WallMm: 3, LengthMm: 100},
	} {
		_, err := p.Even()
		var se *stock.Error
		require.True(t, errors.As(err, &se), "%s: %v", field, err)
		assert.Equal(t, field, se.Field)
	}
}
