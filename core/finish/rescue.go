package finish

import (
	"math"
	"sort"

	"coldember/core/blade"
	"coldember/core/fact"
)

// Way is what a blade that was measured at the grinder can still be.
type Way struct {
	What    string       `json:"what" enum:"asPlanned,thinner,spineLower,edgeHigher,shorter,heelForward,hollowed,pattern,reforge"`
	Name    string       `json:"name,omitempty" doc:"of the other pattern"`
	Design  blade.Design `json:"design"`
	Figures fact.Figures `json:"figures"`
	// What it then weighs, and so on; the changes are against what was planned.
	MassG     float64 `json:"massG"`
	BalanceMm float64 `json:"balanceMm" doc:"from the point"`
	WallMm    float64 `json:"wallMm"`
	BehindMm  float64 `json:"behindMm" doc:"thickness 5 mm above the edge, in the middle"`
	GivenUp   float64 `json:"givenUpShare" doc:"of the planned steel, and for what is another knife, a little more"`
	Heat      bool    `json:"heat,omitempty" doc:"goes back to the fire, with all that it costs"`
	// Of a layered bar: how much of the forged thickness is left where its pattern is looked at,
	// and what of a twist shows there.
	PatternShare float64 `json:"patternShare,omitempty"`
	PatternShows string  `json:"patternShows,omitempty" enum:"stripes,loops,stars"`
	// Was is what the steel was forged as, and where this knife lies in it.
	Was Was `json:"was"`
	// The readings and pits as they lie on it.
	Readings []Reading `json:"readings"`
	Pits     []Pit     `json:"pits"`
}

// Other is a pattern of the library that the steel may still become.
type Other struct {
	Name   string
	Design blade.Design
}

// How far a blade is changed to save it (judgement): beyond, it is another knife.
const (
	leastThick   = .55
	leastHigh    = .6
	leastLong    = .55
	hollowShare  = .22 // of the height, on either side of the deepest pit
	mostHollow   = .3  // of the thickness, both faces together
	hollowCosts  = .03
	patternCosts = .15
	rescueSteps  = 12
	fineShare    = 1.0 / 1024 // of the most that a figure is changed by
)

// Still is what the steel of a knife can still be, by how little is given up: each of them holds
// everywhere by what was measured, with every pit ground out. Where it still is what was planned,
// that comes first.
func Still(w *Work, others []Other) []Way {
	r := rescue{w: w, was: w.Steel.Finished}
	var out []Way
	take := func(way *Way) {
		if way != nil {
			out = append(out, *way)
		}
	}
	if way := r.try("asPlanned", w.Design, 0, 0, nil); way != nil {
		out = append(out, *way)
		return out
	}
	take(r.search("thinner", 1-leastThick, func(f float64) (blade.Design, float64, float64, fact.Figures) {
		d := w.Design.Thinner(1 - f)
		return d, 0, 0, fact.Figures{"spineMm": d.SpineMm, "wasMm": w.Design.SpineMm}
	}))
	take(r.search("spineLower", 1-leastHigh, func(f float64) (blade.Design, float64, float64, fact.Figures) {
		by := w.Design.HeightMm * f
		// the faces stay as they are, so that the new spine is as thick as they are there
		heel := r.was.SectionAt(r.was.LengthMm() * .97)
		k := heel.ThicknessAt(heel.HeightMm*(1-f)) / heel.ThicknessAt(heel.HeightMm)
		return w.Design.Lower(by).Thinner(math.Min(1, k)), 0, -by, fact.Figures{"byMm": by, "heightMm": w.Design.HeightMm - by}
	}))
	take(r.search("edgeHigher", 1-leastHigh, func(f float64) (blade.Design, float64, float64, fact.Figures) {
		by := w.Design.HeightMm * f
		return w.Design.Lower(by), 0, 0, fact.Figures{"byMm": by, "heightMm": w.Design.HeightMm - by}
	}))
	take(r.search("shorter", 1-leastLong, func(f float64) (blade.Design, float64, float64, fact.Figures) {
		by := w.Design.LengthMm * f
		return w.Design.Shorter(by), 0, 0, fact.Figures{"byMm": by, "lengthMm": w.Design.LengthMm - by}
	}))
	take(r.search("heelForward", 1-leastLong, func(f float64) (blade.Design, float64, float64, fact.Figures) {
		by := w.Design.LengthMm * f
		d := w.Design.Shorter(by)
		d.Ricasso.LengthMm += by
		return d, by, 0, fact.Figures{"byMm": by, "lengthMm": d.LengthMm, "ricassoMm": d.Ricasso.LengthMm}
	}))
	if w.Design.Grind.Groove == nil {
		take(r.search("hollowed", mostHollow, func(f float64) (blade.Design, float64, float64, fact.Figures) {
			d := w.Design
			g := blade.NewGroove("strip", d)
			if p := deepest(w.Choices.Pits); p != nil && p.XMm < r.was.LengthMm() {
				at := p.YMm / r.was.SectionAt(math.Max(0, p.XMm)).HeightMm
				g.LowFraction, g.HighFraction = math.Max(.08, at-hollowShare), math.Min(.93, at+hollowShare)
			}
			g.DepthMm = d.SpineMm * f / 2
			d.Grind.Groove = g
			return d, 0, 0, fact.Figures{"deepMm": g.DepthMm}
		}))
	}
	for _, o := range others {
		take(r.pattern(o))
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].GivenUp < out[j].GivenUp })
	return append(out, Way{What: "reforge", Heat: true, Design: w.Design, Was: Was{Design: w.Design}, Figures: fact.Figures{}, GivenUp: 1, Readings: []Reading{}, Pits: []Pit{}})
}

type rescue struct {
	w   *Work
	was *blade.Body
}

// search is the least change that holds, to within fineShare of the most; nil where none does.
func (r *rescue) search(what string, most float64, change func(f float64) (blade.Design, float64, float64, fact.Figures)) *Way {
	at := func(f float64) *Way {
		d, moved, up, figures := change(f)
		return r.try(what, d, moved, up, figures)
	}
	failed := 0.0
	for i := 1; i <= rescueSteps; i++ {
		f := most * float64(i) / rescueSteps
		if way := at(f); way != nil {
			return least(failed, f, most*fineShare, way, at)
		}
		failed = f
	}
	return nil
}

// least halves the change between one that fails and one that holds until they are as near as fine.
func least(fails, holds, fine float64, way *Way, at func(float64) *Way) *Way {
	for holds-fails > fine {
		mid := (fails + holds) / 2
		if less := at(mid); less != nil {
			way, holds = less, mid
		} else {
			fails = mid
		}
	}
	return way
}

// pattern is another one, as large and as thick as the steel still gives it: down to so much of
// its size, and of its thickness.
func (r *rescue) pattern(o Other) *Way {
	const smallest, thinnest = .7, .7
	at := func(less, thinner float64) *Way {
		d := o.Design.Scaled(1-less, 1-less, 1)
		d.SpineMm = math.Min(d.SpineMm, r.w.Design.SpineMm)
		if d.LengthMm > r.w.Design.LengthMm*1.05 {
			return nil
		}
		way := r.try("pattern", d.Thinner(1-thinner), 0, 0, fact.Figures{"lengthMm": d.LengthMm, "heightMm": d.HeightMm})
		if way != nil {
			way.Name = o.Name
		}
		return way
	}
	lastLess := 0.0
	for less := 0.0; less <= 1-smallest+1e-9; less += .05 {
		for thin := 0.0; thin <= 1-thinnest+1e-9; thin += .15 {
			way := at(less, thin)
			if way == nil {
				continue
			}
			if thin > 0 {
				return least(thin-.15, thin, fineShare, way, func(f float64) *Way { return at(less, f) })
			}
			if less > 0 {
				return least(lastLess, less, fineShare, way, func(f float64) *Way { return at(f, 0) })
			}
			return way
		}
		lastLess = less
	}
	return nil
}

// try holds a design against the steel; nil where it does not fit.
func (r *rescue) try(what string, d blade.Design, moved, up float64, figures fact.Figures) *Way {
	check := fact.NewCheck()
	if d.Validate(check); check.Err() != nil {
		return nil
	}
	body, err := blade.New(d.Blade())
	if err != nil {
		return nil
	}
	s := r.w.Steel
	s.Finished, s.MovedMm, s.UpMm = body, s.MovedMm+moved, s.UpMm+up
	readings, pits := r.move(&s)
	s.Readings = readings
	if !s.holds(pits) {
		return nil
	}
	m, whole, was := body.Measure(), body.Assemble(d), r.was.Measure()
	sec := body.SectionAt(body.LengthMm() / 2)
	way := Way{
		What: what, Design: d, Figures: figures, MassG: whole.MassG, BalanceMm: whole.BalanceFromPointMm, WallMm: whole.LeastWallMm,
		BehindMm: sec.ThicknessAt(math.Min(5, sec.HeightMm)), Readings: readings, Pits: pits,
	}
	way.Was = Was{Design: r.w.Design, MovedMm: s.MovedMm, UpMm: s.UpMm}
	if r.w.Choices.Was != nil {
		way.Was.Design = r.w.Choices.Was.Design
	}
	if way.Figures == nil {
		way.Figures = fact.Figures{}
	}
	way.GivenUp = math.Max(0, 1-m.VolumeMm3/was.VolumeMm3)
	switch what {
	case "hollowed":
		way.GivenUp += hollowCosts
	case "pattern":
		way.GivenUp += patternCosts
	}
	return &way
}

// move is where readings and pits lie on a blade that lies otherwise in the same steel.
func (r *rescue) move(s *Steel) ([]Reading, []Pit) {
	old := &r.w.Steel
	place := func(x, y float64) (float64, float64) {
		nx := x + old.shift() - s.shift()
		return nx, old.edgeY(x) + y - s.edgeY(nx)
	}
	readings, pits := []Reading{}, []Pit{}
	for _, q := range r.w.Choices.Readings {
		q.XMm, q.YMm = place(q.XMm, q.YMm)
		readings = append(readings, q)
	}
	for _, p := range r.w.Choices.Pits {
		p.XMm, p.YMm = place(p.XMm, p.YMm)
		pits = append(pits, p)
	}
	return readings, pits
}

// deepest of some pits, or nil.
func deepest(pits []Pit) *Pit {
	var out *Pit
	for i := range pits {
		if out == nil || pits[i].DepthMm > out.DepthMm {
			out = &pits[i]
		}
	}
	return out
}

// holds tells whether the finished blade is in the steel, with every pit out.
func (s *Steel) holds(pits []Pit) bool {
	m := s.measured()
	for _, p := range pits {
		if a := s.pit(m, p); !a.Outside && a.LeftMm < 0 {
			return false
		}
	}
	// at the points of the map, which then shows nothing missing
	for i := range MapStations {
		x := s.Finished.LengthMm() * (float64(i) + .5) / MapStations
		c := s.cutAt(x)
		for k := range MapHeights {
			f, b, ok := c.faces(m, x, c.fin.HeightMm*float64(k)/(MapHeights-1))
			if !ok || math.Min(f, b) < -shortMm {
				return false
			}
		}
	}
	for _, q := range s.Readings { // at the very place, not only on the map
		if q.XMm < 0 || q.XMm > s.Finished.LengthMm() {
			continue
		}
		sec := s.Finished.SectionAt(q.XMm)
		if q.YMm < 0 || q.YMm > sec.HeightMm {
			continue
		}
		if sec.ThicknessAt(q.YMm)/2 > q.ThicknessMm/2-math.Abs(q.OffMm)+shortMm {
			return false
		}
	}
	return true
}
