package nest

import (
	"math"
	"math/bits"
	"slices"
)

// grid is a sheet in squares: a column of bits for each step along it, a bit that is set for
// each square that is taken.
type grid struct {
	cell       float64
	low        Point
	cols, rows int
	taken      [][]uint64
}

// Squares of the grid: as fine as fits these bounds.
const (
	finestMm  = 1.5
	mostAlong = 400
)

// newGrid is the sheet with all that no part may touch taken.
func newGrid(j *Job) *grid {
	low, high := j.Sheet.Bounds()
	cell := math.Max(finestMm, math.Max(high[0]-low[0], high[1]-low[1])/mostAlong)
	g := &grid{cell: cell, low: low, cols: int(math.Ceil((high[0]-low[0])/cell)) + 1, rows: int(math.Ceil((high[1]-low[1])/cell)) + 1}
	words := (g.rows + 63) / 64
	g.taken = make([][]uint64, g.cols)
	inside := g.runs(j.Sheet)
	for c := range g.taken {
		g.taken[c] = make([]uint64, words)
		for b := range g.rows {
			g.taken[c][b/64] |= 1 << (b % 64)
		}
		for _, r := range inside[c] {
			for b := r[0]; b <= r[1]; b++ {
				g.taken[c][b/64] &^= 1 << (b % 64)
			}
		}
	}
	g.take(g.touched(j.Sheet, j.MarginMm))
	for _, b := range j.Bad {
		g.take(merged(g.touched(b, j.MarginMm), g.runs(b)))
	}
	return g
}

// run is a stretch of squares of a column, both ends in it.
type run [2]int

// mask is an outline in squares: the runs of each column, from the column first on.
type mask map[int][]run

// runs are the squares whose middle lies in an outline.
func (g *grid) runs(p Polygon) mask {
	out := mask{}
	low, high := p.Bounds()
	first, last := int(math.Floor((low[0]-g.low[0])/g.cell)), int(math.Ceil((high[0]-g.low[0])/g.cell))
	for c := max(0, first); c <= min(g.cols-1, last); c++ {
		x := g.low[0] + (float64(c)+.5)*g.cell
		var cross []float64
		for i, a := range p {
			b := p[(i+1)%len(p)]
			if (a[0] > x) != (b[0] > x) {
				cross = append(cross, a[1]+(b[1]-a[1])*(x-a[0])/(b[0]-a[0]))
			}
		}
		slices.Sort(cross)
		for i := 0; i+1 < len(cross); i += 2 {
			from := int(math.Ceil((cross[i]-g.low[1])/g.cell - .5))
			to := int(math.Floor((cross[i+1]-g.low[1])/g.cell - .5))
			if from, to = max(0, from), min(g.rows-1, to); from <= to {
				out[c] = append(out[c], run{from, to})
			}
		}
	}
	return out
}

// touched are the squares that come within reach of the line of an outline.
func (g *grid) touched(p Polygon, reach float64) mask {
	out := mask{}
	r := reach + g.cell*math.Sqrt2/2 // of a square's middle, from any point of it
	for i, a := range p {
		b := p[(i+1)%len(p)]
		first := int(math.Floor((math.Min(a[0], b[0]) - r - g.low[0]) / g.cell))
		last := int(math.Ceil((math.Max(a[0], b[0]) + r - g.low[0]) / g.cell))
		for c := max(0, first); c <= min(g.cols-1, last); c++ {
			x := g.low[0] + (float64(c)+.5)*g.cell
			lowY, highY, ok := band(a, b, x, r)
			if !ok {
				continue
			}
			from, to := max(0, int(math.Ceil((lowY-g.low[1])/g.cell-.5))), min(g.rows-1, int(math.Floor((highY-g.low[1])/g.cell-.5)))
			if from <= to {
				out[c] = append(out[c], run{from, to})
			}
		}
	}
	return out
}

// band is where the line at x comes within r of a stretch of line: no less than that.
func band(a, b Point, x, r float64) (low, high float64, ok bool) {
	if x < math.Min(a[0], b[0])-r || x > math.Max(a[0], b[0])+r {
		return 0, 0, false
	}
	low, high = math.Inf(1), math.Inf(-1)
	at := func(p Point) {
		if d := math.Abs(p[0] - x); d <= r {
			h := math.Sqrt(r*r - d*d)
			low, high = math.Min(low, p[1]-h), math.Max(high, p[1]+h)
		}
	}
	at(a)
	at(b)
	if dx, dy := b[0]-a[0], b[1]-a[1]; dx != 0 { // beside it, between its ends
		l := math.Hypot(dx, dy)
		up := r * l / math.Abs(dx)
		for _, sign := range [2]float64{1, -1} {
			// the foot of the point at x and y must lie between a and b
			y := a[1] + dy*(x-a[0])/dx + sign*up
			if u := ((x-a[0])*dx + (y-a[1])*dy) / (l * l); u >= 0 && u <= 1 {
				low, high = math.Min(low, y), math.Max(high, y)
			}
		}
		if x >= math.Min(a[0], b[0]) && x <= math.Max(a[0], b[0]) {
			y := a[1] + dy*(x-a[0])/dx
			low, high = math.Min(low, y), math.Max(high, y)
		}
	}
	return low, high, low <= high
}

// merged puts masks together, the runs of each column in order and none over another.
func merged(masks ...mask) mask {
	out := mask{}
	for _, m := range masks {
		for c, rs := range m {
			out[c] = append(out[c], rs...)
		}
	}
	for c, rs := range out {
		slices.SortFunc(rs, func(a, b run) int { return a[0] - b[0] })
		kept := rs[:0:0]
		for _, r := range rs {
			if n := len(kept); n > 0 && r[0] <= kept[n-1][1]+1 {
				kept[n-1][1] = max(kept[n-1][1], r[1])
				continue
			}
			kept = append(kept, r)
		}
		out[c] = kept
	}
	return out
}

func (g *grid) take(m mask) {
	for c, rs := range m {
		for _, r := range rs {
			for b := r[0]; b <= r[1]; b++ {
				g.taken[c][b/64] |= 1 << (b % 64)
			}
		}
	}
}

func (g *grid) clone() *grid {
	c := *g
	c.taken = make([][]uint64, len(g.taken))
	for i := range g.taken {
		c.taken[i] = slices.Clone(g.taken[i])
	}
	return &c
}

// footprint is a part in squares, its lowest corner at a square's.
type footprint struct {
	cols   [][]run // runs of each of its columns
	tall   []int   // those that have any, the tallest first: they find soonest that it does not fit
	high   int
	wide   int
	offset int // squares that the gap takes before its lowest corner
}

// print is an outline in squares with the gap around it.
func (g *grid) print(p Polygon, gap float64) footprint {
	big := &grid{cell: g.cell, cols: 1 << 20, rows: 1 << 20}
	pad := gap + 2*g.cell
	offset := int(math.Ceil(pad / g.cell))
	low, _ := p.Bounds()
	at := p.moved(float64(offset)*g.cell-low[0], float64(offset)*g.cell-low[1])
	m := merged(big.touched(at, gap), big.runs(at))
	f := footprint{offset: offset}
	for c, rs := range m {
		f.wide = max(f.wide, c+1)
		f.high = max(f.high, rs[len(rs)-1][1]+1)
	}
	f.cols = make([][]run, f.wide)
	tall := make([]int, f.wide)
	for c, rs := range m {
		f.cols[c] = rs
		f.tall = append(f.tall, c)
		for _, r := range rs {
			tall[c] += r[1] - r[0] + 1
		}
	}
	slices.SortFunc(f.tall, func(a, b int) int {
		if tall[a] != tall[b] {
			return tall[b] - tall[a]
		}
		return a - b
	})
	return f
}

// first is the place where a part fits and reaches least far along the sheet, then least far
// up; it is not looked for where the part would reach past a column. In squares: of the part's
// lowest corner.
func (g *grid) first(f *footprint, until int) (col, row int, ok bool) {
	words := (g.rows + 63) / 64
	blocked, tmp, shifted := make([]uint64, words), make([]uint64, words), make([]uint64, words)
	// the gap may reach over the rim: the rim keeps its margin by squares of its own
	for c := -f.offset; c < g.cols && c+f.wide-f.offset <= until; c++ {
		clear(blocked)
		for _, k := range f.tall {
			at := c + k
			if at < 0 || at >= g.cols {
				continue
			}
			for _, r := range f.cols[k] {
				spread(shifted, tmp, g.taken[at], r[0]-f.offset, r[1]-f.offset)
				for w := range blocked {
					blocked[w] |= shifted[w]
				}
			}
			if full(blocked, g.rows) {
				break
			}
		}
		for w, b := range blocked {
			if free := ^b; free != 0 {
				if r := w*64 + bits.TrailingZeros64(free); r < g.rows {
					return c + f.offset, r, true
				}
			}
		}
	}
	return 0, 0, false
}

// spread sets the bits of all rows from which any of the rows low … high further on is taken.
func spread(out, tmp, taken []uint64, low, high int) {
	copy(tmp, taken)
	n := high - low + 1
	for done := 1; done < n; { // double the reach of what is set as long as it fits
		step := min(done, n-done)
		orDown(tmp, step)
		done += step
	}
	shift(out, tmp, low)
}

// orDown sets every bit that is set so many rows further on.
func orDown(v []uint64, by int) {
	w, b := by/64, by%64
	for i := range v {
		x := uint64(0)
		if i+w < len(v) {
			x = v[i+w] >> b
		}
		if b > 0 && i+w+1 < len(v) {
			x |= v[i+w+1] << (64 - b)
		}
		v[i] |= x
	}
}

// shift moves rows down by so many, up where it is less than 0.
func shift(out, v []uint64, by int) {
	up := by < 0
	if up {
		by = -by
	}
	w, b := by/64, by%64
	for i := range out {
		x, at, next := uint64(0), i+w, i+w+1
		if up {
			at, next = i-w, i-w-1
		}
		if at >= 0 && at < len(v) {
			if x = v[at] >> b; up {
				x = v[at] << b
			}
		}
		if b > 0 && next >= 0 && next < len(v) {
			if up {
				x |= v[next] >> (64 - b)
			} else {
				x |= v[next] << (64 - b)
			}
		}
		out[i] = x
	}
}

func full(v []uint64, rows int) bool {
	for r := 0; r < rows; r += 64 {
		w := v[r/64]
		if left := rows - r; left < 64 {
			w |= ^uint64(0) << left
		}
		if w != ^uint64(0) {
			return false
		}
	}
	return true
}
