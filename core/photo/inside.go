package photo

import (
	"context"
	"math"
	"sort"
)

// Lie is how an outline lies on a blank: slid along it, lifted across it towards the upper side of the sheet, and
// turned about its point, its far end up.
type Lie struct {
	SlideMm float64 `json:"slideMm"`
	LiftMm  float64 `json:"liftMm"`
	TurnDeg float64 `json:"turnDeg"`
}

// Inside is an outline laid into a blank.
type Inside struct {
	Lie
	LeastMm  float64      `json:"leastMm" doc:"of steel outside the outline, where there is least; below nought it sticks out"`
	XMm      float64      `json:"xMm" doc:"where, from the first end of the blank"`
	Hidden   bool         `json:"hidden,omitempty" doc:"the edge of the blank was not seen there"`
	HiddenMm float64      `json:"hiddenMm" doc:"of the length under the outline along which an edge was not seen, and is taken as straight"`
	Outline  [][2]float64 `json:"outline" doc:"as it lies"`
}

// Bounds of what is laid, and how it is searched (judgement): tries begin with the outline at either end and in the
// middle, level and turned; each is moved by less and less.
const (
	mostAlong   = 8000
	mostOutline = 4000
	mostMm      = 5000.0
	coarsePts   = 90
	firstStepMm = 4.0
	softestMm   = 2.0
	fineMm      = .2 // from here on all points are held against all of the rim
	lastStepMm  = .02
	sweepDeg    = 2.5
	turnStepDeg = .6 // for a millimetre of step
)

// Lay holds an outline (its point first at nought, y up) against a blank as it lies. With seek it is moved from there to
// where it has most steel outside it everywhere. Errors are *Error, or the context's.
func (s *Silhouette) Lay(ctx context.Context, outline [][2]float64, l Lie, seek bool) (*Inside, error) {
	if !s.whole() || len(outline) < 3 || len(outline) > mostOutline {
		return nil, &Error{"photo.noShape"}
	}
	for _, p := range append([][2]float64{{l.SlideMm, l.LiftMm}, {l.TurnDeg, 0}}, outline...) {
		if !(math.Abs(p[0]) <= mostMm && math.Abs(p[1]) <= mostMm) {
			return nil, &Error{"photo.noShape"}
		}
	}
	if seek {
		var err error
		if l, err = s.seek(ctx, outline, l); err != nil {
			return nil, err
		}
	}
	out := &Inside{Lie: l, Outline: s.placed(outline, l)}
	out.LeastMm, out.XMm, out.Hidden = s.rim(1).least(out.Outline)
	from, to := math.Inf(1), math.Inf(-1)
	for _, p := range out.Outline {
		from, to = math.Min(from, p[0]), math.Max(to, p[0])
	}
	for i := 1; i < len(s.Along); i++ {
		if a := &s.Along[i]; !a.Seen && a.XMm >= from && a.XMm <= to {
			out.HiddenMm += a.XMm - s.Along[i-1].XMm
		}
	}
	return out, nil
}

// whole tells whether a silhouette can be held against: places in order, each with its upper side above.
func (s *Silhouette) whole() bool {
	seen := 0
	last := math.Inf(-1)
	for i := range s.Along {
		a := &s.Along[i]
		if !(a.XMm > last && a.XMm >= 0 && a.XMm <= mostMm) {
			return false
		}
		last = a.XMm
		if a.Seen {
			if seen++; !(a.BottomMm >= a.TopMm && math.Abs(a.TopMm) <= mostMm && math.Abs(a.BottomMm) <= mostMm) {
				return false
			}
		}
	}
	return seen >= 2 && len(s.Along) <= mostAlong
}

// rim is the edge of a blank: its places, straight over what was not seen.
type rim struct {
	x, top, bottom []float64
	hidden         []bool // between this place and the next
}

// rim is the edge of the blank, of every so many places.
func (s *Silhouette) rim(every int) *rim {
	var seen []*Across
	for i := range s.Along {
		if a := &s.Along[i]; a.Seen {
			seen = append(seen, a)
		}
	}
	r, k, hidden := &rim{}, 0, false
	for i := range s.Along {
		a := &s.Along[i]
		hidden = hidden || !a.Seen
		if i%every != 0 && i != len(s.Along)-1 {
			continue
		}
		for k+2 < len(seen) && seen[k+1].XMm <= a.XMm {
			k++
		}
		u := max(0, min(1, (a.XMm-seen[k].XMm)/(seen[k+1].XMm-seen[k].XMm)))
		if n := len(r.hidden); n > 0 {
			r.hidden[n-1] = hidden
		}
		r.x, r.hidden = append(r.x, a.XMm), append(r.hidden, false)
		r.top, r.bottom = append(r.top, seen[k].TopMm+u*(seen[k+1].TopMm-seen[k].TopMm)), append(r.bottom, seen[k].BottomMm+u*(seen[k+1].BottomMm-seen[k].BottomMm))
		hidden = !a.Seen
	}
	return r
}

// apart is how far inside the rim a point is, below nought outside, and whether the rim was seen where it is nearest.
func (r *rim) apart(p [2]float64) (mm float64, hidden bool) {
	n := len(r.x) - 1
	at := min(max(sort.SearchFloat64s(r.x, p[0])-1, 0), n-1)
	mm = math.Inf(1)
	take := func(a, b [2]float64, h bool) {
		if d := toLine(p, a, b); d < mm {
			mm, hidden = d, h
		}
	}
	take([2]float64{r.x[0], r.top[0]}, [2]float64{r.x[0], r.bottom[0]}, r.hidden[0])
	take([2]float64{r.x[n], r.top[n]}, [2]float64{r.x[n], r.bottom[n]}, r.hidden[n-1])
	side := func(i int) {
		take([2]float64{r.x[i], r.top[i]}, [2]float64{r.x[i+1], r.top[i+1]}, r.hidden[i])
		take([2]float64{r.x[i], r.bottom[i]}, [2]float64{r.x[i+1], r.bottom[i+1]}, r.hidden[i])
	}
	for i := at; i >= 0 && (i == at || p[0]-r.x[i+1] < mm); i-- {
		side(i)
	}
	for i := at + 1; i < n && r.x[i]-p[0] < mm; i++ {
		side(i)
	}
	if p[0] < r.x[0] || p[0] > r.x[n] {
		return -mm, hidden
	}
	u := (p[0] - r.x[at]) / (r.x[at+1] - r.x[at])
	if p[1] < r.top[at]+u*(r.top[at+1]-r.top[at]) || p[1] > r.bottom[at]+u*(r.bottom[at+1]-r.bottom[at]) {
		mm = -mm
	}
	return mm, hidden
}

func toLine(p, a, b [2]float64) float64 {
	ux, uy := b[0]-a[0], b[1]-a[1]
	k := 0.0
	if n := ux*ux + uy*uy; n > 0 {
		k = math.Max(0, math.Min(1, ((p[0]-a[0])*ux+(p[1]-a[1])*uy)/n))
	}
	return math.Hypot(p[0]-a[0]-k*ux, p[1]-a[1]-k*uy)
}

// middle is half-way up the blank where it is seen nearest to the middle of its length.
func (s *Silhouette) middle() float64 {
	n := len(s.Along) / 2
	for k := range s.Along {
		for _, i := range []int{n - k, n + k} {
			if i >= 0 && i < len(s.Along) && s.Along[i].Seen {
				return (s.Along[i].TopMm + s.Along[i].BottomMm) / 2
			}
		}
	}
	return 0
}

// placed is an outline as it lies: nought is the first end of the blank, half-way up it.
func (s *Silhouette) placed(outline [][2]float64, l Lie) [][2]float64 {
	mid := s.middle()
	sin, cos := math.Sincos(l.TurnDeg * math.Pi / 180)
	out := make([][2]float64, len(outline))
	for i, p := range outline {
		out[i] = [2]float64{s.Along[0].XMm + l.SlideMm + p[0]*cos - p[1]*sin, mid - l.LiftMm - (p[0]*sin + p[1]*cos)}
	}
	return out
}

// least is how much steel there is outside an outline where there is least, and where.
func (r *rim) least(placed [][2]float64) (mm, x float64, hidden bool) {
	mm = math.Inf(1)
	for _, p := range placed {
		if d, h := r.apart(p); d < mm {
			mm, x, hidden = d, p[0], h
		}
	}
	return mm, x, hidden
}

// soft is the least without its corners: what is within so much of it counts a little too.
func (r *rim) soft(placed [][2]float64, withinMm float64) float64 {
	ds, low := make([]float64, len(placed)), math.Inf(1)
	for i, p := range placed {
		ds[i], _ = r.apart(p)
		low = math.Min(low, ds[i])
	}
	sum := 0.0
	for _, d := range ds {
		sum += math.Exp((low - d) / withinMm)
	}
	return low - withinMm*math.Log(sum/float64(len(ds)))
}

// seek moves an outline to where least is most: from several beginnings, one coordinate after the other, on a least whose
// corners are rounded less and less, since along a corner no single coordinate leads up.
func (s *Silhouette) seek(ctx context.Context, outline [][2]float64, l Lie) (Lie, error) {
	step := max(1, len(outline)/coarsePts)
	var coarse [][2]float64
	long := 0.0
	for i := 0; i < len(outline); i += step {
		coarse = append(coarse, outline[i])
	}
	for _, p := range outline {
		long = math.Max(long, p[0])
	}
	r := s.rim(max(1, len(s.Along)/coarsePts))
	fine := s.rim(1)
	room := s.Along[len(s.Along)-1].XMm - s.Along[0].XMm - long
	best, most := l, math.Inf(-1)
	for _, share := range []float64{0, .5, 1} {
		for _, deg := range []float64{0, -sweepDeg, sweepDeg} {
			if err := ctx.Err(); err != nil {
				return l, err
			}
			from := s.climb(r, coarse, Lie{SlideMm: share * room, TurnDeg: deg}, softestMm, firstStepMm/8)
			if v := r.soft(s.placed(coarse, from), softestMm); v > most {
				best, most = from, v
			}
		}
	}
	for within := softestMm / 2; within > lastStepMm; within /= 2 {
		if within < fineMm && r != fine {
			r, coarse = fine, outline
		}
		if err := ctx.Err(); err != nil {
			return l, err
		}
		best = s.climb(r, coarse, best, within, within/8)
	}
	return best, nil
}

// climb goes up from a lie as long as steps of more than so much lead up.
func (s *Silhouette) climb(r *rim, outline [][2]float64, l Lie, withinMm, untilMm float64) Lie {
	v := r.soft(s.placed(outline, l), withinMm)
	for step := math.Max(firstStepMm, 2*untilMm) * math.Min(1, withinMm); step > untilMm; {
		moved := false
		for _, d := range [][3]float64{{0, 1, 0}, {0, 0, turnStepDeg}, {1, 0, 0}, {0, .5, turnStepDeg}, {0, -.5, turnStepDeg}} {
			for _, way := range []float64{step, -step} {
				try := Lie{l.SlideMm + way*d[0], l.LiftMm + way*d[1], l.TurnDeg + way*d[2]}
				if w := r.soft(s.placed(outline, try), withinMm); w > v+1e-9 {
					l, v, moved = try, w, true
				}
			}
		}
		if !moved {
			step /= 2
		}
	}
	return l
}
