package work

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/quantity"
	"coldember/core/replan"
	"coldember/core/session"
	"coldember/core/steel"
	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/store"
)

// MeasureAt is where a session stands: the piece as it was planned to be by now, and the stations that decide.
type MeasureAt struct {
	Heat    int            `json:"heat" doc:"of the course, that was the last"`
	Shape   []plan.Station `json:"shape"`
	Offered []replan.Place `json:"offered" doc:"where it is measured best, as planned"`
	MassG   float64        `json:"massG" doc:"as planned"`
	LongMm  float64        `json:"longMm"`
}

// moment is where a session stands, for the core.
func (w *Work) moment(ctx context.Context, id string) (Fire, replan.Now, int, error) {
	f, err := w.Fire(ctx, id)
	if err != nil {
		return f, replan.Now{}, 0, err
	}
	events, err := w.Happened(ctx, id, 0)
	if err != nil {
		return f, replan.Now{}, 0, err
	}
	c := &f.Doc.Course
	s := session.Fold(c, events)
	heat := 0
	if s.Step > 0 {
		heat = c.HeatOf(min(s.Step, len(c.Steps)) - 1).Number
	}
	return f, replan.At(c, heat, s.Step), heat, nil
}

// offeredShares are how far along a zone it is measured (judgement): five places of the blade, one of ricasso and tang.
var offeredShares = map[string][]float64{plan.ZonePoint: {.5}, plan.ZoneBlade: {.1, .35, .65, .9}, plan.ZoneRicasso: {.5}, plan.ZoneTang: {.4, .85}}

// Moment is where a session stands, to be measured against.
func (w *Work) Moment(ctx context.Context, id string) (MeasureAt, error) {
	_, now, heat, err := w.moment(ctx, id)
	if err != nil {
		return MeasureAt{}, err
	}
	out := MeasureAt{Heat: heat, Shape: now.Shape, Offered: []replan.Place{}, MassG: now.VolumeMm3 * steel.DensityGPerCm3 / 1000, LongMm: now.Shape[len(now.Shape)-1].XMm}
	for _, zone := range []string{plan.ZonePoint, plan.ZoneBlade, plan.ZoneRicasso, plan.ZoneTang} {
		from, to := math.Inf(1), math.Inf(-1)
		for _, s := range now.Shape {
			if s.Zone == zone {
				from, to = math.Min(from, s.XMm), math.Max(to, s.XMm)
			}
		}
		for _, share := range offeredShares[zone] {
			if from > to {
				continue
			}
			at := from + share*(to-from)
			best := now.Shape[0]
			for _, s := range now.Shape {
				if s.Zone == zone && math.Abs(s.XMm-at) < math.Abs(best.XMm-at) {
					best = s
				}
			}
			if n := len(out.Offered); n == 0 || best.XMm > out.Offered[n-1].AtMm+1 {
				out.Offered = append(out.Offered, replan.Place{AtMm: math.Round(best.XMm*10) / 10, HeightMm: math.Round(best.HeightMm()*100) / 100, ThicknessMm: math.Round(best.ThicknessMm*100) / 100})
			}
		}
	}
	return out, nil
}

// others are patterns of the library that a piece may still become.
func (w *Work) others(ctx context.Context, req *plan.Request) ([]replan.Other, error) {
	all, _, err := w.Patterns(ctx, false)
	if err != nil {
		return nil, err
	}
	var out []replan.Other
	for _, o := range all {
		if len(out) < mostOthers && o.Doc.Design.TangKind == req.Design.TangKind {
			out = append(out, replan.Other{Name: o.Doc.Name, Design: o.Doc.Design, Allowances: o.Doc.Allowances})
		}
	}
	return out, nil
}

// Replan is what the piece of a session can still become, as it was measured. Errors are *edit.InvalidError.
func (w *Work) Replan(ctx context.Context, id string, m replan.Measured) (*replan.Remains, error) {
	f, now, _, err := w.moment(ctx, id)
	if err != nil {
		return nil, err
	}
	others, err := w.others(ctx, &f.Doc.Request)
	if err != nil {
		return nil, err
	}
	r, err := replan.Still(ctx, f.Doc.Request, m, now, others)
	return r, edit.Invalid(err)
}

// Taken is a way that is taken.
type Taken struct{ What, Name string }

// TakeWay goes on from a measured piece by one of the ways: the piece is planned so from now on, and a session begins with
// what is left to do; the one before stays as it was frozen. Errors are *edit.InvalidError, *StateError where that way is
// not open.
func (w *Work) TakeWay(ctx context.Context, id string, m replan.Measured, t Taken) (Fire, error) {
	f, now, _, err := w.moment(ctx, id)
	if err != nil {
		return f, err
	}
	others, err := w.others(ctx, &f.Doc.Request)
	if err != nil {
		return f, err
	}
	req, p, ok, err := replan.Take(ctx, f.Doc.Request, m, now, others, t.What, t.Name)
	if err != nil {
		return f, edit.Invalid(err)
	}
	if !ok {
		return f, &StateError{Code: "problem.wayGone"}
	}
	piece, err := w.Piece(ctx, f.PieceID)
	if err != nil {
		return f, err
	}
	course := session.Freeze(&req, p, planner.TreatmentSteps(&req, p))
	if res, err := replan.Still(ctx, f.Doc.Request, m, now, nil); err == nil {
		course.StartG = res.MassG
		course.Before = &session.Before{Shape: res.AsIs, Done: []string{}}
		for op, done := range now.Done {
			if done && !slices.ContainsFunc(course.Steps, func(s session.Step) bool { return s.Operation == op }) {
				course.Before.Done = append(course.Before.Done, op)
			}
		}
		slices.Sort(course.Before.Done)
	}
	d := doc.Session{Name: f.Doc.Name, Hand: f.Doc.Hand, Request: req, Course: course, FromID: id, Measured: &m}
	next := doc.Copy(piece.Doc)
	next.Request.Design, next.Request.Allowances = req.Design, req.Allowances
	row := store.Session{ID: w.newID(), PieceID: f.PieceID, Laws: p.Laws, Doc: doc.Encode(d), CreatedAt: w.now(), UpdatedAt: w.now()}
	saved, err := w.planToSave(ctx, next)
	if err != nil {
		return f, err
	}
	err = w.store.Write(ctx, func(tx store.Tx) error {
		if err := w.step(tx, f.PieceID, piece.Version, next, saved, ""); err != nil {
			return err
		}
		row, err = tx.AddSession(row) // of the plan that was just taken
		return err
	})
	if _, _, err := w.kept(ctx, f.PieceID, piece.Version+1, saved, err); err != nil {
		return f, err
	}
	w.tell(Event{"session", row.ID, 0})
	return w.Fire(ctx, row.ID)
}

// MeasuredTyped is a piece as it was measured, as it is typed. A line without height and thickness is not read; of one that has only one of them the other is as planned.
type MeasuredTyped struct {
	Stations []StationTyped  `json:"stations"`
	Length   string          `json:"length,omitempty"`
	Weight   string          `json:"weight,omitempty"`
	Trust    replan.Trust    `json:"trust,omitempty" enum:"calipers,weight"`
	Lost     replan.End      `json:"lost,omitempty" enum:"point,tang" doc:"at which end what is missing is gone"`
	GoodTo   string          `json:"goodTo,omitempty" doc:"how far from its point the blade may be taken from it"`
	Units    quantity.System `json:"units,omitempty"`
}

// StationTyped is a line of it.
type StationTyped struct {
	At     string `json:"at"`
	Height string `json:"height"`
	Thick  string `json:"thickness"`
}

// Read reads it; what cannot be read is told at its field. Errors are *edit.InvalidError.
func (t MeasuredTyped) Read() (replan.Measured, error) {
	m := replan.Measured{Trust: t.Trust, Lost: t.Lost}
	var bad []edit.Problem
	read := func(field, text string, k quantity.Kind) float64 {
		if strings.TrimSpace(text) == "" {
			return 0
		}
		v, err := quantity.Parse(text, k, t.Units)
		var pe *quantity.ParseError
		if errors.As(err, &pe) {
			bad = append(bad, edit.Problem{FieldError: fact.FieldError{Field: field, Code: string(pe.Code)}, Offset: pe.Offset, Found: pe.Found})
		}
		return v
	}
	for i, s := range t.Stations {
		if strings.TrimSpace(s.Height) == "" && strings.TrimSpace(s.Thick) == "" {
			continue
		}
		at := fmt.Sprintf("stations.%d.", i)
		if strings.TrimSpace(s.At) == "" {
			bad = append(bad, edit.Problem{FieldError: fact.FieldError{Field: at + "atMm", Code: "replan.missing"}, Offset: -1})
		}
		m.Stations = append(m.Stations, replan.Place{AtMm: read(at+"atMm", s.At, quantity.Length), HeightMm: read(at+"heightMm", s.Height, quantity.Length), ThicknessMm: read(at+"thicknessMm", s.Thick, quantity.Length)})
	}
	m.LengthMm, m.WeightG = read("lengthMm", t.Length, quantity.Length), read("weightG", t.Weight, quantity.Mass)
	m.GoodToMm = read("goodToMm", t.GoodTo, quantity.Length)
	if len(bad) > 0 {
		return m, &edit.InvalidError{Fields: bad}
	}
	return m, nil
}

// Relabel names the lines of what was typed in an error that names the stations that were read of it.
func (t MeasuredTyped) Relabel(err error) error {
	var invalid *edit.InvalidError
	if !errors.As(err, &invalid) {
		return err
	}
	var lines []int
	for i, s := range t.Stations {
		if strings.TrimSpace(s.Height) != "" || strings.TrimSpace(s.Thick) != "" {
			lines = append(lines, i)
		}
	}
	out := &edit.InvalidError{Fields: slices.Clone(invalid.Fields)}
	for i := range out.Fields {
		f := &out.Fields[i]
		rest, ok := strings.CutPrefix(f.Field, "stations.")
		n, field, _ := strings.Cut(rest, ".")
		if k, err := strconv.Atoi(n); ok && err == nil && k < len(lines) {
			f.Field = fmt.Sprintf("stations.%d.%s", lines[k], field)
		}
	}
	return out
}
