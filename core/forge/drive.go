package forge

import "math"

// drive is what works an operation: the hand hammer or a machine. Exactly one of
// energyMJ, forceKN and strokes moves the steel.
type drive struct {
	energyMJ   float64 // of a stroke that lands, mJ
	forceKN    float64 // of a press
	strokes    float64 // that what is left takes, where energy does not tell
	lands      float64 // share of the strokes that land well; the others move the piece
	ratePerS   float64
	speedMPerS float64
	contact    float64 // W/m²K on one wide face, mean over the stretch
	face       Tool    // on the faces of the piece
	onEdge     Tool    // and on edge
	turns      bool    // every round of it goes both ways
	moves      bool    // the piece is moved along and turned between strokes
}

// strokeS is how long a stroke takes, with what is done between strokes.
func (d *drive) strokeS() float64 {
	if !d.moves {
		return 1 / d.ratePerS
	}
	// it is moved along while the hammer goes up, and turned too while a press goes back
	if d.forceKN > 0 {
		return math.Max(1/d.ratePerS, turnS)
	}
	return math.Max(1/d.ratePerS, moveS) + turnS/strokesASide
}

// Light taps (judgement): softer and quicker, with the whole flat face.
const (
	tapSpeed = 0.6 // of a blow's
	tapRate  = 1.5
)

// driveOf picks what works what remains of an operation on a stretch.
func (r *Run) driveOf(op *Operation, rec *Heat, remaining float64) drive {
	s := r.Setup.Smith
	if op.Machine != nil {
		d := r.machine(op, rec, op.Machine)
		d.turns = op.Kind == BreakDown && d.strokes == 0
		return d
	}
	d := drive{
		energyMJ: s.BlowJ() * 1000, lands: s.LandShare,
		ratePerS: s.RatePerS, speedMPerS: s.SpeedMPerS, contact: anvilContact, moves: true,
		face: s.toolOf(op).over(op.Support), onEdge: s.Tool(OnEdge),
	}
	if op.Kind.Light() {
		d.face = s.Tool(FlatFace)
		d.energyMJ *= tapSpeed * tapSpeed
		d.ratePerS *= tapRate
	}
	if op.Strokes > 0 {
		d.strokes, d.lands = op.Strokes/float64(max(1, len(op.Stretches)))*remaining, 1
		if op.Kind != Weld && op.Kind != WeldOn && op.Kind != WeldBit && op.Kind != WeldLoop {
			d.ratePerS, d.moves = strokesPerS, false
		}
	}
	return d
}

// toolOf is the face of an operation, or the mean of the two that the hand changes between.
func (h Smith) toolOf(op *Operation) Tool {
	t := h.Tool(op.Face)
	if k := op.FlatShare; op.Mixes && op.Face == FlatFace {
		peen, flat := h.Tool(PeenAcross), h.Tool(FlatFace)
		t.BiteMm, t.BreadthMm = peen.BiteMm+k*(flat.BiteMm-peen.BiteMm), peen.BreadthMm+k*(flat.BreadthMm-peen.BreadthMm)
	}
	return t
}

// extent of a stretch as it is: its length, and its width and thickness on the mean.
func (r *Run) extent(first, last int) (lengthMm, widthMm, thicknessMm float64) {
	for i := first; i <= last; i++ {
		c := &r.Bar.Cells[i]
		l := c.LengthMm()
		lengthMm, widthMm, thicknessMm = lengthMm+l, widthMm+c.WidthMm*l, thicknessMm+c.ThicknessMm*l
	}
	return lengthMm, widthMm / lengthMm, thicknessMm / lengthMm
}

// machine is how a machine works a stretch.
func (r *Run) machine(op *Operation, rec *Heat, m *Machine) drive {
	d := drive{ratePerS: m.RatePerS, speedMPerS: m.SpeedMPerS, lands: 1, contact: anvilContact, face: m.Tool(), onEdge: m.Tool(), moves: true}
	switch m.Kind {
	case PowerHammer:
		d.energyMJ = UsefulJ(m.TupKg, m.SpeedMPerS, m.TupKg*machineAnvil, machineRebound) * 1000
		d.contact = anvilContact * strikeAnvilShare
	case Striker:
		// the smith shows the place with a blow, the striker follows: two blows to a beat
		s := r.Setup.Smith
		d.energyMJ = (UsefulJ(m.TupKg, m.SpeedMPerS, s.AnvilKg, s.Restitution)*strikerLands + s.UsefulJ()) / 2 * 1000
		d.ratePerS = 2 * m.RatePerS
	case RollingMill: // so many passes as the thickest of what is left takes
		d.moves = false
		for i := rec.First; i <= rec.Last; i++ {
			d.strokes = math.Max(d.strokes, (r.Bar.Cells[i].ThicknessMm-op.Targets[i-op.First].ThicknessMm)/m.DraftMm)
		}
		d.strokes = math.Max(1, d.strokes)
		d.contact = 2 * dieWPerM2K * d.face.BiteMm / (m.SpeedMPerS * 1000) * m.RatePerS
	case Press: // both dies chill what they hold
		d.forceKN = m.ForceKN
		length, _, height := r.extent(rec.First, rec.Last)
		held := math.Min(1, m.RatePerS*(reverseS+mostReduction*height/1000/m.SpeedMPerS))
		d.contact = 2 * dieWPerM2K * held * math.Min(1, m.BiteMm/length)
	}
	return d
}

// floorOf is the fewest strokes of a stretch of an operation, as it is when the operation
// begins there: corners go along four edges, planishing and straightening over both faces
// (straightening over a quarter of them), bevels over both sides, drawing both ways, and a
// shoulder or a cut takes four blows.
func (r *Run) floorOf(op *Operation, rec *Heat) float64 {
	d := r.driveOf(op, rec, 1)
	if d.strokes > 0 {
		return 0
	}
	length, width, thickness := r.extent(rec.First, rec.Last)
	faces := Coverage(length, width, d.face.BiteMm, d.face.BreadthMm, 2)
	switch op.Kind {
	case Corners:
		return Coverage(length, math.Min(width, thickness), d.face.BiteMm, d.face.BreadthMm, 4)
	case Straighten, PreCurve, Correct, TangCurve, LineCurve, FormFlat:
		return straightenShare * faces
	case SetDown, CutOff, Upset:
		return fewestBlows
	case BreakDown, Point, DrawTang, WidenTang, Profile, SetUp:
		edge := 0.0
		for i := rec.First; i <= rec.Last; i++ {
			c := &r.Bar.Cells[i]
			e := op.effort(&d, c, &op.Targets[i-op.First], 1)
			edge += e.edge * c.LengthMm() / length
		}
		return faces + math.Min(1, edge/wholeTurn)*Coverage(length, thickness, d.onEdge.BiteMm, d.onEdge.BreadthMm, 2)
	}
	return faces
}

// Floors of the count of strokes (judgement).
const (
	straightenShare = 0.25 // of the faces
	fewestBlows     = 4.0
	wholeTurn       = 0.08 // strain on edge from which both edges are gone over; less is some taps
)
