package billet

import (
	"math"

	"coldember/core/fact"
)

// Fill is what a billet is made of that is not laid in layers: a cable, or a chain in a can with
// powder round it.
type Fill struct {
	// Of a cable: its diameter, that of a wire, and how much of each wire is the skin that etches
	// apart, where carbon went and scale was welded in.
	CableMm  float64 `json:"cableMm,omitempty"`
	WireMm   float64 `json:"wireMm,omitempty"`
	RimShare float64 `json:"rimShare,omitempty"`
	// Of a chain: the bar that it is made of, a link inside, and over both its sides; strands side by
	// side and on each other; the can it lies in is Recipe.WidthMm wide and so high as it comes out
	// of the weld, with powder of another steel between.
	LinkBarMm  float64 `json:"linkBarMm,omitempty"`
	LinkMm     float64 `json:"linkMm,omitempty"`
	LinkWideMm float64 `json:"linkWideMm,omitempty"`
	Across     int     `json:"across,omitempty"`
	Up         int     `json:"up,omitempty"`
	CanMm      float64 `json:"canMm,omitempty"`
}

// Figures of what is not laid in layers (judgement).
const (
	cableSolid   = .75 // of the circle round a cable is wire
	powderPoured = .6  // of poured powder is steel
	usualRim     = .12 // of a wire
	mostStrands  = 8
)

// Rim is what stands for the skin of a wire among steels: it is no grade of its own.
const Rim = "rim"

// Filled tells whether a pattern is not of layers.
func (p Pattern) Filled() bool { return p == Cable || p == Chain }

// UsualFill is one to begin with.
func UsualFill(p Pattern) *Fill {
	if p == Cable {
		return &Fill{CableMm: 32, WireMm: 2.2, RimShare: usualRim}
	}
	return &Fill{LinkBarMm: 8, LinkMm: 24, LinkWideMm: 28, Across: 1, Up: 1, CanMm: 30}
}

func (f *Fill) validate(c fact.Check, p Pattern) {
	if f == nil {
		if p.Filled() {
			c.Fail("pattern", "billet.fill", nil)
		}
		return
	}
	at := c.Within("fill")
	for name, v := range map[string]float64{
		"cableMm": f.CableMm, "wireMm": f.WireMm, "linkBarMm": f.LinkBarMm, "linkMm": f.LinkMm, "linkWideMm": f.LinkWideMm, "canMm": f.CanMm,
	} {
		at.Range(name, v, 0, 200)
	}
	at.Range("rimShare", f.RimShare, 0, .5)
	at.Range("across", float64(f.Across), 0, mostStrands)
	at.Range("up", float64(f.Up), 0, mostStrands)
	if p == Cable {
		at.Range("cableMm", f.CableMm, 6, 120)
		at.Range("wireMm", f.WireMm, .3, math.Max(.3, f.CableMm/3))
		at.Range("rimShare", f.RimShare, .02, .5)
	}
	if p == Chain {
		at.Range("linkBarMm", f.LinkBarMm, 2, 40)
		at.Range("linkMm", f.LinkMm, f.LinkBarMm, 200)
		at.Range("linkWideMm", f.LinkWideMm, 2.2*f.LinkBarMm, 200)
		at.Range("across", float64(f.Across), 1, mostStrands)
		at.Range("up", float64(f.Up), 1, mostStrands)
		at.Range("canMm", f.CanMm, 5, 200)
	}
}

// filled is the billet with what stands for its layers: each steel as thick as its share. Its shape
// inside is told by the pattern.
func (r *Recipe) filled(b *Billet) {
	if !r.Pattern.Filled() || r.Fill == nil || len(b.Stack) == 0 {
		return
	}
	first := b.Stack[0].SteelID
	second := first
	var high, share float64
	switch f := r.Fill; r.Pattern {
	case Cable:
		high = f.CableMm * math.Sqrt(math.Pi/4*cableSolid)
		b.WidthMm, second, share = high, Rim, 1-f.RimShare
	default:
		high, share = f.CanMm, r.chainShare()
		if len(b.Stack) > 1 {
			second = b.Stack[1].SteelID
		}
	}
	b.Repeats, b.Cap = 1, nil
	b.Stack = []Layer{{first, math.Max(.01, high*share)}, {second, math.Max(.01, high*(1-share))}}
}

// PouredMm is how high the can of a chain is filled, before the powder sets: it loses two fifths of its height.
func (r *Recipe) PouredMm() float64 {
	if r.Pattern != Chain || r.Fill == nil {
		return 0
	}
	s := r.chainShare()
	return r.Fill.CanMm * (s + (1-s)/powderPoured)
}

// chainShare is how much of a can is chain: by looking at points of one pair of links (its error is
// under half a per cent).
func (r *Recipe) chainShare() float64 {
	f := r.Fill
	bar := Bar{WidthMm: r.WidthMm, ThicknessMm: f.CanMm, Fill: f}
	const nx, ny = 48, 40
	in, all := 0, 0
	for i := range nx {
		x := 2 * f.LinkMm * (float64(i) + .5) / nx
		for j := range ny {
			y := r.WidthMm / float64(max(1, f.Across)) * ((float64(j)+.5)/ny - .5)
			for k := range ny {
				z := f.CanMm / float64(max(1, f.Up)) * ((float64(k)+.5)/ny - .5)
				if all++; bar.inLink(x, y, z) {
					in++
				}
			}
		}
	}
	return float64(in) / float64(all)
}

// filledAt is the layer of what is not laid in layers: the middle of its first steel, or of the second.
// The place is that of the laid billet, from its middle.
func (b *Bar) filledAt(x, y, z float64) float64 {
	f := b.Fill
	if b.Pattern == Cable {
		if b.TurnsPer100Mm != 0 {
			turn := 2 * math.Pi * b.TurnsPer100Mm / 100 * x
			if b.Hand == Left {
				turn = -turn
			}
			u, v := turned(y/(b.laidWide()/2), z/(b.laidHigh()/2), -turn)
			y, z = u*b.laidWide()/2, v*b.laidHigh()/2
		}
		if b.inWire(y, z) {
			return b.FirstShare / 2 * b.Layers
		}
		return (1 + b.FirstShare) / 2 * b.Layers
	}
	cw, ch := b.laidWide()/float64(max(1, f.Across)), b.laidHigh()/float64(max(1, f.Up))
	inCell := func(v, cell float64, n int) float64 {
		v += cell * float64(n) / 2
		return v - cell*(math.Min(float64(n-1), math.Max(0, math.Floor(v/cell)))+.5)
	}
	if b.inLink(x, inCell(y, cw, max(1, f.Across)), inCell(z, ch, max(1, f.Up))) {
		return b.FirstShare / 2 * b.Layers
	}
	return (1 + b.FirstShare) / 2 * b.Layers
}

func (b *Bar) laidWide() float64 {
	if b.LaidWidthMm > 0 {
		return b.LaidWidthMm
	}
	return b.WidthMm
}

func (b *Bar) laidHigh() float64 {
	if b.LaidThicknessMm > 0 {
		return b.LaidThicknessMm
	}
	return b.ThicknessMm
}

// inWire tells whether a place of the section of a set cable is of a wire or of the skin between two:
// wires lie in a hexagonal net and are squeezed to fill it.
func (b *Bar) inWire(y, z float64) bool {
	// a hexagon has as much as a wire: √3/2·p² = π/4·d²
	p := b.Fill.WireMm * math.Sqrt(math.Pi/(2*math.Sqrt(3)))
	row := p * math.Sqrt(3) / 2
	k := math.Floor(z / row)
	best, by, bz := math.Inf(1), 0.0, 0.0
	for n := k; n <= k+1; n++ {
		shift := 0.0
		if math.Mod(math.Abs(n), 2) == 1 {
			shift = p / 2
		}
		cy := shift + p*math.Round((y-shift)/p)
		if d := math.Hypot(y-cy, z-n*row); d < best {
			best, by, bz = d, y-cy, z-n*row
		}
	}
	// the net's neighbours lie at 0°, 60° and 120°: how far out toward the nearest side
	out := math.Max(math.Abs(by), math.Max(math.Abs(by/2+bz*math.Sqrt(3)/2), math.Abs(by/2-bz*math.Sqrt(3)/2)))
	return out/(p/2) <= math.Sqrt(1-b.Fill.RimShare)
}

// inLink tells whether a place of one strand, from its middle, is of a link: every second one lies
// flat, those between on edge.
func (b *Bar) inLink(x, y, z float64) bool {
	f := b.Fill
	pitch, r := f.LinkMm, f.LinkBarMm/2
	bend := f.LinkWideMm/2 - r // of the middle of the bar, round its ends
	straight := math.Max(0, (f.LinkMm+f.LinkBarMm)/2-bend)
	near := math.Round(x / pitch)
	for n := near - 1; n <= near+1; n++ {
		flat, over := y, z
		if math.Mod(math.Abs(n), 2) == 1 {
			flat, over = z, y
		}
		past := math.Max(0, math.Abs(x-n*pitch)-straight)
		if math.Hypot(math.Hypot(past, flat)-bend, over) <= r {
			return true
		}
	}
	return false
}

// judgeFill tells what of a cable or a chain a smith should know.
func (o *Outcome) judgeFill(r *Recipe, find func(string, fact.Severity, fact.Figures)) {
	if !r.Pattern.Filled() || r.Fill == nil {
		return
	}
	if r.Pattern == Cable {
		find("billet.cable", fact.Note, nil)
		if r.Flux == NoFlux {
			find("billet.cableFlux", fact.Warn, nil)
		}
		return
	}
	f := r.Fill
	if least := f.LinkWideMm * float64(max(1, f.Across)); r.WidthMm < least {
		find("billet.canNarrow", fact.Stop, fact.Figures{"limitMm": least})
	}
	if least := f.LinkWideMm * float64(max(1, f.Up)); f.CanMm < least {
		find("billet.canLow", fact.Stop, fact.Figures{"limitMm": least})
	}
	if r.Flux != Canister {
		find("billet.wantsCan", fact.Stop, nil)
	}
	find("billet.can", fact.Note, fact.Figures{"limitMm": r.PouredMm()})
}
