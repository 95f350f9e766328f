package nest

import (
	"context"
	"math"
	"math/rand/v2"
	"slices"
	"sync"
)

// Bounds of the search.
const (
	orders     = 6  // in which the parts are laid
	turnStep   = 15 // degrees
	turnStepNo = 30 // where the rolling does not matter
	shiftsFrom = 16 // mm, halved down to shiftsTo
	shiftsTo   = 0.05
	rounds     = 3
)

// Lay finds a layout: as many parts as it can (of equally many those that come first), then so
// that one straight cut leaves as much as can be of the sheet whole. Errors are
// fact.FieldErrors or the context's.
func Lay(ctx context.Context, j Job) (Layout, error) {
	if err := j.Validate(); err != nil {
		return Layout{}, err
	}
	s := newSearch(&j)
	tries, errs := make([]Layout, 2*orders), make([]error, 2*orders)
	var all sync.WaitGroup
	for hand := range 2 { // two at a time, whatever the machine: it is the same answer
		all.Go(func() {
			for k := hand; k < len(tries); k += 2 {
				across := k >= orders
				var placed []Placed
				if placed, errs[k] = s.greedy(ctx, s.order(k%orders), across); errs[k] != nil {
					return
				}
				s.closeUp(placed, across)
				tries[k] = s.answer(placed)
			}
		})
	}
	all.Wait()
	best := s.answer(s.rows())
	for k := range tries {
		if errs[k] != nil {
			return Layout{}, errs[k]
		}
		if tries[k].better(&best) {
			best = tries[k]
		}
	}
	return best, nil
}

// better tells whether a layout is the better one.
func (l *Layout) better(than *Layout) bool {
	if len(l.Placed) != len(than.Placed) {
		return len(l.Placed) > len(than.Placed)
	}
	return l.UsedMm2 < than.UsedMm2-exactMm
}

// search is a job with what is found once.
type search struct {
	j     *Job
	wants []int // the part of each piece that is wanted, the large ones first
	turns []float64
	free  *grid
	turn  *grid // the same sheet on its side
	side  *Job
}

func newSearch(j *Job) *search {
	s := &search{j: j, free: newGrid(j), side: onItsSide(j), turns: j.turnsOf()}
	s.turn = newGrid(s.side)
	held := map[int]int{}
	for _, h := range j.Held {
		held[h.Part]++
	}
	for i, p := range j.Parts {
		for range p.Count - held[i] {
			s.wants = append(s.wants, i)
		}
	}
	slices.SortStableFunc(s.wants, func(a, b int) int {
		return int(math.Copysign(1, j.Parts[b].Outline.AreaMm2()-j.Parts[a].Outline.AreaMm2()))
	})
	return s
}

// turnsOf are the ways a part may lie.
func (j *Job) turnsOf() (out []float64) {
	step := float64(turnStep)
	if j.MostTurnDeg >= 90 {
		step = turnStepNo
	}
	for d := 0.0; d < 360; d += step {
		off := math.Min(math.Min(d, math.Abs(d-180)), 360-d) // from the rolling
		if off <= j.MostTurnDeg+exactMm {
			out = append(out, d)
		}
	}
	return out
}

// onItsSide is the job with the sheet a quarter turned and turned over: x and y change places.
func onItsSide(j *Job) *Job {
	swap := func(p Polygon) Polygon {
		out := make(Polygon, len(p))
		for i, q := range p {
			out[i] = Point{q[1], q[0]}
		}
		return out
	}
	c := *j
	c.Sheet, c.Bad = swap(j.Sheet), nil
	for _, b := range j.Bad {
		c.Bad = append(c.Bad, swap(b))
	}
	return &c
}

// order is the k-th order of the parts: the large, the long, the high first, then shuffled.
func (s *search) order(k int) []int {
	out := slices.Clone(s.wants)
	by := func(of func(Polygon) float64) {
		slices.SortStableFunc(out, func(a, b int) int {
			return int(math.Copysign(1, of(s.j.Parts[b].Outline)-of(s.j.Parts[a].Outline)))
		})
	}
	switch k {
	case 0:
	case 1:
		by(func(p Polygon) float64 { l, h := p.Bounds(); return h[0] - l[0] })
	case 2:
		by(func(p Polygon) float64 { l, h := p.Bounds(); return h[1] - l[1] })
	default:
		rng := rand.New(rand.NewPCG(uint64(k), 1)) //nolint:gosec // the same with every run
		for i := range out {                       // mostly the large first
			if n := i + rng.IntN(3); n < len(out) {
				out[i], out[n] = out[n], out[i]
			}
		}
	}
	return out
}

// greedy lays one part after the other where it reaches least far along the sheet (across it:
// on its side), in the way it lies best.
func (s *search) greedy(ctx context.Context, order []int, across bool) ([]Placed, error) {
	g, bounds := s.free.clone(), s.j.Sheet
	if across {
		g, bounds = s.turn.clone(), s.side.Sheet
	}
	low, _ := bounds.Bounds()
	// on its side a part is seen mirrored
	seen := func(p Polygon) Polygon {
		if !across {
			return p
		}
		out := make(Polygon, len(p))
		for i, q := range p {
			out[i] = Point{q[1], q[0]}
		}
		return out
	}
	placed := slices.Clone(s.j.Held)
	for _, h := range s.j.Held {
		at := seen(s.j.outline(h))
		g.take(merged(g.touched(at, 0), g.runs(at)))
	}
	none := map[int]bool{}
	for _, part := range order {
		if none[part] {
			continue
		}
		best, until := Placed{Part: -1}, math.MaxInt
		for _, flipped := range []bool{false, true} {
			if flipped && !s.j.Flip {
				continue
			}
			for _, turn := range s.turns {
				if err := ctx.Err(); err != nil {
					return nil, err
				}
				shape := seen(s.j.Parts[part].Outline.Put(Point{}, turn, flipped))
				f := g.print(shape, s.j.GapMm)
				c, r, ok := g.first(&f, until)
				if !ok || best.Part >= 0 && c+f.wide-f.offset >= until {
					continue
				}
				until = c + f.wide - f.offset
				at := Point{low[0] + (float64(c)+1)*g.cell, low[1] + (float64(r)+1)*g.cell}
				if across {
					at[0], at[1] = at[1], at[0]
				}
				best = Placed{Part: part, XMm: at[0], YMm: at[1], TurnDeg: turn, Flipped: flipped}
			}
		}
		if best.Part < 0 {
			none[part] = true
			continue
		}
		if at := s.j.outline(best); s.fits(at, placed, -1) {
			placed = append(placed, best)
			at = seen(at)
			g.take(merged(g.touched(at, 0), g.runs(at)))
		}
	}
	return placed, nil
}

// fits tells, exactly, whether a part may lie so beside the others but for one.
func (s *search) fits(at Polygon, placed []Placed, but int) bool {
	if s.j.room(at) < s.j.MarginMm-exactMm {
		return false
	}
	for k, p := range placed {
		if k != but && Apart(at, s.j.outline(p), s.j.GapMm+1) < s.j.GapMm-exactMm {
			return false
		}
	}
	return true
}

// closeUp moves the parts together by exact distances: back along the sheet, then across it.
func (s *search) closeUp(placed []Placed, across bool) {
	held := len(s.j.Held)
	order := make([]int, 0, len(placed))
	for i := held; i < len(placed); i++ {
		order = append(order, i)
	}
	slices.SortFunc(order, func(a, b int) int { return int(math.Copysign(1, placed[a].XMm-placed[b].XMm)) })
	ways := []Point{{-1, 0}, {0, -1}}
	if across {
		ways[0], ways[1] = ways[1], ways[0]
	}
	others := make([]Polygon, len(placed))
	for i := range placed {
		others[i] = s.j.outline(placed[i])
	}
	free := func(i int, at Polygon) bool {
		if s.j.room(at) < s.j.MarginMm-exactMm {
			return false
		}
		for k := range others {
			if k != i && Apart(at, others[k], s.j.GapMm+1) < s.j.GapMm-exactMm {
				return false
			}
		}
		return true
	}
	for range rounds {
		for _, i := range order {
			for _, way := range ways {
				for step := float64(shiftsFrom); step >= shiftsTo; step /= 2 {
					for free(i, others[i].moved(way[0]*step, way[1]*step)) {
						others[i] = others[i].moved(way[0]*step, way[1]*step)
						placed[i].XMm += way[0] * step
						placed[i].YMm += way[1] * step
					}
				}
			}
		}
	}
}

// rows lays the parts in rows as one would by eye, each in its own rectangle, the high ones
// first; what comes to lie on a bad place, or over the rim, moves on along its row.
func (s *search) rows() []Placed {
	placed := slices.Clone(s.j.Held)
	low, high := s.j.Sheet.Bounds()
	order := s.order(2)
	y, tall := low[1]+s.j.MarginMm, 0.0
	x := low[0] + s.j.MarginMm
	for _, part := range order {
		o := s.j.Parts[part].Outline
		l, h := o.Bounds()
		wide, tallest := h[0]-l[0], h[1]-l[1]
		const stepMm = 2.0
		for {
			if x+wide > high[0]-s.j.MarginMm+exactMm {
				if tall == 0 && x <= low[0]+s.j.MarginMm {
					break // longer than the sheet
				}
				x, y = low[0]+s.j.MarginMm, y+math.Max(tall, stepMm)+s.j.GapMm
				tall = 0
			}
			if y+tallest > high[1]-s.j.MarginMm+exactMm {
				break
			}
			p := Placed{Part: part, XMm: x, YMm: y}
			if s.fits(s.j.outline(p), placed, -1) {
				placed = append(placed, p)
				x, tall = x+wide+s.j.GapMm, math.Max(tall, tallest)
				break
			}
			x += stepMm
		}
	}
	return placed
}

// answer reckons a layout up.
func (s *search) answer(placed []Placed) Layout {
	out := Layout{Placed: placed, Unplaced: []int{}}
	if out.Placed == nil {
		out.Placed = []Placed{}
	}
	low, high := s.j.Sheet.Bounds()
	count := make([]int, len(s.j.Parts))
	along, across := 0.0, 0.0
	for _, p := range placed {
		count[p.Part]++
		at := s.j.outline(p)
		_, h := at.Bounds()
		along, across = math.Max(along, h[0]-low[0]), math.Max(across, h[1]-low[1])
		out.PartsMm2 += at.AreaMm2()
		out.CutMm += at.AroundMm()
	}
	for i, p := range s.j.Parts {
		for range max(0, p.Count-count[i]) {
			out.Unplaced = append(out.Unplaced, i)
		}
	}
	if len(placed) == 0 {
		return out
	}
	along, across = math.Min(along+s.j.GapMm, high[0]-low[0]), math.Min(across+s.j.GapMm, high[1]-low[1])
	x, y := within(s.j.Sheet, 0, low[0]+along), within(s.j.Sheet, 1, low[1]+across)
	out.UsedMm, out.UsedMm2 = along, x
	if y < x {
		out.UsedMm, out.UsedMm2, out.Across = across, y, true
	}
	return out
}

// within is the area of a sheet up to a straight cut across x (axis 0) or y (axis 1).
func within(p Polygon, axis int, at float64) float64 {
	var out Polygon
	for i, a := range p {
		b := p[(i+1)%len(p)]
		if a[axis] <= at {
			out = append(out, a)
		}
		if (a[axis] <= at) != (b[axis] <= at) {
			u := (at - a[axis]) / (b[axis] - a[axis])
			out = append(out, Point{a[0] + u*(b[0]-a[0]), a[1] + u*(b[1]-a[1])})
		}
	}
	if len(out) < 3 {
		return 0
	}
	return out.AreaMm2()
}
