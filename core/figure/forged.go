package figure

import (
	"math"

	"coldember/core/blade"
	"coldember/core/plan"
	"coldember/core/stock"
)

// ForgedShape is the blade with its allowances; a ricasso higher than the bar is
// spread to it, and thins by that. A taper that is ground later is not in it.
func ForgedShape(r plan.Request, b blade.Blade, bar stock.EvenBar) blade.Blade {
	if r.Choices.Taper == plan.GroundTaper {
		thickest := 0.0
		for _, n := range b.Thickness {
			thickest = math.Max(thickest, n[1])
		}
		b.Thickness = []blade.Node{{0, thickest}, {b.Thickness[len(b.Thickness)-1][0], thickest}}
	}
	f := b.Forged(r.Allowances, bar.ThicknessMm)
	if r.Choices.Notch == plan.NotchForged && f.Ricasso != nil {
		f.Ricasso.NotchMm = b.Ricasso.NotchMm
	}
	if k := f.Ricasso; k != nil && bar.ThicknessMm > 0 && k.HeightMm > bar.WidthMm {
		spread := math.Log(k.HeightMm/bar.WidthMm) / r.Smith.MostSpread(r.Choices.Method, bar.WidthMm)
		k.ThicknessMm = math.Max(b.Ricasso.ThicknessMm, math.Min(k.ThicknessMm, bar.ThicknessMm*math.Exp(-spread)))
	}
	return f
}
