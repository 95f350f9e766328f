package photo

import (
	"math"
	"sort"
)

// Sheet is the rectangle between the centres of its marks, mm.
type Sheet struct{ WideMm, HighMm float64 }

// The marks as they are printed: rings round a white disc, a dot in the first; their centres so far from the
// edges of the paper.
const (
	RingMm  = 7.0
	WhiteMm = 3.5
	DotMm   = 1.5
	InsetMm = 8.0
)

// Error says why a photograph cannot be read.
type Error struct{ Code string }

func (e *Error) Error() string { return "photo: " + e.Code }

// gray is a picture of one channel, 0 to 1.
type gray struct {
	w, h int
	v    []float32
}

func (g *gray) at(x, y int) float32 { return g.v[y*g.w+x] }

// sample is straight between pixels; outside it is the nearest.
func (g *gray) sample(x, y float64) float64 {
	x, y = math.Max(0, math.Min(float64(g.w-1)-1e-6, x)), math.Max(0, math.Min(float64(g.h-1)-1e-6, y))
	i, j := int(x), int(y)
	u, v := x-float64(i), y-float64(j)
	i1, j1 := min(i+1, g.w-1), min(j+1, g.h-1)
	return (float64(g.at(i, j))*(1-u)+float64(g.at(i1, j))*u)*(1-v) + (float64(g.at(i, j1))*(1-u)+float64(g.at(i1, j1))*u)*v
}

// blob is a connected dark patch.
type blob struct {
	n, x0, y0, x1, y1 int
	sx, sy            float64
}

// blobs are the patches of a mask, eight neighbours touching.
func blobs(mask []bool, w, h int) (out []blob, of []int32) {
	of = make([]int32, w*h)
	var stack []int
	for start := range mask {
		if !mask[start] || of[start] != 0 {
			continue
		}
		id := int32(len(out) + 1)
		b := blob{x0: w, y0: h}
		stack = append(stack[:0], start)
		of[start] = id
		for len(stack) > 0 {
			p := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			x, y := p%w, p/w
			b.n++
			b.sx, b.sy = b.sx+float64(x), b.sy+float64(y)
			b.x0, b.y0, b.x1, b.y1 = min(b.x0, x), min(b.y0, y), max(b.x1, x), max(b.y1, y)
			for dy := -1; dy <= 1; dy++ {
				for dx := -1; dx <= 1; dx++ {
					if nx, ny := x+dx, y+dy; nx >= 0 && ny >= 0 && nx < w && ny < h {
						if q := ny*w + nx; mask[q] && of[q] == 0 {
							of[q] = id
							stack = append(stack, q)
						}
					}
				}
			}
		}
		out = append(out, b)
	}
	return out, of
}

// darker is the mask of what is darker than its surroundings, by the mean of a window.
func (g *gray) darker(window int, share float64) []bool {
	sum := make([]float64, (g.w+1)*(g.h+1))
	for y := range g.h {
		row := 0.0
		for x := range g.w {
			row += float64(g.at(x, y))
			sum[(y+1)*(g.w+1)+x+1] = sum[y*(g.w+1)+x+1] + row
		}
	}
	out := make([]bool, g.w*g.h)
	for y := range g.h {
		y0, y1 := max(0, y-window), min(g.h, y+window+1)
		for x := range g.w {
			x0, x1 := max(0, x-window), min(g.w, x+window+1)
			mean := (sum[y1*(g.w+1)+x1] - sum[y0*(g.w+1)+x1] - sum[y1*(g.w+1)+x0] + sum[y0*(g.w+1)+x0]) / float64((y1-y0)*(x1-x0))
			out[y*g.w+x] = float64(g.at(x, y)) < share*mean
		}
	}
	return out
}

// ring is a mark that was found.
type ring struct {
	x, y, size float64
	dotted     bool
}

// rings are what looks like a mark: round, about as large as one, dark round a light middle.
func (g *gray) rings() (out []ring) {
	list, _ := blobs(g.darker(g.w/20, .8), g.w, g.h)
	least, most := float64(g.w)*RingMm/900, float64(g.w)*RingMm/150
	for _, b := range list {
		w, h := float64(b.x1-b.x0+1), float64(b.y1-b.y0+1)
		if w < least || w > most || h < w*.6 || h > w*1.7 {
			continue
		}
		x, y := float64(b.x0+b.x1)/2, float64(b.y0+b.y1)/2
		// what is dark of the ellipse of its box: all but the white disc, whose share is a quarter
		if share := float64(b.n) / (math.Pi / 4 * w * h); share < .5 || share > .95 {
			continue
		}
		dark := g.around(x, y, w/2*.75, h/2*.75)
		light := g.around(x, y, w/2*.36, h/2*.36)
		if light < dark*1.35 {
			continue
		}
		out = append(out, ring{x, y, math.Sqrt(w * h), g.sample(x, y) < (light+dark)/2})
	}
	return out
}

// around is the mean on an ellipse.
func (g *gray) around(x, y, a, b float64) (mean float64) {
	const n = 24
	for k := range n {
		s, c := math.Sincos(2 * math.Pi * float64(k) / n)
		mean += g.sample(x+a*c, y+b*s) / n
	}
	return mean
}

// corners are the four marks in order: the dotted one, then along the sheet, and round.
func (g *gray) corners() (out [4]ring, err error) {
	all := g.rings()
	if len(all) < 4 {
		return out, &Error{"photo.noMarks"}
	}
	corner := [4][2]float64{{0, 0}, {float64(g.w), 0}, {float64(g.w), float64(g.h)}, {0, float64(g.h)}}
	used := map[int]bool{}
	for k, c := range corner {
		best, far := -1, math.Inf(1)
		for i, r := range all {
			if d := math.Hypot(r.x-c[0], r.y-c[1]); d < far && !used[i] {
				best, far = i, d
			}
		}
		used[best] = true
		out[k] = all[best]
	}
	sizes := []float64{out[0].size, out[1].size, out[2].size, out[3].size}
	sort.Float64s(sizes)
	if sizes[3] > 2*sizes[0] {
		return out, &Error{"photo.noMarks"}
	}
	dotted := -1
	for k, r := range out {
		if r.dotted {
			if dotted >= 0 {
				return out, &Error{"photo.noFirst"}
			}
			dotted = k
		}
	}
	if dotted < 0 {
		return out, &Error{"photo.noFirst"}
	}
	var turned [4]ring
	for k := range out {
		turned[k] = out[(k+dotted)%4]
	}
	return turned, nil
}

// homography takes a place of the sheet to the picture: from four pairs, by elimination.
func homography(from, to [4][2]float64) (h [9]float64, ok bool) {
	var m [8][9]float64
	for k := range 4 {
		x, y, u, v := from[k][0], from[k][1], to[k][0], to[k][1]
		m[2*k] = [9]float64{x, y, 1, 0, 0, 0, -u * x, -u * y, u}
		m[2*k+1] = [9]float64{0, 0, 0, x, y, 1, -v * x, -v * y, v}
	}
	for c := range 8 {
		p := c
		for r := c + 1; r < 8; r++ {
			if math.Abs(m[r][c]) > math.Abs(m[p][c]) {
				p = r
			}
		}
		if math.Abs(m[p][c]) < 1e-12 {
			return h, false
		}
		m[c], m[p] = m[p], m[c]
		for r := range 8 {
			if r == c {
				continue
			}
			f := m[r][c] / m[c][c]
			for k := c; k < 9; k++ {
				m[r][k] -= f * m[c][k]
			}
		}
	}
	for c := range 8 {
		h[c] = m[c][8] / m[c][c]
	}
	h[8] = 1
	return h, true
}

func place(h [9]float64, x, y float64) (u, v float64) {
	w := h[6]*x + h[7]*y + h[8]
	return (h[0]*x + h[1]*y + h[2]) / w, (h[3]*x + h[4]*y + h[5]) / w
}
