package planner_test

import (
	"context"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"os"
	"reflect"
	"strings"
	"sync"
	"testing"
	"time"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/steel"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// draws is how many requests are drawn: some with every run, all with LONG=1.
func draws(all int) int {
	if os.Getenv("LONG") != "" {
		return all
	}
	return all / 10
}

// plausible is a request that a smith might make: any starter near its size, on any stock.
func plausible(rng *rand.Rand) plan.Request {
	in := func(low, high float64) float64 { return low + (high-low)*rng.Float64() }
	starters, grades := blade.Starters(), steel.Grades()
	d := starters[rng.IntN(len(starters))].Design.Scaled(in(.7, 1.3), in(.8, 1.2), in(.8, 1.2))
	if forms := blade.TangForms(); d.TangKind == blade.FullTang && rng.IntN(2) == 0 {
		d.TangForm(forms[rng.IntN(len(forms))])
	}
	bar := plantest.Flat(math.Round(in(18, 50)), math.Round(in(4, 12)*2)/2, 2000)
	if rng.IntN(3) == 0 {
		bar = stock.Usual(stock.Forms()[rng.IntN(len(stock.Forms()))])
	}
	r := plan.NewRequest(d, grades[rng.IntN(len(grades))].ID, bar, forge.Skills()[rng.IntN(3)])
	if os.Getenv("LONG") == "" {
		r.CellCount = 20
	}
	r.Smith = r.Smith.WithHammerKg(in(.7, 2.2))
	if k := rng.IntN(8); k < 4 {
		r.Smith.Machine = forge.NewMachine(forge.MachineKinds()[k])
	}
	hearths := []string{"gas", "largeGas", "charcoal", "coke"}
	r.Fire = r.Fire.WithHearth(forge.UsualHearths()[hearths[rng.IntN(4)]])
	schools := blade.Schools()
	r.Allowances = schools[rng.IntN(len(schools))].Allowances()
	r.Choices.Method = []forge.Method{forge.PinchOut, forge.PushIn}[rng.IntN(2)]
	r.Choices.Cycles = []plan.Cycles{plan.Descending, plan.Equal, plan.Once, plan.SlowAnneal}[rng.IntN(4)]
	r.Choices.Harden = []plan.Harden{plan.HardenLater, plan.HardenForged}[rng.IntN(2)]
	r.Choices.Curve = []plan.Curve{plan.PreCurveFirst, plan.CorrectAsYou, plan.LetSweep}[rng.IntN(3)]
	return r
}

// sound is what must be true of any plan; it says what is not.
func sound(p *plan.Plan, r plan.Request) error {
	if path := notANumber("", reflect.ValueOf(*p)); path != "" {
		return fmt.Errorf("%s is no number", path)
	}
	sum, start := 0.0, 0.0
	for _, l := range p.Ledger {
		switch l.Code {
		case "ledger.finished", "ledger.grind", "ledger.rod", "ledger.spare", "ledger.scale", "ledger.thumb", "ledger.trim", "ledger.kerf":
			sum += l.VolumeMm3
		case "ledger.start":
			start = l.VolumeMm3
		}
	}
	if math.Abs(sum-start) > 1e-6*start {
		return fmt.Errorf("the ledger sums up to %v, not %v", sum, start)
	}
	trim, kerf := r.EndsMm()
	burnt, bar := 0.0, p.Bar.StartMm3-(trim+kerf)*p.Bar.AreaMm2
	for _, h := range p.Heats[:p.Totals.Heats] {
		burnt += h.ScaleMm3
		if h.WorkS < 0 || h.FireS <= 0 || h.Blows < 0 || len(h.Parts) == 0 {
			return fmt.Errorf("heat %+v", h)
		}
	}
	if off := math.Abs(burnt/bar - p.Bar.ScaleShare); off > .006 && plantest.Warning(p, "warn.unsettled").Code == "" {
		return fmt.Errorf("%.4f of the bar burns off in the heats, %.4f is said", burnt/bar, p.Bar.ScaleShare)
	}
	shares := map[string]float64{}
	for _, h := range p.Heats {
		for _, part := range h.Parts {
			shares[part.Operation] += part.Blows
		}
	}
	for _, o := range p.Operations {
		if f := o.Forging; f != nil && math.Abs(shares[o.ID]-f.Blows) > 1e-6*math.Max(1, f.Blows) {
			return fmt.Errorf("%s takes %v blows, its heats %v", o.ID, f.Blows, shares[o.ID])
		}
		if f := o.Forging; f != nil && (f.EdgeBlows < 0 || f.EdgeBlows > f.Blows*(1+1e-9)) {
			return fmt.Errorf("%s: %v of %v blows on edge", o.ID, f.EdgeBlows, f.Blows)
		}
	}
	return nil
}

// notANumber is the path to a figure that is none.
func notANumber(path string, v reflect.Value) string {
	switch v.Kind() { //nolint:exhaustive // the rest holds no figures
	case reflect.Float64:
		if f := v.Float(); math.IsNaN(f) || math.IsInf(f, 0) {
			return path
		}
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			return notANumber(path, v.Elem())
		}
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			if p := notANumber(path, v.Index(i)); p != "" {
				return p
			}
		}
	case reflect.Struct:
		for i := range v.NumField() {
			if p := notANumber(path+"."+v.Type().Field(i).Name, v.Field(i)); p != "" {
				return p
			}
		}
	case reflect.Map:
		for _, k := range v.MapKeys() {
			if p := notANumber(path+"."+k.String(), v.MapIndex(k)); p != "" {
				return p
			}
		}
	}
	return ""
}

// tried makes drawn requests and holds what comes of them; it returns the longest that one took.
func tried(t testing.TB, n int, seed uint64, request func(*rand.Rand) plan.Request) (made int, longest time.Duration) {
	t.Helper()
	var mu sync.Mutex
	var wait sync.WaitGroup
	for w := range 2 {
		wait.Go(func() {
			for i := w; i < n; i += 2 {
				r := request(rand.New(rand.NewPCG(seed, uint64(i))))
				began := time.Now()
				p, err := planner.Make(context.Background(), r)
				took := time.Since(began)
				var fe fact.FieldErrors
				if err == nil {
					err = sound(p, r)
				} else if errors.As(err, &fe) && len(fe) > 0 && fe[0].Field != "" && fe[0].Code != "" && !strings.Contains(err.Error(), "NaN") {
					err, p = nil, nil
				}
				mu.Lock()
				assert.NoError(t, err, "draw %d of seed %d", i, seed)
				if longest = max(longest, took); p != nil {
					made++
				}
				mu.Unlock()
			}
		})
	}
	wait.Wait()
	return made, longest
}

// TestPlausibleRequestsAreAnswered with a plan that is sound, or with a field and a reason.
func TestPlausibleRequestsAreAnswered(t *testing.T) {
	n := draws(2000)
	made, longest := tried(t, n, 12, plausible)
	assert.Greater(t, made, n/2)
	t.Logf("%d of %d are plans; the longest took %v", made, n, longest)
}

// hostile is a plausible request with some of its figures spoiled.
func hostile(rng *rand.Rand) plan.Request {
	r := plausible(rng)
	var figures []reflect.Value
	var walk func(v reflect.Value)
	walk = func(v reflect.Value) {
		switch v.Kind() { //nolint:exhaustive // the rest holds no figures
		case reflect.Float64:
			figures = append(figures, v)
		case reflect.Pointer:
			if !v.IsNil() {
				walk(v.Elem())
			}
		case reflect.Struct:
			for i := range v.NumField() {
				if v.Type().Field(i).Tag.Get("json") != "-" { // what nobody can send
					walk(v.Field(i))
				}
			}
		case reflect.Slice:
			for i := range v.Len() {
				walk(v.Index(i))
			}
		}
	}
	walk(reflect.ValueOf(&r).Elem())
	spoils := []func(float64) float64{
		func(float64) float64 { return math.NaN() }, func(float64) float64 { return math.Inf(1) }, func(float64) float64 { return math.Inf(-1) },
		func(float64) float64 { return 0 }, func(v float64) float64 { return -v }, func(float64) float64 { return 1e-9 }, func(float64) float64 { return 1e12 },
		func(v float64) float64 { return v * 10 }, func(v float64) float64 { return v / 10 }, func(v float64) float64 { return v * (.3 + 3*rng.Float64()) },
	}
	for range 1 + rng.IntN(3) {
		f := figures[rng.IntN(len(figures))]
		f.SetFloat(spoils[rng.IntN(len(spoils))](f.Float()))
	}
	return r
}

// TestHostileRequestsAreAnswered too.
func TestHostileRequestsAreAnswered(t *testing.T) {
	n := draws(1000)
	made, longest := tried(t, n, 13, hostile)
	require.Less(t, made, n)
	t.Logf("%d of %d are plans all the same; the longest answer took %v", made, n, longest)
}
