package practice

import "math"

// Result is what a play came to, for a sheet.
type Result struct {
	Done     bool        `json:"done" doc:"every goal is met, and nothing is wrong with the piece"`
	Met      int         `json:"met" doc:"of its goals"`
	Goals    int         `json:"goals"`
	Heats    int         `json:"heats"`
	ParHeats int         `json:"parHeats"`
	Blows    int         `json:"blows"`
	ParBlows int         `json:"parBlows"`
	Cold     int         `json:"coldBlows"`
	ScaleG   float64     `json:"scaleG"`
	WorstMm  float64     `json:"worstMm" doc:"farthest off what is wanted, of any place"`
	TimeS    float64     `json:"timeS"`
	Faults   []FaultKind `json:"faults" enum:"crack,burnt,buckle,fold,lip,coldShut,ricasso,gouge,uneven,bowed,twisted,swept,pits"`
}

// Result of a play of an exercise.
func (p *Played) Result(ex *Exercise) Result {
	out := Result{
		Done: p.Done, Goals: len(p.Marks), Heats: p.Heats, ParHeats: ex.ParHeats, Blows: p.Blows, ParBlows: ex.ParBlows, Cold: p.Cold,
		ScaleG: math.Round(p.ScaleG*10) / 10, TimeS: math.Round(p.TimeS), Faults: []FaultKind{},
	}
	for _, m := range p.Marks {
		if m.Met {
			out.Met++
		}
	}
	for _, x := range p.Places {
		if x.Off == nil {
			continue
		}
		for _, v := range []*float64{x.Off.WideMm, x.Off.ThickMm, x.Off.EdgeMm} {
			if v != nil {
				out.WorstMm = math.Max(out.WorstMm, math.Abs(*v))
			}
		}
	}
	seen := map[FaultKind]bool{}
	for _, f := range p.Faults {
		if !seen[f.Kind] {
			seen[f.Kind] = true
			out.Faults = append(out.Faults, f.Kind)
		}
	}
	return out
}
