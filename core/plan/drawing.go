package plan

import (
	"math"

	"coldember/core/blade"
	"coldember/core/forge"
)

// Station is one station of a drawn piece. x from the point, y over the spine
// of the heel. Where the piece is bent, spine and edge have an x of their own.
type Station struct {
	XMm         float64 `json:"x"`
	SpineY      float64 `json:"s"`
	EdgeY       float64 `json:"e"`
	ThicknessMm float64 `json:"t"`
	EdgeMm      float64 `json:"k,omitempty" doc:"thickness at the edge where it is another"`
	Zone        string  `json:"z"`
	TempC       float64 `json:"c,omitempty"`

	SpineX   *float64 `json:"sx,omitempty"`
	EdgeX    *float64 `json:"ex,omitempty"`
	TwistDeg float64  `json:"w,omitempty" doc:"twisted by so much, counted from the ricasso"`
}

// Span is where a zone lies on a drawn piece.
type Span struct {
	Zone   string  `json:"zone"`
	FromMm float64 `json:"fromMm"`
	ToMm   float64 `json:"toMm"`
}

// Drawing is the finished blade and the forged shape, ready to be drawn.
type Drawing struct {
	Finished      []Station `json:"finished"`
	Forged        []Station `json:"forged"`
	FinishedZones []Span    `json:"finishedZones"`
	ForgedZones   []Span    `json:"forgedZones"`

	Handle []HandlePart `json:"handle,omitempty"`
	Holes  []DrawnHole  `json:"holes,omitempty"`
	Push   *Push        `json:"push,omitempty"`
}

// Sketch is the finished blade of a design ready to be drawn, without a plan.
// Errors are fact.FieldErrors.
func Sketch(d blade.Design) ([]Station, error) {
	body, err := blade.New(d.Blade())
	if err != nil {
		return nil, fieldError(err)
	}
	return stations(body, zonesOf(body)), nil
}

// Draw makes finished blade and forged shape of a design, with their drawing,
// for what needs no bar and no heats. Errors are fact.FieldErrors.
func Draw(d blade.Design, a blade.Allowances) (finished, forged *blade.Body, out Drawing, err error) {
	b := d.Blade()
	if finished, err = blade.New(b); err != nil {
		return nil, nil, out, fieldError(err)
	}
	if forged, err = blade.New(b.Forged(a, 0)); err != nil {
		return nil, nil, out, fieldError(err)
	}
	return finished, forged, drawing(finished, forged, zonesOf(forged)), nil
}

func drawing(fin, fog *blade.Body, forgedZones []zone) Drawing {
	fz := zonesOf(fin)
	return Drawing{Finished: stations(fin, fz), Forged: stations(fog, forgedZones), FinishedZones: spans(fz), ForgedZones: spans(forgedZones)}
}

func spans(zones []zone) []Span {
	out := make([]Span, len(zones))
	for i, z := range zones {
		out[i] = Span{z.Name, z.From, z.To}
	}
	return out
}

// drawnStations is how many stations a blade is drawn with; they crowd toward
// the point where the outline turns.
const drawnStations = 44

func stations(b *blade.Body, zones []zone) []Station {
	var out []Station
	l := b.LengthMm()
	meets := zones[0].To // drawn once for the point and once for the blade
	done := false
	for i := range drawnStations + 1 {
		u := float64(i) / drawnStations
		x := l * u * u
		if !done && x >= meets {
			done = true
			for _, z := range []zone{zones[0], zones[1]} {
				s := at(b, zones[:2], meets)
				s.Zone = z.Name
				out = append(out, s)
			}
		}
		if x != meets {
			out = append(out, at(b, zones[:2], x))
		}
	}
	for _, z := range zones[2:] {
		xs := []float64{z.From, z.To}
		if r := b.Blade.Ricasso; z.Name == ZoneRicasso && r != nil {
			xs = r.Stations()
			for i := range xs {
				xs[i] += z.From
			}
		}
		xs[0] += 1e-6
		for _, x := range xs {
			out = append(out, at(b, zones, x))
		}
	}
	return out
}

func at(b *blade.Body, zones []zone, x float64) Station {
	p, ok := sliceAt(b, zones, x)
	if !ok { // the very point
		y := b.SpineY(0)
		return Station{XMm: x, SpineY: y, EdgeY: b.EdgeY(0), ThicknessMm: b.SectionAt(0).SpineMm, Zone: ZonePoint}
	}
	return Station{XMm: x, SpineY: p.spineY, EdgeY: p.edgeY, ThicknessMm: p.spine, Zone: p.zone}
}

// perCell is how many stations a simulated cell is drawn with.
const perCell = 3

// curledPerCell is how many where a tang is turned into an eye or folded back.
const curledPerCell = 10

// shapeOf draws the piece in a state of its forging. Within a cell it follows the
// forged outline as far as the cell has come from a bar of this section toward it.
func shapeOf(cells []cell, barAreaMm2 float64, bar forge.Bar) []Station {
	out := make([]Station, 0, len(cells)*perCell)
	x := 0.0
	barCentre := (cells[0].centre + cells[len(cells)-1].centre) / 2
	for i := range bar.Cells {
		c, f := &bar.Cells[i], &cells[i]
		l := c.LengthMm()
		done := progress(c.WidthMm*c.ThicknessMm, barAreaMm2, f.final.WidthMm*f.final.ThicknessMm)
		if whole := f.bevelled.WidthMm; f.zone == ZoneRicasso && whole > f.final.WidthMm {
			done = progress(c.WidthMm, whole, f.final.WidthMm) // a notch is not seen before it is driven in
		}
		for _, d := range f.drawn {
			h := c.WidthMm * (1 + (d.height/f.final.WidthMm-1)*done)
			t := c.SpineMm * (1 + (d.spine/f.final.SpineMm-1)*done)
			y := barCentre + (d.centre-barCentre)*done
			st := Station{XMm: micron(x + d.u*l), SpineY: micron(y + h/2), EdgeY: micron(y - h/2), ThicknessMm: micron(t), Zone: c.Zone, TempC: math.Round(c.TempC)}
			if c.EdgeMm < c.SpineMm*.995 {
				st.EdgeMm = micron(t * c.EdgeMm / c.SpineMm)
			}
			out = append(out, st)
		}
		x += l
	}
	bendAsItIs(cells, out, bar)
	return out
}

// micron rounds a drawn figure: a plan carries thousands of them.
func micron(mm float64) float64 { return math.Round(mm*1000) / 1000 }

// progress is how far an area has come from the bar's to the final one, 0–1.
func progress(area, from, to float64) float64 {
	whole := math.Log(to / from)
	if math.Abs(whole) < 1e-3 {
		return 1
	}
	return math.Max(0, math.Min(1, math.Log(area/from)/whole))
}

// readings picks a few stations of the worked zones for the calipers.
func readings(shape []Station, zones []string) []Reading {
	var in []Station
	for _, s := range shape {
		for _, z := range zones {
			if s.Zone == z {
				in = append(in, s)
			}
		}
	}
	if len(in) == 0 {
		return nil
	}
	var out []Reading
	for _, f := range []float64{.12, .5, .95} {
		s := in[int(f*float64(len(in)-1))]
		out = append(out, Reading{Zone: s.Zone, AtMm: s.XMm, HeightMm: s.HeightMm(), ThicknessMm: s.ThicknessMm})
	}
	return out
}
