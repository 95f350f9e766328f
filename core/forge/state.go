package forge

import (
	"encoding/json"
	"fmt"
	"math"

	"coldember/core/steel"
	"coldember/core/thermal"
)

// StateVersion is the version of the stored form of a State.
const StateVersion = 1

// State is a piece between two heats, with all that the work needs to go on from
// there: the bar, hot or cold, and how far the operation in hand has come.
type State struct {
	Bar       Bar
	Operation string  // in hand; "" before the first
	Pass      int     // the stretch of it that is being worked; a number counted from the point
	Share     float64 // of that stretch that is done, 0–1
	First     int     // of the stretch that was worked last
	Last      int
	DoneMm    []float64 // scale that each cell had when the operation was finished with it
}

// StateAfter is the piece after heat i of a run that keeps its states; before the
// first (i −1) it is the bar that the run began with, which the caller has.
func (r *Run) StateAfter(i int) State {
	h := &r.Heats[i]
	st := State{First: h.First, Last: h.Last, Bar: h.Next.Clone(), Operation: h.Operation, Pass: h.Pass, Share: h.ShareTo}
	st.DoneMm = make([]float64, len(st.Bar.Cells))
	for _, k := range r.Heats[:i+1] {
		if k.Operation == h.Operation && k.DoneMm != nil {
			copy(st.DoneMm[k.First:], k.DoneMm)
		}
	}
	return st
}

// Resume goes on from a state: the next operation that is done should be the one in
// hand, which is taken up where it was left. Errors are those of NewRun.
func Resume(s Setup, st State) (*Run, error) {
	r, err := NewRun(s, st.Bar.Clone())
	if err != nil {
		return nil, err
	}
	if st.Operation != "" {
		r.from, r.workedFirst, r.workedLast = &st, st.First, st.Last
	}
	return r, nil
}

// storedState is the stored form, version 1: figures in mm, mm³, °C; decarbMm2 is
// ∫D dt of the cell; steels are whole grades, and a cell's steel counts from 1
// among them, 0 being the one that the work is planned with.
type storedState struct {
	Version   int           `json:"version"`
	Cells     []storedCell  `json:"cells"`
	Steels    []steel.Grade `json:"steels,omitempty"`
	Operation string        `json:"operation,omitempty"`
	Pass      int           `json:"pass,omitempty"`
	Share     float64       `json:"share,omitempty"`
	First     int           `json:"first,omitempty"`
	Last      int           `json:"last,omitempty"`
	DoneMm    []float64     `json:"doneMm,omitempty"`
}

type storedCell struct {
	Zone        string  `json:"zone"`
	VolumeMm3   float64 `json:"volumeMm3"`
	WidthMm     float64 `json:"widthMm"`
	ThicknessMm float64 `json:"thicknessMm"`
	EdgeMm      float64 `json:"edgeMm"`
	SpineMm     float64 `json:"spineMm"`
	TempC       float64 `json:"tempC"`
	ScaleMm     float64 `json:"scaleMm,omitempty"`
	CurvePerMm  float64 `json:"curvePerMm,omitempty"`
	TwistTurns  float64 `json:"twistTurns,omitempty"`
	Steel       int     `json:"steel,omitempty"`
	DecarbMm2   float64 `json:"decarbMm2,omitempty"`
}

// StateError says what of a stored state cannot be.
type StateError struct{ What string }

func (e *StateError) Error() string { return "forge: stored state: " + e.What }

// MarshalJSON writes the stored form; figures come back to the last bit.
func (s State) MarshalJSON() ([]byte, error) {
	out := storedState{Version: StateVersion, Steels: s.Bar.Steels, First: s.First, Last: s.Last, Operation: s.Operation, Pass: s.Pass, Share: s.Share, DoneMm: s.DoneMm}
	for i := range s.Bar.Cells {
		c := &s.Bar.Cells[i]
		out.Cells = append(out.Cells, storedCell{
			Zone: c.Zone, VolumeMm3: c.VolumeMm3, WidthMm: c.WidthMm, ThicknessMm: c.ThicknessMm, EdgeMm: c.EdgeMm, SpineMm: c.SpineMm,
			TempC: c.TempC, ScaleMm: c.ScaleMm, CurvePerMm: c.CurvePerMm, TwistTurns: c.TwistTurns, Steel: c.Steel, DecarbMm2: c.decarb.Dt(),
		})
	}
	return json.Marshal(out)
}

// mostCells of a stored state.
const mostCells = 5000

// UnmarshalJSON reads the stored form. Errors are *StateError: another version, or
// figures that no piece has.
func (s *State) UnmarshalJSON(b []byte) error {
	var in storedState
	if err := json.Unmarshal(b, &in); err != nil {
		return &StateError{What: err.Error()}
	}
	if in.Version != StateVersion {
		return &StateError{What: fmt.Sprintf("version %d, this program reads %d", in.Version, StateVersion)}
	}
	if len(in.Cells) == 0 || len(in.Cells) > mostCells || len(in.DoneMm) > len(in.Cells) {
		return &StateError{What: "number of cells"}
	}
	if in.First < 0 || in.Last < in.First || in.Last >= len(in.Cells) {
		return &StateError{What: "stretch"}
	}
	if !(in.Share >= 0 && in.Share <= 1) || in.Pass < 0 {
		return &StateError{What: "share or pass"}
	}
	out := State{Bar: Bar{Steels: in.Steels}, First: in.First, Last: in.Last, Operation: in.Operation, Pass: in.Pass, Share: in.Share, DoneMm: in.DoneMm}
	for i, c := range in.Cells {
		if !c.canBe() || c.Steel > len(in.Steels) {
			return &StateError{What: fmt.Sprintf("cell %d", i)}
		}
		out.Bar.Cells = append(out.Bar.Cells, Cell{
			Zone: c.Zone, VolumeMm3: c.VolumeMm3, WidthMm: c.WidthMm, ThicknessMm: c.ThicknessMm, EdgeMm: c.EdgeMm, SpineMm: c.SpineMm,
			TempC: c.TempC, ScaleMm: c.ScaleMm, CurvePerMm: c.CurvePerMm, TwistTurns: c.TwistTurns, Steel: c.Steel, decarb: thermal.DecarbOf(c.DecarbMm2),
		})
	}
	*s = out
	return nil
}

// canBe tells whether a cell is a piece of steel.
func (c *storedCell) canBe() bool {
	for _, v := range []float64{c.VolumeMm3, c.WidthMm, c.ThicknessMm, c.EdgeMm, c.SpineMm} {
		if !(v > 0 && v < 1e9) {
			return false
		}
	}
	return c.TempC > -100 && c.TempC < 2000 && c.ScaleMm >= 0 && c.DecarbMm2 >= 0 &&
		math.Abs(c.CurvePerMm) < 10 && math.Abs(c.TwistTurns) < 1000 && c.Steel >= 0
}
