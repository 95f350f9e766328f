package forge

import (
	"fmt"
	"math"

	"coldember/core/thermal"
)

// Cycle takes the whole piece to tempC once and lets it cool in still air to
// black (480 °C): normalising. No blows; it scales like everything hot.
func (r *Run) Cycle(id string, tempC float64) error {
	saved := r.soakC
	defer func() { r.soakC = saved }()
	if tempC > r.Shop.Fire.TempC-UnderForgeC {
		return &WindowError{SoakC: r.Shop.Fire.TempC - UnderForgeC, LowC: tempC, NeedForgeC: tempC + UnderForgeC}
	}
	r.soakC = tempC
	for i := range r.Bar.Cells { // it goes in once the last heat is black
		r.Bar.Cells[i].TempC = math.Min(r.Bar.Cells[i].TempC, blackC)
	}
	last := len(r.Bar.Cells) - 1
	rec := Heat{Operation: id, Last: last, Fraction: 1, StartC: tempC, EndC: blackC, ShareTo: 1}
	if err := r.fire(&rec); err != nil {
		return err
	}
	air := thermal.Air()
	for i := range r.Bar.Cells {
		c := &r.Bar.Cells[i]
		t, err := air.CoarseTimeTo(c.WidthMm, c.ThicknessMm, c.TempC, blackC)
		if err != nil {
			return fmt.Errorf("forge: cooling: %w", err)
		}
		rec.WorkS = math.Max(rec.WorkS, t)
		r.clocks[i].Add((c.TempC+decarbMidC)/2, t/2, thermal.AtmosphereAir)
		c.TempC = blackC
	}
	r.shed(&rec)
	rec.FuelG = r.Shop.Fire.FuelKgPerH / 3.6 * rec.FireS
	if r.KeepStates {
		rec.After = r.Bar.Clone()
	}
	r.Heats = append(r.Heats, rec)
	return nil
}

// blackC is where the last glow is gone in a dim shop; below decarbMidC scaling
// on the way down hardly counts.
const (
	blackC     = 480
	decarbMidC = 750
)
