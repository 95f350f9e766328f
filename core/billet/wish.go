package billet

import "math"

// Want is what is to be seen on the face of a twisted bar.
type Want string

// What a twist shows by how deep it is ground.
const (
	Stripes Want = "stripes" // on the skin
	Loops   Want = "loops"   // a quarter deep
	Stars   Want = "stars"   // near the middle
)

// How wide a twist shows along the blade: from turn to turn.
const (
	WideTurns Want = "wide"
	FineTurns Want = "fine"
)

// Wants lists them, from the skin inward.
func Wants() []Want { return []Want{Stripes, Loops, Stars} }

// shows is from which share of the forged thickness to which a want is seen (judgement: stripes
// keep while the skin does, loops close about a quarter of the bar below it, stars stand in the
// middle).
var shows = map[Want][2]float64{Stripes: {.8, 1}, Loops: {.35, .65}, Stars: {0, .25}}

// Wish is whether a face shows what is wanted, and what would.
type Wish struct {
	Want  Want    `json:"want" enum:"stripes,loops,stars,wide,fine"`
	Shows bool    `json:"shows"`
	Now   float64 `json:"nowShare" doc:"of the forged thickness that is left, on the mean over the faces"`
	Share float64 `json:"share" doc:"that would show it"`
	// FaceMm is what is then left on each face for grinding; 0: it shows already.
	FaceMm float64 `json:"faceMm,omitempty"`
	// BarMm is the least thickness of the bar for it.
	BarMm float64 `json:"barMm,omitempty"`
	// Can: this bar is thick enough, or bears the turns.
	Can bool `json:"can"`
	// Turns are those that would show it, where it is one of how wide; and from turn to turn it is then
	// so far along the blade.
	Turns   float64 `json:"turnsPer100Mm,omitempty"`
	PitchMm float64 `json:"pitchMm,omitempty"`
	// Hollow is ground into the faces where the pattern lies deeper than they do.
	Hollow *Hollow `json:"hollow,omitempty"`
}

// Hollow is a strip hollowed in both faces that reaches a pattern.
type Hollow struct {
	DepthMm float64 `json:"depthMm" doc:"in each face"`
	WallMm  float64 `json:"wallMm" doc:"that remains between its two middles, where it is thinnest"`
}

// A twist is wide from so far from turn to turn along the finished blade, and fine up to so far
// (judgement); and in more heats nobody takes it.
const (
	widePitchMm    = 24.0
	finePitchMm    = 11.0
	mostTwistHeats = 6
)

// pitched tells how far it is from turn to turn on the finished blade, and what turns would make it wide or fine.
func (b *Blade) pitched() []Wish {
	stretch := b.Bar.WidthMm * b.Bar.ThicknessMm / (b.Bar.ForgedWidthMm * b.Bar.ForgedThicknessMm) * b.Finished.LengthMm() / math.Max(1, b.OnBarMm)
	pitch := 100 / math.Max(1e-6, math.Abs(b.Bar.TurnsPer100Mm)) * stretch
	ask := func(want Want, shows bool, atMm float64) Wish {
		w := Wish{Want: want, Shows: shows, Can: true}
		if !shows {
			bar := b.Bar
			bar.TurnsPer100Mm = 100 / atMm * stretch
			w.Turns, w.PitchMm, w.Can = bar.TurnsPer100Mm, atMm, bar.ShearHeats(1) <= mostTwistHeats
		}
		return w
	}
	return []Wish{ask(WideTurns, pitch >= widePitchMm-1e-6, widePitchMm), ask(FineTurns, pitch <= finePitchMm+1e-6, finePitchMm)}
}

// leastFaceMm is the least that is left on a face: less and the hammer shows (judgement).
const leastFaceMm = .1

// Wishes tell of everything that a twist can show; of other patterns nothing.
func (b *Blade) Wishes(barThicknessMm float64) []Wish {
	out := []Wish{}
	if b.Bar.Pattern != Twist {
		return out
	}
	now, thick := b.meanShare()
	for _, w := range Wants() {
		lo, hi := shows[w][0], shows[w][1]
		x := Wish{Want: w, Now: now, Shows: now >= lo && now <= hi, Can: true}
		x.Share = math.Max(lo, math.Min(hi, now))
		if w == Stars && !x.Shows {
			x.Share = hi
		}
		if !x.Shows && x.Share > 0 {
			forged := thick / x.Share // where it is thick enough for it
			x.FaceMm = math.Max(leastFaceMm, math.Round((forged-thick)/2*20)/20)
			x.BarMm = math.Ceil((b.thickest()+2*x.FaceMm)*2) / 2
			x.Can = x.BarMm <= barThicknessMm+1e-9 && thick/(thick+2*x.FaceMm) >= lo-.02
		}
		out = append(out, x)
	}
	return append(out, b.pitched()...)
}

// meanShare is the share of the forged thickness that is left, and the finished thickness, on the
// mean over the upper half of the blade, where a pattern is looked at, or along the middle of a hollow.
func (b *Blade) meanShare() (share, thickMm float64) {
	n := 0.0
	g := b.Finished.Blade.Grind.Groove
	hollowed := g != nil && g.DepthMm > 0 && g.Faces > 1
	for i := range 24 {
		x := b.Finished.LengthMm() * (.1 + .85*float64(i)/23)
		xf := b.forgedX(x)
		if xf < 0 || xf > b.Forged.LengthMm() {
			continue
		}
		fin, forged := b.Finished.SectionAt(x), b.Forged.SectionAt(xf)
		heights := []float64{.5 * fin.HeightMm, .7 * fin.HeightMm, .9 * fin.HeightMm}
		if hollowed {
			if len(fin.Grooves) == 0 {
				continue
			}
			heights = []float64{(fin.Grooves[0].LowMm + fin.Grooves[0].HighMm) / 2}
		}
		for _, y := range heights {
			at := b.inForged(x, xf, y)
			if at < 0 || at > forged.HeightMm || forged.ThicknessAt(at) <= 0 {
				continue
			}
			share += (fin.ThicknessAt(y) - 2*b.DeeperMm) / b.whole(&forged, at)
			thickMm += fin.ThicknessAt(y)
			n++
		}
	}
	if n == 0 {
		return 0, 0
	}
	return math.Max(0, share/n), thickMm / n
}

// Depth is how deep the faces lie, as Wish.Now, and what of a twist they show there; "" between two,
// and of other patterns.
func (b *Blade) Depth() (share float64, shown Want) {
	share, _ = b.meanShare()
	if b.Bar.Pattern == Twist {
		for _, w := range Wants() {
			if share >= shows[w][0] && share <= shows[w][1] {
				shown = w
			}
		}
	}
	return share, shown
}

func (b *Blade) thickest() (mm float64) {
	for _, n := range b.Finished.Blade.Thickness {
		mm = math.Max(mm, n[1])
	}
	return mm
}

// Shown tells from which share of the forged thickness to which a want is seen; ok is false for what
// is no depth.
func Shown(w Want) (lo, hi float64, ok bool) {
	v, ok := shows[w]
	return v[0], v[1], ok
}
