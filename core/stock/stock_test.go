package stock_test

import (
	"errors"
	"math"
	"testing"

	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestVolumesMatchClosedForms(t *testing.T) {
	for name, c := range map[string]struct {
		p    stock.Item
		want float64
	}{
		"flat":          {stock.Item{Form: stock.Flat, WidthMm: 25, ThicknessMm: 5, LengthMm: 100}, 12500},
		"square":        {stock.Item{Form: stock.Square, SideMm: 12, LengthMm: 100}, 14400},
		"round":         {stock.Item{Form: stock.Round, DiameterMm: 20, LengthMm: 100}, math.Pi * 100 * 100},
		"hexagon":       {stock.Item{Form: stock.Hex, AcrossFlatsMm: 20, LengthMm: 10}, 2 * math.Sqrt(3) * 100 * 10},
		"octagon":       {stock.Item{Form: stock.Octagon, AcrossFlatsMm: 20, LengthMm: 10}, 8 * (math.Sqrt2 - 1) * 100 * 10},
		"ball":          {stock.Item{Form: stock.Ball, DiameterMm: 30}, 4. / 3 * math.Pi * 15 * 15 * 15},
		"cone":          {stock.Item{Form: stock.TaperedRound, StartDiameterMm: 20, EndDiameterMm: 20, LengthMm: 30}, math.Pi * 100 * 30},
		"straight leaf": {stock.Item{Form: stock.Leaf, WidthMm: 60, ThicknessMm: 8, ChordMm: 500}, 240000},
		"half circle":   {stock.Item{Form: stock.Leaf, WidthMm: 10, ThicknessMm: 1, ChordMm: 200, RiseMm: 100}, 10 * math.Pi * 100},
		"layers":        {stock.Item{Form: stock.Layers, WidthMm: 40, LengthMm: 100, Layers: []stock.Layer{{Count: 4, ThicknessMm: 3}, {Count: 3, ThicknessMm: 2}}}, 72000},
	} {
		s, err := c.p.Solid()
		require.NoError(t, err, name)
		assert.InEpsilon(t, c.want, s.VolumeMm3, 1e-9, name)
		assert.InEpsilon(t, c.want*7.85/1000, s.MassG, 1e-9, name)
	}
}

func TestImpossiblePiecesNameTheDimension(t *testing.T) {
	for field, p := range map[string]stock.Item{
		"widthMm":    {Form: stock.Flat, ThicknessMm: 5, LengthMm: 100},
		"lengthMm":   {Form: stock.Round, DiameterMm: 12},
		"diameterMm": {Form: stock.Ball, DiameterMm: math.Inf(1)},
		"riseMm":     {Form: stock.Leaf, WidthMm: 10, ThicknessMm: 1, ChordMm: 100, RiseMm: 60},
		"holes":      {Form: stock.Flat, WidthMm: 10, ThicknessMm: 5, LengthMm: 20, Holes: []stock.Hole{{DiameterMm: 40, ThroughMm: 5}}},
		"form":       {Form: "cloud"},
		"sideMm":     {Form: stock.Square, SideMm: math.NaN(), LengthMm: 10},
	} {
		_, err := p.Solid()
		var se *stock.Error
		require.True(t, errors.As(err, &se), field)
		assert.Equal(t, field, se.Field)
	}
}

func TestBarsArePlannedFromARectangleOfTheirArea(t *testing.T) {
	for _, f := range stock.Bars() {
		p := stock.Item{Form: f, WidthMm: 6, ThicknessMm: 25, SideMm: 12, DiameterMm: 12, AcrossFlatsMm: 12, LengthMm: 100}
		b, err := p.Bar()
		require.NoError(t, err, f)
		assert.InEpsilon(t, b.AreaMm2, b.WidthMm*b.ThicknessMm, 1e-12, f)
		assert.GreaterOrEqual(t, b.WidthMm, b.ThicknessMm, "the wide side is the width, however it was typed")
		s, err := p.Solid()
		require.NoError(t, err, f)
		assert.InEpsilon(t, s.VolumeMm3, b.AreaMm2*100, 1e-12, f)
	}
	_, err := stock.Item{Form: stock.Ball, DiameterMm: 20}.Bar()
	require.Error(t, err)
}
