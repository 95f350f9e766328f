package billet

import "math"

// A bar is shown so far along, ground down by so much of its thickness, with so many points a millimetre.
const (
	shownMm    = 160.0
	shownShare = .75
	shownPerMm = 3.0
)

// BarFace is the upper face of the bar that a billet comes to, a quarter of its thickness ground off each face: what its pattern
// looks like before any blade is cut from it. Its box is from 0 to the bar's width. ok is false where there is no bar.
func (o *Outcome) BarFace() (e Etched, ok bool) {
	if o.Bar == nil || o.LengthMm <= 0 {
		return e, false
	}
	b := Blade{Bar: *o.Bar, Laid: o.Laid, Tones: map[string]Tone{}, Join: o.Join}
	for _, s := range o.Shares {
		b.Tones[s.SteelID] = s.Tone
	}
	s, wide := b.stack(), b.wide()
	long := math.Min(shownMm, o.LengthMm)
	nx, ny := int(long*shownPerMm), int(math.Ceil(wide*shownPerMm))
	e = Etched{nx, ny, 0, wide, make([]byte, nx*ny)}
	const sub = 2
	for j := range ny {
		for i := range nx {
			sum := 0.0
			for k := range sub * sub {
				x := (float64(i) + (float64(k%sub)+.5)/sub) / float64(nx) * long
				y := wide * (.5 - (float64(j)+(float64(k/sub)+.5)/sub)/float64(ny))
				sum += b.shade(&s, x, y, shownShare, 1)
			}
			e.Pixel[j*nx+i] = byte(math.Max(1, math.Round(sum/sub/sub)))
		}
	}
	return e, true
}

// shade is how bright a place of the bar etches: along, up from its middle, how deep (1: on the skin) and on which side.
func (b *Blade) shade(s *stack, x, y, depthShare, side float64) float64 {
	edge, depthShare := b.Join.Beside(y+b.wide()/2, depthShare, b.Bar.ForgedThicknessMm)
	if edge {
		return brightness[b.Tones[b.Join.EdgeSteelID]]
	}
	across, other := b.across(y)
	bar := &b.Bar
	if other {
		bar = &s.other
	}
	return s.at(bar.LayerAt(Point{x, across, depthShare, side}) / bar.Layers)
}
