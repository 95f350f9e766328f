package billet

import (
	"math"

	"coldember/core/blade"
	"coldember/core/section"
)

// Etched is one face of a finished blade as it etches: how bright each point is, 0 to 255, a row
// from the spine down, 0 where there is no blade; Nx × Ny points evenly over the box of the blade
// proper.
type Etched struct {
	Nx    int     `json:"nx"`
	Ny    int     `json:"ny"`
	FromY float64 `json:"fromY" doc:"of the box: its lowest"`
	ToY   float64 `json:"toY"`
	Pixel []byte  `json:"pixels" doc:"one a point"`
}

// Blade is a blade of a patterned bar.
type Blade struct {
	Finished *blade.Body
	Forged   *blade.Body
	Bar      Bar     // Layers 1: its layers are shares of its thickness
	Laid     []Layer // as shares of the thickness, from the underside
	Tones    map[string]Tone
	Join     Join
	// OnBarMm is how much of the bar the forged blade proper takes, from its point.
	OnBarMm float64
	// DeeperMm is ground off each face beyond the plan; negative: left on.
	DeeperMm float64
	// Ground: the bevels are ground into a flat bar instead of forged with it.
	Ground bool
	// Eaten is what scale took of the bar's volume while it was forged: it took the skin.
	Eaten float64
	// The finished blade lies in the steel so far nearer to its point, and so far up.
	MovedMm, UpMm float64
}

// Eaten is the share of a bar's thickness and of its width that go where scale takes a share of its
// volume: it eats as deep on every side.
func (b *Bar) Eaten(share float64) (ofThickness, ofWidth float64) {
	return eaten(b.ForgedWidthMm, b.ForgedThicknessMm, share)
}

func eaten(w, t, share float64) (ofThickness, ofWidth float64) {
	share = math.Max(0, math.Min(.8, share))
	return share * w / (w + t), share * t / (w + t)
}

// gone is the same of the whole bar of a blade.
func (b *Blade) gone() (ofThickness, ofWidth float64) {
	return eaten(b.wide(), b.Bar.ForgedThicknessMm, b.Eaten)
}

// forgedX is where in the forged blade a station of the finished one lies.
func (b *Blade) forgedX(x float64) float64 {
	return x + b.Forged.LengthMm() - b.Finished.LengthMm() - b.MovedMm
}

// inForged is how far above the forged edge a place of the finished blade lies.
func (b *Blade) inForged(x, xf, y float64) float64 {
	return b.UpMm + b.Finished.EdgeY(x) + y - b.Forged.EdgeY(xf)
}

// whole is the thickness that all layers of the bar have at a place of the forged blade, those that
// scale has taken among them.
func (b *Blade) whole(forged *section.Section, up float64) float64 {
	t, _ := b.gone()
	if b.Ground {
		return forged.SpineMm / (1 - t)
	}
	return forged.ThicknessAt(math.Max(0, math.Min(forged.HeightMm, up))) / (1 - t)
}

// EatenLayers are how many whole and part layers scale takes off each face of the bar.
func (b *Blade) EatenLayers() float64 {
	t, _ := b.gone()
	left, n := t/2, 0.0
	for _, l := range b.Laid {
		if l.ThicknessMm > left {
			return n + left/l.ThicknessMm
		}
		left, n = left-l.ThicknessMm, n+1
	}
	return n
}

// How bright the tones etch.
var brightness = map[Tone]float64{Bright: 232, Grey: 138, Dark: 46}

// seams is how bright the skin between wires etches: carbon has gone out of it.
const seams = 170

// stack is the layers as they are looked up: where each ends, and how bright it is.
type stack struct {
	ends   []float64
	bright []float64
	other  Bar // the one that turns the other way
}

func (b *Blade) stack() stack {
	s := stack{other: b.Bar}
	if s.other.Hand = Left; b.Bar.Hand == Left {
		s.other.Hand = Right
	}
	at := 0.0
	for _, l := range b.Laid {
		at += l.ThicknessMm
		light := brightness[b.Tones[l.SteelID]]
		if l.SteelID == Rim {
			light = seams
		}
		s.ends, s.bright = append(s.ends, at), append(s.bright, light)
	}
	return s
}

// at is how bright a share of the thickness is, from the underside.
func (s *stack) at(share float64) float64 {
	lo, hi := 0, len(s.ends)-1
	for lo < hi {
		if mid := (lo + hi) / 2; s.ends[mid] < share {
			lo = mid + 1
		} else {
			hi = mid
		}
	}
	return s.bright[lo]
}

// column is what of a station does not change across it.
type column struct {
	ok          bool
	edgeY, high float64
	up          float64 // the finished edge, over the forged one
	barX        float64
	forgedHigh  float64
	halves      [][2]float64 // depth shares of front and back at heights
}

// Faces are both faces: front and back. Each point is looked at four times, so that fine layers
// come out as their mean.
func (b *Blade) Faces(nx, ny int) (front, back Etched) {
	length := b.Finished.LengthMm()
	lo, hi := math.Inf(1), math.Inf(-1)
	for i := range nx {
		x := length * (float64(i) + .5) / float64(nx)
		lo, hi = math.Min(lo, b.Finished.EdgeY(x)), math.Max(hi, b.Finished.SpineY(x))
	}
	front = Etched{nx, ny, lo, hi, make([]byte, nx*ny)}
	back = Etched{nx, ny, lo, hi, make([]byte, nx*ny)}
	s := b.stack()
	along := b.along()
	const sub = 2
	for i := range nx {
		var cols [sub]column
		for k := range sub {
			cols[k] = b.column(length*(float64(i)+(float64(k)+.5)/sub)/float64(nx), along)
		}
		for j := range ny {
			var f, r float64
			n := 0
			for k := range sub {
				c := &cols[k]
				if !c.ok {
					continue
				}
				for m := range sub {
					y := hi - (hi-lo)*(float64(j)+(float64(m)+.5)/sub)/float64(ny) - c.edgeY
					if y < 0 || y > c.high {
						continue
					}
					n++
					f += b.bright(&s, c, y, 1)
					r += b.bright(&s, c, y, -1)
				}
			}
			if n > 0 {
				front.Pixel[j*nx+i] = byte(math.Max(1, math.Min(255, math.Round(f/float64(n)))))
				back.Pixel[j*nx+i] = byte(math.Max(1, math.Min(255, math.Round(r/float64(n)))))
			}
		}
	}
	return front, back
}

// heightSteps is how finely the depth across a station is kept; between them it runs straight.
const heightSteps = 48

// column prepares a station of the finished blade.
func (b *Blade) column(x float64, along func(float64) float64) column {
	xf := b.forgedX(x)
	if xf < 0 || xf > b.Forged.LengthMm() {
		return column{}
	}
	fin, forged := b.Finished.SectionAt(x), b.Forged.SectionAt(xf)
	c := column{ok: fin.HeightMm > 0 && forged.HeightMm > 0, edgeY: b.Finished.EdgeY(x), up: b.inForged(x, xf, 0), high: fin.HeightMm, barX: along(xf), forgedHigh: forged.HeightMm}
	if !c.ok {
		return c
	}
	c.halves = make([][2]float64, heightSteps+1)
	for k := range c.halves {
		y := fin.HeightMm * float64(k) / heightSteps
		f, back := fin.FacesAt(y)
		half := b.whole(&forged, c.up+y) / 2
		c.halves[k] = [2]float64{depth(f-b.DeeperMm, half), depth(-back-b.DeeperMm, half)}
	}
	return c
}

// depth is how deep a face lies as a share of what was forged; a face past the middle shows what
// lies on the other side of it.
func depth(faceMm, halfMm float64) float64 {
	if halfMm <= 0 {
		return 0
	}
	return math.Max(-1, math.Min(1, faceMm/halfMm))
}

// bright is how bright a point of a face etches.
func (b *Blade) bright(s *stack, c *column, y, side float64) float64 {
	k := y / c.high * heightSteps
	i := min(int(k), heightSteps-1)
	d := 0
	if side < 0 {
		d = 1
	}
	depthShare := c.halves[i][d] + (c.halves[i+1][d]-c.halves[i][d])*(k-float64(i))
	_, eaten := b.gone()
	onBar := ((c.up+y)/c.forgedHigh - .5) * b.wide() * (1 - eaten)
	if depthShare < 0 {
		depthShare, side = -depthShare, -side
	}
	return b.shade(s, c.barX, onBar, depthShare, side)
}

// along is where on the bar a station of the forged blade lies, by volume.
func (b *Blade) along() func(xf float64) float64 {
	const n = 240
	length := b.Forged.LengthMm()
	sums := make([]float64, n+1)
	for i := range n {
		x := length * (float64(i) + .5) / n
		s := b.Forged.SectionAt(x)
		a := 0.0
		if s.HeightMm > 0 {
			a = s.AreaMm2()
		}
		sums[i+1] = sums[i] + a
	}
	return func(xf float64) float64 {
		k := math.Max(0, math.Min(n, xf/length*n))
		i := min(int(k), n-1)
		return b.OnBarMm * (sums[i] + (sums[i+1]-sums[i])*(k-float64(i))) / sums[n]
	}
}
