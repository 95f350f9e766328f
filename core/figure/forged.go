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
	if r.Choices.Notch == plan.NotchForged {
		if f.Ricasso != nil {
			f.Ricasso.NotchMm = b.Ricasso.NotchMm
		}
		if f.Tang != nil {
			f.Tang = b.NotchedTang(r.Allowances)
		}
	}
	if bar.ThicknessMm <= 0 {
		return f
	}
	spread := func(mm, heightMm float64) float64 { // what is left of the bar's thickness where it is spread to a height
		if heightMm > bar.WidthMm {
			mm = math.Min(mm, bar.ThicknessMm*math.Exp(-math.Log(heightMm/bar.WidthMm)/r.Smith.MostSpread(r.Choices.Method, bar.WidthMm)))
		}
		return mm
	}
	if k := f.Ricasso; k != nil && k.HeightMm > bar.WidthMm {
		k.ThicknessMm = math.Max(b.Ricasso.ThicknessMm, spread(k.ThicknessMm, k.HeightMm))
	}
	f = runIn(f, bar, spread)
	if t := f.Tang; t != nil && t.Outline != nil { // it shows all round, so that it is ground like the ricasso
		left := func(mm, leastMm, from, to float64) float64 {
			return math.Max(leastMm, spread(math.Min(mm, bar.ThicknessMm), t.HighestMm(from, to)))
		}
		half := t.LengthMm / 2
		t.ThicknessAtShoulderMm = left(t.ThicknessAtShoulderMm, b.Tang.ThicknessAtShoulderMm, 0, half)
		t.ThicknessAtEndMm = left(t.ThicknessAtEndMm, b.Tang.ThicknessAtEndMm, half, t.LengthMm)
	}
	return f
}

// runIn has the blade run into a ricasso that is left at its bar; where the heel is spread to be higher than the bar, no thicker
// than that leaves it in the mean.
func runIn(f blade.Blade, bar stock.EvenBar, spread func(mm, heightMm float64) float64) blade.Blade {
	body, err := blade.New(f)
	if err != nil {
		return f // whoever makes it says why
	}
	heel := body.SectionAt(body.LengthMm())
	most := math.Inf(1)
	if heel.HeightMm > bar.WidthMm {
		most = spread(bar.ThicknessMm, heel.HeightMm) - heel.AreaMm2()/heel.HeightMm
	}
	return f.RunInto(most)
}
