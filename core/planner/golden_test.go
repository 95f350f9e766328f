package planner_test

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"math"
	"os"
	"reflect"
	"runtime"
	"slices"
	"sort"
	"strings"
	"testing"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/plan"
	"coldember/core/planner"
	"coldember/core/planner/plantest"
	"coldember/core/stock"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var update = flag.Bool("update", false, "write the golden digests anew; figures only move together with LawsVersion")

const goldenFile = "testdata/golden.json"

// goldens is what whole plans come to under one version of the laws: for every
// path of the plan a digest of the figures and codes at it, one for each request.
type goldens struct {
	Laws     int                 `json:"laws"`
	Requests []string            `json:"requests"`
	Paths    map[string][]string `json:"paths"`
}

// goldenRequests are three dozen pieces of work: every form of stock, school, machine
// and special wish at least once, short and long, thin and thick.
func goldenRequests() (names []string, all []plan.Request) {
	add := func(name string, r plan.Request, change func(*plan.Request)) {
		if change != nil {
			change(&r)
		}
		names, all = append(names, name), append(all, r)
	}
	of := func(id, steelID string, bar stock.Item, k forge.Skill) plan.Request {
		return plan.NewRequest(plantest.Starter(id), steelID, bar, k)
	}
	add("reference", plantest.Sanity(25, 5), nil)
	add("reference from a heavy bar", plantest.Sanity(38, 9.5), nil)
	add("utility", plantest.Request(), nil)
	add("slicer", plantest.Slicer(plantest.Flat(40, 6, 610)), nil)
	add("slicer, too narrow", plantest.Slicer(plantest.Flat(32, 4, 500)), nil)
	add("camp, pushed in, full tang", of("camp", "5160", plantest.Flat(38, 6, 600), forge.Sure), func(r *plan.Request) { r.Choices.Method = forge.PushIn })
	add("rigging, tang first", of("rigging", "80CrV2", plantest.Flat(25, 5, 1000), forge.Sure), func(r *plan.Request) {
		r.Choices.First, r.Choices.Holding, r.Choices.Corners = plan.TangFirst, plan.Tongs, plan.CornersLeft
	})
	add("boat, two edges", of("boat", "9260", plantest.Flat(30, 6, 400), forge.Learning), func(r *plan.Request) { r.Choices.Curve = plan.CorrectAsYou })
	add("hook, swept", of("hook", "1095", plantest.Flat(20, 5, 300), forge.Steady), func(r *plan.Request) {
		r.Choices.Curve, r.Choices.Cycles = plan.LetSweep, plan.SlowAnneal
	})
	add("chisel", of("chisel", "O1", plantest.Flat(32, 5, 500), forge.Steady), func(r *plan.Request) { r.Choices.Cycles = plan.Equal })
	add("cleaver under a press", of("cleaver", "1075", plantest.Flat(60, 10, 400), forge.Steady), func(r *plan.Request) { r.Smith.Machine = forge.NewMachine(forge.Press) })
	add("scribe, very short", of("scribe", "W2", plantest.Flat(16, 4, 200), forge.Sure), func(r *plan.Request) { r.Choices.Cycles = plan.Once })
	add("fillet, hollow", of("fillet", "15N20", plantest.Flat(28, 4, 500), forge.Sure), func(r *plan.Request) {
		r.Allowances, r.Choices.Taper = blade.ForgeClose.Allowances(), plan.GroundTaper
	})
	add("slasher, very long", of("camp", "unknown-spring", plantest.Flat(32, 10, 420), forge.Sure), func(r *plan.Request) {
		r.Design = r.Design.Scaled(1.8, 1, .8)
		r.Fire = r.Fire.WithHearth(forge.UsualHearths()["largeGas"])
	})
	for _, f := range []stock.Form{stock.Roller, stock.Ball, stock.Coil, stock.Leaf, stock.Race, stock.Cable, stock.Layers, stock.Disc, stock.TaperedFlat, stock.Chain} {
		add(string(f), plantest.OnSalvage(stock.Usual(f)), nil)
	}
	add("octagon under a power hammer", of("utility", "W1", stock.Usual(stock.Octagon), forge.Steady), func(r *plan.Request) { r.Smith.Machine = forge.NewMachine(forge.PowerHammer) })
	add("square through the rolls", of("utility", "6150", stock.Usual(stock.Square), forge.Steady), func(r *plan.Request) { r.Smith.Machine = forge.NewMachine(forge.RollingMill) })
	add("rod welded on in the fire, striker", plantest.Request(), func(r *plan.Request) {
		r.Choices.Holding, r.Choices.RodWeld, r.Design.Tang.WeldAtMm = plan.WeldedRod, plan.InTheFire, 40
		r.Smith.Machine = forge.NewMachine(forge.Striker)
	})
	add("rod tang: stamp, twist, bend, eye", plantest.Request(), func(r *plan.Request) {
		r.Design.SetTang(blade.RodTang)
		r.Choices.Stamp, r.Design.Tang.TwistTurns, r.Design.Tang.CurveMm, r.Design.Tang.LoopMm = true, 3, 4, 8
	})
	add("wrapped, notch, false edge, hardened in an order of its own", plantest.Request(), func(r *plan.Request) {
		r.Design.SetTang(blade.WrappedTang)
		r.Design.Ricasso.LengthMm, r.Design.Ricasso.NotchMm, r.Choices.Notch = 24, 5, plan.NotchForged
		r.Design.Grind.SwedgeFraction, r.Design.Grind.SwedgeEdgeMm = .2, 1
		r.Choices.Harden, r.Choices.Order, r.Choices.Forced = plan.HardenForged, []string{"harden", "profile", "bevel"}, true
	})
	add("beaked, hooked tang, notch and hole driven in", of("billhook", "5160", plantest.Flat(50, 8, 600), forge.Sure), func(r *plan.Request) {
		r.Design.TangForm(blade.NotchedTang)
		r.Design.Tang.Holes = []blade.Hole{{AtMm: 70, DiameterMm: 8, Made: blade.Punched}}
		r.Choices.Notch = plan.NotchForged
	})
	add("sickle of mild bar with a bit", of("sickle", "1018", plantest.Flat(30, 8, 600), forge.Steady), func(r *plan.Request) {
		r.Bit = &plan.Bit{Kind: plan.EdgeBit, SteelID: "1084", LengthMm: 90, WidthMm: 14, ThicknessMm: 3}
	})
	add("spoon, bent flatwise, hardened", of("spoon", "1084", plantest.Flat(20, 4, 600), forge.Sure), func(r *plan.Request) { r.Choices.Harden = plan.HardenForged })
	add("skinner sawn out of a plate", of("skinner", "80CrV2", plantest.Flat(160, 5, 400), forge.Steady), func(r *plan.Request) { r.Choices.Start = plan.FromSheet })
	add("integral bolster", of("integral", "52100", plantest.Flat(32, 16, 300), forge.Steady), nil)
	add("thumb loss, zones, own tools, handle, own heats", plantest.Request(), func(r *plan.Request) {
		r.Sizing.LossMode, r.Design.Handle = plan.ThumbLoss, plantest.Handle(r)
		z := r.Allowances.ByZone()
		z.RicassoFaceMm, z.PointMm = .6, 3
		r.Allowances.Zones = &z
		r.Choices.Tools = []plan.ToolUse{{Operation: "profile", Face: forge.RoundFace, Support: forge.Supports()[1]}}
		r.Fire.SoakC, r.Fire.StopC, r.Prices = 1060, 870, plan.Prices{SteelPrice: 9, FuelPrice: 3, HourPrice: 40}
		r.Choices.SteelPattern = plan.LoopsQuarterDeep
	})
	return names, all
}

// TestWholePlansStayAsTheyAre: the figures of these plans change only together
// with LawsVersion. Run with -update to note new ones; figures that are noted
// already are then only replaced under a higher LawsVersion.
func TestWholePlansStayAsTheyAre(t *testing.T) {
	if runtime.GOARCH != "amd64" {
		t.Skip("other processors fuse multiply and add: the last bits differ")
	}
	names, requests := goldenRequests()
	require.GreaterOrEqual(t, len(requests), 30)
	got := goldens{Laws: plan.LawsVersion, Requests: names, Paths: map[string][]string{}}
	for i, r := range requests {
		p, err := planner.Make(context.Background(), r)
		seen := map[string][]string{}
		var fe fact.FieldErrors
		switch {
		case errors.As(err, &fe): // a refusal is an answer too
			walk("refused", reflect.ValueOf(fe), seen)
		default:
			require.NoError(t, err, names[i])
			walk("", reflect.ValueOf(*p), seen)
		}
		for path, values := range seen {
			if got.Paths[path] == nil {
				got.Paths[path] = make([]string, len(requests))
			}
			sum := sha256.Sum256([]byte(strings.Join(values, "\n")))
			got.Paths[path][i] = hex.EncodeToString(sum[:4])
		}
	}
	var want goldens
	if b, err := os.ReadFile(goldenFile); err == nil {
		require.NoError(t, json.Unmarshal(b, &want))
	}
	sameLaws := want.Laws == got.Laws
	var moved, news []string
	for path, sums := range got.Paths {
		switch old := want.Paths[path]; {
		case old == nil:
			news = append(news, path)
		case !slices.Equal(old, sums):
			for i := range sums {
				if i < len(old) && old[i] != sums[i] && i < len(want.Requests) && want.Requests[i] == names[i] {
					moved = append(moved, path+" of "+names[i])
				}
			}
		}
	}
	for path := range want.Paths {
		if got.Paths[path] == nil {
			news = append(news, path+" (gone)")
		}
	}
	sort.Strings(moved)
	sort.Strings(news)
	if *update && (!sameLaws || len(moved) == 0) {
		b, err := json.MarshalIndent(compact(got), "", " ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(goldenFile, append(b, '\n'), 0o644))
		return
	}
	if sameLaws {
		assert.Empty(t, moved[:min(len(moved), 30)], "figures moved (%d): raise LawsVersion where that is meant", len(moved))
	} else {
		assert.Equal(t, want.Laws, got.Laws, "LawsVersion was raised: note the new figures with -update")
	}
	assert.Empty(t, news, "paths of the plan that are new or gone: note them with -update")
}

// compact is only for a file that reads line by line.
func compact(g goldens) any {
	lines := map[string]string{}
	for path, sums := range g.Paths {
		for i := range sums {
			if sums[i] == "" {
				sums[i] = "-"
			}
		}
		lines[path] = strings.Join(sums, " ")
	}
	return map[string]any{"laws": g.Laws, "requests": g.Requests, "paths": lines}
}

// UnmarshalJSON reads what compact wrote.
func (g *goldens) UnmarshalJSON(b []byte) error {
	var in struct {
		Laws     int
		Requests []string
		Paths    map[string]string
	}
	if err := json.Unmarshal(b, &in); err != nil {
		return err
	}
	g.Laws, g.Requests, g.Paths = in.Laws, in.Requests, map[string][]string{}
	for path, line := range in.Paths {
		g.Paths[path] = strings.Split(strings.ReplaceAll(line, "-", ""), " ")
	}
	return nil
}

// walk notes every figure, choice and code of a value under its path, where the
// members of a list share one. Figures are noted to the last bit; what is empty
// is not noted, so that a new field that a plan does not use changes nothing.
func walk(path string, v reflect.Value, into map[string][]string) {
	switch v.Kind() {
	case reflect.Pointer, reflect.Interface:
		if !v.IsNil() {
			walk(path, v.Elem(), into)
		}
	case reflect.Struct:
		for i := range v.NumField() {
			f := v.Type().Field(i)
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			switch {
			case !f.IsExported() || name == "-":
			case f.Anonymous && name == "":
				walk(path, v.Field(i), into)
			default:
				walk(strings.TrimPrefix(path+"."+name, "."), v.Field(i), into)
			}
		}
	case reflect.Slice, reflect.Array:
		for i := range v.Len() {
			walk(path, v.Index(i), into)
		}
	case reflect.Map:
		keys := v.MapKeys()
		sort.Slice(keys, func(i, j int) bool { return keys[i].String() < keys[j].String() })
		for _, k := range keys {
			walk(path+"."+k.String(), v.MapIndex(k), into)
		}
	case reflect.Float64:
		if x := v.Float(); x != 0 {
			into[path] = append(into[path], fmt.Sprintf("%x", math.Float64bits(x)))
		}
	case reflect.String, reflect.Bool, reflect.Int:
		if !v.IsZero() {
			into[path] = append(into[path], fmt.Sprint(v.Interface()))
		}
	default:
		panic("golden: no digest of " + v.Type().String() + " at " + path)
	}
}
