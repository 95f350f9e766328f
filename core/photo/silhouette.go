package photo

import (
	"context"
	"image"
	"math"
	"sort"
)

// Silhouette is the blank as it lies: along the sheet, from its first end, every half millimetre.
type Silhouette struct {
	LengthMm float64  `json:"lengthMm"`
	Along    []Across `json:"along"`
	Seen     float64  `json:"seenShare" doc:"of it whose edges are seen"`
	BowMm    float64  `json:"bowMm" doc:"how far its middle line is from straight, at the most"`
}

// Across is the blank at one place: its edges, from the upper side of the sheet; what is not seen has none.
type Across struct {
	XMm      float64 `json:"xMm" doc:"from the first end"`
	TopMm    float64 `json:"topMm"`
	BottomMm float64 `json:"bottomMm"`
	Seen     bool    `json:"seen"`
}

// HeightMm of the blank there.
func (a *Across) HeightMm() float64 { return a.BottomMm - a.TopMm }

// How it is looked at (judgement): points a millimetre of the squared picture; how much darker than the paper steel
// is; how thin a line or a letter is, that is none of it; how large glare is, that is closed; what is too small to be a
// blank; how far a place may lie off its neighbours, and how little of the edges may be seen.
const (
	perMm      = 4
	steelShare = .74
	lineMm     = .7
	glareMm    = 1.6
	leastMm2   = 300.0
	jumpMm     = .7
	aboutMm    = 9.0
	leastSeen  = .6
	brighter   = 1.03 // than the paper round it
	leastEdge  = .1
	mostPx     = 2600
	borderMm   = 6.0
)

// Read finds the blank in a photograph of a sheet. Errors are *Error, or the context's.
func Read(ctx context.Context, img image.Image, s Sheet) (*Silhouette, error) {
	g, err := grayOf(ctx, img)
	if err != nil {
		return nil, err
	}
	marks, err := g.corners()
	if err != nil {
		return nil, err
	}
	from := [4][2]float64{{0, 0}, {s.WideMm, 0}, {s.WideMm, s.HighMm}, {0, s.HighMm}}
	var to [4][2]float64
	for k, m := range marks {
		to[k] = [2]float64{m.x, m.y}
	}
	h, ok := homography(from, to)
	if !ok {
		return nil, &Error{"photo.noMarks"}
	}
	flat := &gray{w: int(s.WideMm * perMm), h: int(s.HighMm * perMm)}
	flat.v = make([]float32, flat.w*flat.h)
	for y := range flat.h {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		for x := range flat.w {
			u, v := place(h, float64(x)/perMm, float64(y)/perMm)
			flat.v[y*flat.w+x] = float32(g.sample(u, v))
		}
	}
	return flat.outline(ctx)
}

// grayOf is a picture in grey, no larger than is looked at.
func grayOf(ctx context.Context, img image.Image) (*gray, error) {
	b := img.Bounds()
	step := max(1, int(math.Ceil(float64(max(b.Dx(), b.Dy()))/mostPx)))
	g := &gray{w: b.Dx() / step, h: b.Dy() / step}
	g.v = make([]float32, g.w*g.h)
	for y := range g.h {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		for x := range g.w {
			sum := 0.0
			for j := range step {
				for i := range step {
					r, gr, bl, _ := img.At(b.Min.X+x*step+i, b.Min.Y+y*step+j).RGBA()
					sum += (.299*float64(r) + .587*float64(gr) + .114*float64(bl)) / 65535
				}
			}
			g.v[y*g.w+x] = float32(sum / float64(step*step))
		}
	}
	return g, nil
}

// paper is how bright the sheet is everywhere: the middle of what is light in a wide neighbourhood, since the light is uneven;
// straight between the middles of the fields.
func (g *gray) paper() *gray {
	const fieldMm, halfMm = 15.0, 40.0
	nx, ny := max(2, int(float64(g.w)/perMm/fieldMm)), max(2, int(float64(g.h)/perMm/fieldMm))
	out := &gray{w: nx, h: ny, v: make([]float32, nx*ny)}
	for j := range ny {
		for i := range nx {
			cx, cy := (float64(i)+.5)*float64(g.w)/float64(nx), (float64(j)+.5)*float64(g.h)/float64(ny)
			var near []float64
			for y := max(0, int(cy-halfMm*perMm)); y < min(g.h, int(cy+halfMm*perMm)); y += 5 {
				for x := max(0, int(cx-halfMm*perMm/2)); x < min(g.w, int(cx+halfMm*perMm/2)); x += 5 {
					near = append(near, float64(g.at(x, y)))
				}
			}
			sort.Float64s(near)
			top := near[int(.95*float64(len(near)-1))]
			first := sort.SearchFloat64s(near, .7*top) // what is darker is steel, or print
			out.v[j*nx+i] = float32(near[(first+len(near)-1)/2])
		}
	}
	return out
}

func px(mm float64) int { return int(math.Round(mm * perMm)) }

// outline finds the blank on a squared sheet.
func (g *gray) outline(ctx context.Context) (*Silhouette, error) {
	light := g.paper()
	ratio := &gray{w: g.w, h: g.h, v: make([]float32, g.w*g.h)}
	mask := make([]bool, g.w*g.h)
	border := px(borderMm)
	for y := range g.h {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		for x := range g.w {
			p := light.sample((float64(x)+.5)/float64(g.w)*float64(light.w)-.5, (float64(y)+.5)/float64(g.h)*float64(light.h)-.5)
			r := float64(g.at(x, y)) / math.Max(.02, p)
			ratio.v[y*g.w+x] = float32(r)
			mark := (x < border || x >= g.w-border) && (y < border || y >= g.h-border)
			mask[y*g.w+x] = r < steelShare && !mark
		}
	}
	mask = grown(shrunk(mask, g.w, g.h, px(lineMm/2)), g.w, g.h, px(lineMm/2))
	mask = shrunk(grown(mask, g.w, g.h, px(glareMm)), g.w, g.h, px(glareMm))
	return g.largest(ratio, mask)
}

// largest is the largest patch of steel, its edges found to parts of a point.
func (g *gray) largest(ratio *gray, mask []bool) (*Silhouette, error) {
	list, of := blobs(mask, g.w, g.h)
	best := -1
	for i, b := range list {
		if best < 0 || b.n > list[best].n {
			best = i
		}
	}
	if best < 0 || float64(list[best].n) < leastMm2*perMm*perMm {
		return nil, &Error{"photo.noBlank"}
	}
	b := list[best]
	if b.x0 <= 1 || b.y0 <= 1 || b.x1 >= g.w-2 || b.y1 >= g.h-2 {
		return nil, &Error{"photo.overEdge"}
	}
	out := &Silhouette{LengthMm: float64(b.x1-b.x0+1) / perMm}
	step := perMm / 2
	for x := b.x0; x <= b.x1; x += step {
		top, bottom := -1, -1
		for y := b.y0; y <= b.y1; y++ {
			if of[y*g.w+x] == int32(best+1) {
				if top < 0 {
					top = y
				}
				bottom = y
			}
		}
		a := Across{XMm: float64(x-b.x0) / perMm}
		if top >= 0 {
			t, okT := ratio.edge(x, top, -1)
			u, okU := ratio.edge(x, bottom, 1)
			a.TopMm, a.BottomMm, a.Seen = t/perMm, u/perMm, okT && okU && !ratio.glares(x, t, -1) && !ratio.glares(x, u, 1)
		}
		out.Along = append(out.Along, a)
	}
	out.judge()
	if out.Seen < leastSeen {
		return nil, &Error{"photo.notSeen"}
	}
	return out, nil
}

// edge is where between pixels steel ends, going out of it: half way between what lies inside and outside. ok is false where
// the two are too much alike.
func (g *gray) edge(x, y, out int) (at float64, ok bool) {
	const reach = 6
	in := func(k int) float64 { return float64(g.at(x, max(0, min(g.h-1, y+out*k)))) }
	inside := (in(-3) + in(-4) + in(-5)) / 3
	outside := (in(reach-1) + in(reach) + in(reach-2)) / 3
	if outside-inside < leastEdge {
		return float64(y), false
	}
	mid := (inside + outside) / 2
	for k := -4; k < reach; k++ {
		a, b := in(k), in(k+1)
		if a < mid && b >= mid {
			return float64(y) + float64(out)*(float64(k)+(mid-a)/(b-a)), true
		}
	}
	return float64(y), false
}

// glares tells whether what lies outside of an edge is brighter than paper is: then it is steel that shines, and the edge is
// somewhere behind it.
func (g *gray) glares(x int, at float64, out int) bool {
	sum, n := 0.0, 0.0
	for d := px(.8); d <= px(2.4); d++ {
		for i := -px(1); i <= px(1); i++ {
			u, v := x+i, int(at)+out*d
			if u >= 0 && u < g.w && v >= 0 && v < g.h {
				sum, n = sum+float64(g.at(u, v)), n+1
			}
		}
	}
	return n > 0 && sum/n > brighter
}

// judge marks what cannot be trusted: an edge that jumps off its neighbours is glare or a line, not steel; and sums up.
func (o *Silhouette) judge() {
	n, near := len(o.Along), px(aboutMm)/2
	seen := 0
	bad := make([]bool, n)
	for i := range o.Along {
		about := 0
		for k := max(0, i-near); k <= min(n-1, i+near); k++ {
			if o.Along[k].Seen {
				about++
			}
		}
		if about < near/2 {
			bad[i] = true
			continue
		}
		bad[i] = o.off(i, near, func(a *Across) float64 { return a.TopMm }) > jumpMm || o.off(i, near, func(a *Across) float64 { return a.BottomMm }) > jumpMm
	}
	lo, hi := math.Inf(1), math.Inf(-1)
	for i := range o.Along {
		a := &o.Along[i]
		a.Seen = a.Seen && !bad[i]
		if !a.Seen {
			continue
		}
		seen++
		if float64(i) > .05*float64(n) && float64(i) < .95*float64(n) {
			m := (a.TopMm + a.BottomMm) / 2
			lo, hi = math.Min(lo, m), math.Max(hi, m)
		}
	}
	o.Seen = float64(seen) / float64(max(1, n))
	if hi > lo {
		o.BowMm = hi - lo
	}
}

// off is how far a place lies off the line through its neighbours: the median of what they say of it, each pair at equal
// distance before and after.
func (o *Silhouette) off(i, near int, of func(*Across) float64) float64 {
	var says []float64
	for d := 2; d <= near; d++ {
		if i-d < 0 || i+d >= len(o.Along) || !o.Along[i-d].Seen || !o.Along[i+d].Seen {
			continue
		}
		says = append(says, (of(&o.Along[i-d])+of(&o.Along[i+d]))/2)
	}
	if len(says) < 3 {
		return 0
	}
	sort.Float64s(says)
	return math.Abs(of(&o.Along[i]) - says[len(says)/2])
}

// grown and shrunk are a mask with a square of a radius added, or taken off: two passes.
func grown(mask []bool, w, h, r int) []bool { return passed(mask, w, h, r, true) }

func shrunk(mask []bool, w, h, r int) []bool { return passed(mask, w, h, r, false) }

func passed(mask []bool, w, h, r int, want bool) []bool {
	line := func(from []bool, n, stride, lines, skip int) []bool {
		out := make([]bool, len(from))
		for l := range lines {
			base := l * skip
			count := 0 // of want within reach
			for k := 0; k < min(r, n); k++ {
				if from[base+k*stride] == want {
					count++
				}
			}
			for k := range n {
				if k+r < n && from[base+(k+r)*stride] == want {
					count++
				}
				if k-r-1 >= 0 && from[base+(k-r-1)*stride] == want {
					count--
				}
				out[base+k*stride] = (count > 0) == want
			}
		}
		return out
	}
	return line(line(mask, w, 1, h, w), h, w, w, 1)
}
