package whatif

import (
	"context"
	"math"
	"math/rand/v2"
	"sort"

	"coldember/core/fact"
	"coldember/core/plan"
	"coldember/core/planner"

	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distuv"
)

// Tolerances are those of the plan.
type Tolerances = plan.Tolerances

// Sure is the length to cut for so sure a blade.
type Sure struct {
	P50Mm  float64 `json:"p50Mm" doc:"enough in half of the cases"`
	P80Mm  float64 `json:"p80Mm"`
	P95Mm  float64 `json:"p95Mm"`
	LowMm  float64 `json:"lowMm" doc:"the middle four fifths of the cases lie from here, and none under what the forged volume alone needs"`
	HighMm float64 `json:"highMm"`
	Runs   int     `json:"runs"`
	// FitErrorMm is how far the loss that was fitted to a few whole plans is from
	// another whole plan, in length.
	FitErrorMm float64 `json:"fitErrorMm"`
	// Share of the spread that each source makes.
	Sources map[string]float64 `json:"sources"`
	lengths []float64
}

// ShareBelow is the share of the draws that need no more than this length.
func (s *Sure) ShareBelow(mm float64) float64 {
	return float64(sort.SearchFloat64s(s.lengths, math.Nextafter(mm, math.Inf(1)))) / float64(len(s.lengths))
}

// response is the length as the uncertain figures make it: loss fitted as a
// plane over width and thickness.
type response struct {
	forgedMm3, trimMm, w, t  float64
	loss, perWidth, perThick float64
}

// deviates are standard normal deviates of the five sources.
type deviates struct{ width, thick, loss, form, forged float64 }

// length needed for a draw, mm.
func (m *response) length(t Tolerances, d deviates) float64 {
	dw, dt := t.WidthMm*d.width, t.ThicknessMm*d.thick
	w, th := math.Max(m.w*.5, m.w+dw), math.Max(m.t*.5, m.t+dt)
	f := math.Min(.8, math.Max(0, m.loss+m.perWidth*dw+m.perThick*dt))
	v := m.forgedMm3 * math.Max(.2, 1+t.Forged*d.forged) * (1 + f/(1-f)*math.Exp(t.Loss*d.loss))
	return v/(w*th)/math.Max(.2, 1+t.Form*d.form) + m.trimMm
}

// BeSure draws the figures of a plan over and over within their tolerances and
// tells how much bar suffices how often. It is deterministic for a seed. The
// draws are stratified (Latin hypercube), so that 2,000 give steady ends.
// Errors are fact.FieldErrors or the context's.
func BeSure(ctx context.Context, req plan.Request, t Tolerances, runs int, seed uint64) (*Sure, error) {
	if err := t.Validate(); err != nil {
		return nil, err
	}
	if runs < 100 || runs > 200000 {
		return nil, fact.FieldErrors{{Field: "runs", Code: "field.range", Figures: fact.Figures{"lowest": 100, "highest": 200000}}}
	}
	if req.SawnOut() {
		return nil, fact.FieldErrors{{Field: "choices.start", Code: "start.notSure"}}
	}
	m, fitErr, err := fitLoss(ctx, req, t)
	if err != nil {
		return nil, err
	}
	return m.sure(ctx, t, runs, seed, fitErr)
}

func (m *response) sure(ctx context.Context, t Tolerances, runs int, seed uint64, fitErr float64) (*Sure, error) {
	rng := rand.New(rand.NewPCG(seed, 0x5eed))
	var columns [5][]float64
	for i := range columns {
		columns[i] = stratified(rng, runs)
	}
	lengths := make([]float64, runs)
	for i := range runs {
		if i&0xfff == 0 && ctx.Err() != nil {
			return nil, ctx.Err()
		}
		lengths[i] = m.length(t, deviates{columns[0][i], columns[1][i], columns[2][i], columns[3][i], columns[4][i]})
	}
	sort.Float64s(lengths)
	q := func(p float64) float64 { return quantile(lengths, p) }
	return &Sure{P50Mm: q(.5), P80Mm: q(.8), P95Mm: q(.95), LowMm: math.Max(q(.1), m.forgedMm3/(m.w*m.t)+m.trimMm), HighMm: q(.9), Runs: runs, FitErrorMm: fitErr, Sources: m.sources(t), lengths: lengths}, nil
}

// stratified are n standard normal deviates, one in each of n equal shares, in
// random order.
func stratified(rng *rand.Rand, n int) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = distuv.UnitNormal.Quantile((float64(i) + rng.Float64()) / float64(n))
	}
	rng.Shuffle(n, func(i, j int) { out[i], out[j] = out[j], out[i] })
	return out
}

// quantile of a sorted list: so large a share of it is no more, straight between its
// members.
func quantile(sorted []float64, p float64) float64 {
	return stat.Quantile(p, stat.LinInterp, sorted, nil)
}

// sources is the share of the variance that each source makes, to first order.
func (m *response) sources(t Tolerances) map[string]float64 {
	one := []struct {
		name string
		d    deviates
	}{{"width", deviates{width: 1}}, {"thickness", deviates{thick: 1}}, {"loss", deviates{loss: 1}}, {"form", deviates{form: 1}}, {"forged", deviates{forged: 1}}}
	mid, sum := m.length(t, deviates{}), 0.0
	out := map[string]float64{}
	for _, s := range one {
		d := m.length(t, s.d) - mid
		out[s.name] = d * d
		sum += d * d
	}
	for k := range out {
		if sum > 0 {
			out[k] /= sum
		}
	}
	return out
}

// fitLoss makes a few whole plans around the request and fits the loss as a
// plane over the start's width and thickness; the error is held against one
// plan more, off both.
func fitLoss(ctx context.Context, req plan.Request, t Tolerances) (*response, float64, error) {
	mid, err := planner.Make(ctx, req)
	if err != nil {
		return nil, 0, err
	}
	trim, kerf := req.EndsMm()
	m := &response{
		forgedMm3: mid.Forged.VolumeMm3 - mid.Bar.RodMm3, trimMm: trim + kerf, w: mid.Bar.WidthMm, t: mid.Bar.ThicknessMm, loss: mid.Bar.LossFraction,
	}
	dw, dt := math.Max(.2, 1.5*t.WidthMm), math.Max(.08, 1.5*t.ThicknessMm)
	at := func(w, th float64) (float64, error) {
		p, err := tryPlan(ctx, withStart(req, w, th))
		if p == nil || err != nil {
			return m.loss, err
		}
		return p.Bar.LossFraction, nil
	}
	var f [5]float64
	for i, d := range [5][2]float64{{dw, 0}, {-dw, 0}, {0, dt}, {0, -dt}, {dw, dt}} {
		if f[i], err = at(m.w+d[0], m.t+d[1]); err != nil {
			return nil, 0, err
		}
	}
	m.perWidth, m.perThick = (f[0]-f[1])/(2*dw), (f[2]-f[3])/(2*dt)
	off := math.Abs(m.loss + m.perWidth*dw + m.perThick*dt - f[4])
	for i, d := range []float64{m.perWidth * dw, -m.perWidth * dw, m.perThick * dt, -m.perThick * dt} {
		off = math.Max(off, math.Abs(m.loss+d-f[i]))
	}
	return m, off / (1 - m.loss) * mid.Bar.CutLengthMm, nil
}
