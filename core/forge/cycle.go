package forge

import (
	"fmt"
	"math"

	"coldember/core/thermal"
)

// Cycle takes the whole piece to tempC once, holds it there for holdS seconds and lets it cool in
// still air to black (480 °C): normalising, or softening. No blows; it scales like everything hot.
func (r *Run) Cycle(id string, tempC, holdS float64) error {
	return r.treat(Heat{Operation: id, StartC: tempC, EndC: blackC}, holdS, func(rec *Heat) error {
		air := thermal.Air()
		for i := range r.Bar.Cells {
			c := &r.Bar.Cells[i]
			if holdS > 0 {
				r.clocks[i].Add(tempC, holdS, r.Setup.Fire.Atmosphere)
				r.decarb[i].Add(tempC, holdS)
			}
			t, err := air.CoarseTimeTo(c.WidthMm, c.ThicknessMm, c.TempC, blackC)
			if err != nil {
				return fmt.Errorf("forge: cooling: %w", err)
			}
			rec.WorkS = math.Max(rec.WorkS, t)
			r.clocks[i].Add((c.TempC+decarbMidC)/2, t/2, thermal.AtmosphereAir)
		}
		return nil
	})
}

// Harden takes the whole piece to tempC, holds it there for soakS seconds and
// quenches it. What scale it grows comes off in the quench.
func (r *Run) Harden(id string, tempC, soakS float64) error {
	return r.treat(Heat{Operation: id, StartC: tempC, EndC: quenchedC}, soakS, func(rec *Heat) error {
		rec.CarryS, rec.WorkS = r.Setup.Fire.CarryS, quenchS
		for i := range r.Bar.Cells {
			r.clocks[i].Add(tempC, soakS, r.Setup.Fire.Atmosphere)
			r.decarb[i].Add(tempC, soakS)
			r.clocks[i].Add(tempC, rec.CarryS, thermal.AtmosphereAir)
			r.decarb[i].Add(tempC, rec.CarryS)
		}
		return nil
	})
}

// treat heats the whole piece to rec.StartC, holds it and lets it come down to
// rec.EndC as cool says.
func (r *Run) treat(rec Heat, holdS float64, cool func(*Heat) error) error {
	tempC := rec.StartC
	defer func(usual float64) { r.soakC = usual }(r.soakC)
	if tempC > r.Setup.Fire.TempC-UnderForgeC {
		return &WindowError{SoakC: r.Setup.Fire.TempC - UnderForgeC, LowC: tempC, NeedForgeC: tempC + UnderForgeC}
	}
	r.soakC = tempC
	for i := range r.Bar.Cells { // it goes in once the last heat is black
		r.Bar.Cells[i].TempC = math.Min(r.Bar.Cells[i].TempC, blackC)
	}
	rec.Last, rec.Fraction, rec.ShareTo = len(r.Bar.Cells)-1, 1, 1
	if err := r.fire(&rec); err != nil {
		return err
	}
	rec.FireS += holdS
	if err := cool(&rec); err != nil {
		return err
	}
	for i := range r.Bar.Cells {
		r.Bar.Cells[i].TempC = rec.EndC
	}
	if err := r.shed(&rec); err != nil {
		return err
	}
	if r.KeepStates {
		rec.After = r.Bar.Clone()
	}
	r.Heats = append(r.Heats, rec)
	return nil
}

// blackC is where the last glow is gone in a dim shop; below decarbMidC scaling
// on the way down hardly counts. A quench takes seconds, and the piece out of it can
// be held in the hand (judgement).
const (
	blackC     = 480
	decarbMidC = 750
	quenchedC  = 50
	quenchS    = 10.0
)
