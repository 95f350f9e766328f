package hour

import (
	"math"

	"coldember/core/forge"
	"coldember/core/steel"
	"coldember/core/thermal"
)

// What the laws are asked for.
const (
	curieC   = 770.0 // where a magnet holds again (colour.Magnet)
	waterJ   = 4186. // to warm a kilogram of water by a kelvin
	shopC    = 20.0
	hottestC = 1450.0
	coolestC = 800.0
	solveFor = 40
)

// heatJ is what a kilogram of steel holds at tempC over the shop, J: the specific heat of the laws, summed.
func heatJ(tempC float64) (sum float64) {
	for t := shopC; t < tempC; t += 2 {
		dt := math.Min(2, tempC-t)
		sum += thermal.SpecificHeat(t+dt/2) * dt
	}
	return sum
}

// root of a law that rises between two figures.
func root(low, high float64, of func(float64) float64) float64 {
	for range solveFor {
		if mid := (low + high) / 2; of(mid) < 0 {
			low = mid
		} else {
			high = mid
		}
	}
	return (low + high) / 2
}

// tempC is how hot the fire is: by how long the bar takes from as hot as it gets there until a magnet holds again, which
// goes with its emissivity, and by how much it warms water, which does not. Steel gets within 30 °C of its fire.
func (h *Hour) tempC() *FigureFound {
	weight, sum := 0.0, 0.0
	add := func(c, sd float64) {
		weight, sum = weight+1/(sd*sd), sum+c/(sd*sd)
	}
	if h.MagnetS > 0 {
		after := func(seconds float64) float64 {
			return root(coolestC, hottestC, func(c float64) float64 {
				s, err := thermal.Air().TimeTo(h.WidthMm, h.ThicknessMm, c, curieC)
				if err != nil {
					return -1
				}
				return s - seconds
			})
		}
		is := after(h.MagnetS)
		add(is, math.Hypot(after(h.MagnetS*(1+radiantLog))-is, after(h.MagnetS+eyeS)-is))
	}
	if h.HotKg > 0 && h.WaterKg > 0 && h.WaterRiseK > 0 {
		of := func(riseK, steam float64) float64 {
			return root(coolestC, hottestC, func(c float64) float64 {
				return h.HotKg*(heatJ(c)-heatJ(shopC+riseK))*(1-steam) - h.WaterKg*waterJ*riseK
			})
		}
		is := of(h.WaterRiseK, steamShare)
		add(is, math.Hypot(of(h.WaterRiseK+waterK, steamShare)-is, of(h.WaterRiseK, steamShare+steamSdShare)-is))
	}
	if weight == 0 {
		return nil
	}
	return &FigureFound{Is: sum/weight + forge.UnderForgeC, Sd: math.Sqrt(1 / weight)}
}

// blow is how much of a blow lands, and how much of what it thins goes into width: the strokes that the law has for the
// same work over those that were counted. Pace is told as it was.
func (h *Hour) blow(out *Tells, smith forge.Smith, fire forge.Fire) {
	if h.Blows <= 0 || h.StretchMm <= 0 || h.AfterThicknessMm <= 0 || h.AfterWidthMm <= 0 || h.AfterThicknessMm >= h.ThicknessMm {
		return
	}
	thinned := math.Log(h.ThicknessMm / h.AfterThicknessMm)
	grown := math.Log(h.AfterWidthMm / h.WidthMm)
	if h.LastedS > 0 && h.Blows > 1 {
		out.Pace = &FigureFound{(h.Blows - 1) / h.LastedS, (h.Blows - 1) / h.LastedS * .08}
	}
	readsLog := math.Hypot(caliperMm/h.ThicknessMm, caliperMm/h.AfterThicknessMm) / thinned
	op := forge.Operation{Kind: forge.Profile, Face: h.Face}
	if law := smith.SpreadOf(&op, h.WidthMm); grown > 0 && law > 0 {
		out.Spread = &FactorFound{grown / thinned / law, math.Hypot(readsLog, math.Hypot(caliperMm/h.WidthMm, caliperMm/h.AfterWidthMm)/grown)}
	}
	grade, err := steel.Find(h.SteelID)
	if err != nil {
		return
	}
	if out.Pace != nil {
		smith.RatePerS = math.Max(.2, math.Min(5, out.Pace.Is))
	}
	f := 1.0
	for range 4 { // a stronger arm is done sooner, while it is hotter
		smith.EnergyFactor = f
		n, ok := h.strokes(smith, fire, grade)
		if !ok { // the laws know of no arm that does it
			out.Doubtful = append(out.Doubtful, "blow")
			return
		}
		f *= n / h.Blows
	}
	out.Blow = &FactorFound{f, math.Sqrt(readsLog*readsLog + landsLog*landsLog + flowLog*flowLog)}
}

// strokes are those that the laws have for the work that was done.
func (h *Hour) strokes(smith forge.Smith, fire forge.Fire, grade steel.Grade) (float64, bool) {
	grade.ForgeHighC = math.Max(grade.ForgeHighC, fire.TempC) // it was brought as hot as the fire brings it
	grade.ForgeLowC = math.Min(grade.ForgeLowC, lowestC)
	fire.HotLengthMm = math.Max(fire.HotLengthMm, 2*h.StretchMm)
	fire.SoakC, fire.StopC = 0, 0
	smith.Machine = nil
	cell := forge.Cell{Zone: "blade", VolumeMm3: h.StretchMm * h.WidthMm * h.ThicknessMm, WidthMm: h.WidthMm, ThicknessMm: h.ThicknessMm, EdgeMm: h.ThicknessMm, SpineMm: h.ThicknessMm, TempC: shopC}
	run, err := forge.NewRun(forge.Setup{Smith: smith, Fire: fire, Steel: grade}, forge.Bar{Cells: []forge.Cell{cell}})
	if err != nil {
		return 0, false
	}
	to := forge.Target{WidthMm: h.AfterWidthMm, ThicknessMm: h.AfterThicknessMm, EdgeMm: h.AfterThicknessMm, SpineMm: h.AfterThicknessMm}
	if err := run.Do(&forge.Operation{ID: "hour", Kind: forge.Profile, Face: h.Face, Targets: []forge.Target{to}}); err != nil {
		return 0, false
	}
	blows := 0.0
	for i := range run.Heats {
		blows += run.Heats[i].Blows
	}
	return blows, blows > 0
}

// airS is how long the bar is hot in the air after each heat, until it is brushed (judgement).
const airS = 10

// lowestC lets the counted blows go on as the steel cools: they are of one heat.
const lowestC = 750

// scale is the depth of scale over the law's: what the bar lost over what it would have, hot for so long.
func (h *Hour) scale(fire forge.Fire) *FactorFound {
	lost := h.BeforeKg - h.AfterKg
	if h.BeforeKg <= 0 || h.AfterKg <= 0 || lost <= 0 || h.Heats <= 0 || h.HeatS <= 0 {
		return nil
	}
	long := h.BeforeKg * 1e6 / steel.DensityGPerCm3 / (h.FlatWidthMm * h.FlatThicknessMm)
	hot := long
	if h.GlowMm > 0 {
		hot = math.Min(long, h.GlowMm)
	}
	clock, c := thermal.ScaleClock{}, shopC
	in := thermal.Forge(fire.TempC)
	for range int(h.HeatS) {
		c = in.Step(h.FlatWidthMm, h.FlatThicknessMm, c, 1)
		clock.Add(c, 1, fire.Atmosphere)
	}
	clock.Add(c, airS, thermal.AtmosphereAir)
	law := h.Heats * clock.LossMm() * 2 * (h.FlatWidthMm + h.FlatThicknessMm) * hot * steel.DensityGPerCm3 / 1e6
	if law <= 0 {
		return nil
	}
	return &FactorFound{lost / law, math.Hypot(math.Sqrt2*balanceKg/lost, scaleLog)}
}
