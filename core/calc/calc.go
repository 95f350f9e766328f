package calc

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"sort"

	"coldember/core/blade"
	"coldember/core/cutting"
	"coldember/core/forge"
	"coldember/core/nest"
	"coldember/core/planner"
	"coldember/core/route"
	"coldember/core/section"
	"coldember/core/steel"
	"coldember/core/stock"
	"coldember/core/thermal"
	"coldember/core/whatif"
)

// UnknownKindError is returned for a kind that Kinds does not list.
type UnknownKindError struct{ Kind string }

func (e *UnknownKindError) Error() string {
	return fmt.Sprintf("calc: no kind %q; there are %v", e.Kind, Kinds())
}

// InputError says that the input is not what the kind takes.
type InputError struct {
	Kind string
	Err  error
}

func (e *InputError) Error() string { return fmt.Sprintf("calc %s: %v", e.Kind, e.Err) }

func (e *InputError) Unwrap() error { return e.Err }

// kind is one question: what it takes, and how it is answered.
type kind struct {
	in  reflect.Type
	ask func(context.Context, json.RawMessage) (any, error)
}

var kinds = map[string]kind{
	"section": run(func(s section.Section) (any, error) { return s.Properties(), s.Validate() }),
	"stock":   run(func(p stock.Item) (any, error) { return p.Solid() }),
	"blade": run(func(b blade.Blade) (any, error) {
		body, err := blade.New(b)
		if err != nil {
			return nil, err
		}
		return body.Measure(), nil
	}),
	"bend": run(calcBend), "blow": run(calcBlow), "cool": run(calcCool), "expand": run(calcExpand), "heat": run(calcHeat), "flow": run(calcFlow),
	"scale": run(calcScale), "decarb": run(calcDecarb), "spread": run(calcSpread), "reach": run(calcReach),
	"arm": run(calcArm), "coverage": run(calcCoverage), "stroke": run(calcStroke),
	"size": run(calcSize), "temper": run(calcTemper),
	"harden": run(calcHarden), "window": run(calcWindow), "draw": run(calcDraw), "grain": run(calcGrain), "dip": run(calcDip), "learn": run(calcLearn), "billet": run(calcBillet), "pattern": run(calcPattern), "largest": run(calcLargest),
	"nest":    runLong(func(ctx context.Context, j nest.Job) (any, error) { return nest.Lay(ctx, j) }),
	"cutplan": runLong(func(ctx context.Context, j cutting.Job) (any, error) { return cutting.Lay(ctx, j) }),
}

// Kinds lists what can be asked.
func Kinds() []string {
	var out []string
	for k := range kinds {
		out = append(out, k)
	}
	sort.Strings(out)
	return out
}

// Run answers one question. Errors are *UnknownKindError, *InputError or the
// law's own.
func Run(ctx context.Context, kind string, in json.RawMessage) (any, error) {
	k, ok := kinds[kind]
	if !ok {
		return nil, &UnknownKindError{Kind: kind}
	}
	out, err := k.ask(ctx, in)
	if err == nil {
		_, err = json.Marshal(out) // a figure that runs over cannot be told
	}
	if err != nil {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		return nil, &InputError{Kind: kind, Err: err}
	}
	return out, nil
}

func run[In any](f func(In) (any, error)) kind {
	return runLong(func(_ context.Context, in In) (any, error) { return f(in) })
}

func runLong[In any](f func(context.Context, In) (any, error)) kind {
	return kind{reflect.TypeFor[In](), func(ctx context.Context, raw json.RawMessage) (any, error) {
		var in In
		d := json.NewDecoder(bytes.NewReader(raw))
		d.DisallowUnknownFields()
		if err := d.Decode(&in); err != nil {
			return nil, err
		}
		if err := bounded(reflect.ValueOf(in), ""); err != nil {
			return nil, err
		}
		return f(ctx, in)
	}}
}

// positive reports the first figure that is not a positive number.
func positive(pairs ...any) error {
	for i := 0; i < len(pairs); i += 2 {
		if v := pairs[i+1].(float64); !(v > 0) || math.IsInf(v, 0) {
			return refuse(pairs[i].(string), "calc.positive", nil)
		}
	}
	return nil
}

func calcBend(in struct {
	Section          section.Section `json:"section"`
	StartThicknessMm float64         `json:"startThicknessMm"`
	Spread           float64         `json:"spread"`
	BendFactor       float64         `json:"bendFactor"`
	LengthMm         float64         `json:"lengthMm"`
},
) (any, error) {
	if err := positive("startThicknessMm", in.StartThicknessMm, "lengthMm", in.LengthMm); err != nil {
		return nil, err
	}
	if err := in.Section.Validate(); err != nil {
		return nil, err
	}
	return forge.BevelBend(in.Section, in.StartThicknessMm, in.Spread, in.BendFactor, in.LengthMm), nil
}

func calcBlow(in struct {
	VolumeMm3   float64 `json:"volumeMm3"`
	Strain      float64 `json:"strain"`
	StressMPa   float64 `json:"stressMPa"`
	HeightMm    float64 `json:"heightMm"`
	BiteMm      float64 `json:"biteMm"`
	HammerKg    float64 `json:"hammerKg"`
	SpeedMPerS  float64 `json:"speedMPerS"`
	AnvilKg     float64 `json:"anvilKg"`
	Restitution float64 `json:"restitution"`
},
) (any, error) {
	if err := positive("heightMm", in.HeightMm, "biteMm", in.BiteMm, "hammerKg", in.HammerKg, "speedMPerS", in.SpeedMPerS, "anvilKg", in.AnvilKg); err != nil {
		return nil, err
	}
	useful := forge.UsefulJ(in.HammerKg, in.SpeedMPerS, in.AnvilKg, in.Restitution)
	if err := positive("useful energy", useful); err != nil {
		return nil, err
	}
	work := forge.WorkJ(in.VolumeMm3, in.Strain, in.StressMPa, forge.Redundancy(in.HeightMm, in.BiteMm))
	return map[string]float64{"usefulJ": useful, "workJ": work, "blows": math.Ceil(work / useful)}, nil
}

type lumped struct {
	WidthMm      float64  `json:"widthMm"`
	ThicknessMm  float64  `json:"thicknessMm"`
	FromC        float64  `json:"fromC"`
	ToC          float64  `json:"toC"`
	AmbientC     *float64 `json:"ambientC"`
	ForgeC       *float64 `json:"forgeC"`
	Emissivity   *float64 `json:"emissivity"`
	AirWPerM2K   *float64 `json:"airWPerM2K"`
	GasWPerM2K   *float64 `json:"gasWPerM2K"`
	AnvilWPerM2K float64  `json:"anvilWPerM2K"`
}

func (in lumped) time(s thermal.Surface) (any, error) {
	if err := positive("widthMm", in.WidthMm, "thicknessMm", in.ThicknessMm); err != nil {
		return nil, err
	}
	set(&s.Emissivity, in.Emissivity)
	t, err := s.TimeTo(in.WidthMm, in.ThicknessMm, in.FromC, in.ToC)
	return map[string]float64{"timeS": t}, err
}

func set(dst, v *float64) {
	if v != nil {
		*dst = *v
	}
}

func calcCool(in lumped) (any, error) {
	s := thermal.Air()
	set(&s.SurroundC, in.AmbientC)
	set(&s.FilmWPerM2K, in.AirWPerM2K)
	s.AnvilWPerM2K = in.AnvilWPerM2K
	return in.time(s)
}

func calcHeat(in lumped) (any, error) {
	if in.ForgeC == nil {
		return nil, refuse("forgeC", "calc.missing", nil)
	}
	s := thermal.Forge(*in.ForgeC)
	set(&s.FilmWPerM2K, in.GasWPerM2K)
	return in.time(s)
}

func calcFlow(in struct {
	CarbonPct float64 `json:"carbonPct"`
	TempC     float64 `json:"tempC"`
	Strain    float64 `json:"strain"`
	RatePerS  float64 `json:"ratePerS"`
},
) (any, error) {
	if err := positive("ratePerS", in.RatePerS); err != nil {
		return nil, err
	}
	f := steel.NewFlow(in.CarbonPct, in.TempC, in.RatePerS)
	return map[string]any{
		"stressMPa": f.StressMPa(in.Strain), "meanStressMPa": f.MeanStressMPa(in.Strain),
		"inRange": f.InRange && in.Strain <= steel.MaxStrain,
	}, nil
}

func calcScale(in struct {
	TempC      float64 `json:"tempC"`
	TimeS      float64 `json:"timeS"`
	Atmosphere float64 `json:"atmosphere"`
},
) (any, error) {
	if err := positive("timeS", in.TimeS, "atmosphere", in.Atmosphere); err != nil {
		return nil, err
	}
	var c thermal.ScaleClock
	c.Add(in.TempC, in.TimeS, in.Atmosphere)
	return map[string]float64{"lossMm": c.LossMm()}, nil
}

func calcDecarb(in struct {
	TempC          float64 `json:"tempC"`
	TimeS          float64 `json:"timeS"`
	CarbonFraction float64 `json:"carbonFraction"`
	ScaleLossMm    float64 `json:"scaleLossMm"`
},
) (any, error) {
	if err := positive("timeS", in.TimeS, "carbonFraction", in.CarbonFraction, "1 - carbonFraction", 1-in.CarbonFraction); err != nil {
		return nil, err
	}
	var c thermal.DecarbClock
	c.Add(in.TempC, in.TimeS)
	d, left := c.Depth(in.CarbonFraction, in.ScaleLossMm)
	return map[string]float64{"depthMm": d, "remainingMm": left}, nil
}

func calcSpread(in struct {
	BiteMm  float64 `json:"biteMm"`
	WidthMm float64 `json:"widthMm"`
},
) (any, error) {
	if err := positive("biteMm", in.BiteMm, "widthMm", in.WidthMm); err != nil {
		return nil, err
	}
	s, ok := forge.Spread(in.BiteMm, in.WidthMm)
	return map[string]any{"spread": s, "inRange": ok}, nil
}

func calcReach(in struct {
	Bar struct {
		WidthMm     float64 `json:"widthMm"`
		ThicknessMm float64 `json:"thicknessMm"`
	} `json:"bar"`
	Target struct {
		HeightMm        float64 `json:"heightMm"`
		MeanThicknessMm float64 `json:"meanThicknessMm"`
	} `json:"target"`
	BiteMm float64      `json:"biteMm"`
	Method forge.Method `json:"method"`
},
) (any, error) {
	if err := positive("widthMm", in.Bar.WidthMm, "thicknessMm", in.Bar.ThicknessMm, "heightMm", in.Target.HeightMm,
		"meanThicknessMm", in.Target.MeanThicknessMm, "biteMm", in.BiteMm); err != nil {
		return nil, err
	}
	r := route.ReachOf(in.Bar.WidthMm, in.Bar.ThicknessMm, in.Target.HeightMm, in.Target.MeanThicknessMm,
		forge.BevelSpread(in.Method, in.BiteMm, in.Bar.WidthMm))
	return map[string]any{
		"spreadNeeded": r.SpreadNeeded, "spreadReachable": r.SpreadReachable, "reachableHeightMm": r.ReachableHeightMm,
		"areaRatio": r.AreaRatio, "feasible": r.Feasible, "way": r.Way,
	}, nil
}

func calcSize(in struct {
	ForgedZones []struct {
		Name      string  `json:"name"`
		VolumeMm3 float64 `json:"volumeMm3"`
	} `json:"forgedZones"`
	LossFraction float64 `json:"lossFraction"`
	Bar          struct {
		AreaMm2 float64 `json:"areaMm2"`
	} `json:"bar"`
	TrimMm float64 `json:"trimMm"`
	KerfMm float64 `json:"kerfMm"`
},
) (any, error) {
	if err := positive("bar.areaMm2", in.Bar.AreaMm2, "1 - lossFraction", 1-in.LossFraction); err != nil {
		return nil, err
	}
	names, volumes := make([]string, len(in.ForgedZones)), make([]float64, len(in.ForgedZones))
	for i, z := range in.ForgedZones {
		names[i], volumes[i] = z.Name, z.VolumeMm3
	}
	marks, cut, start := planner.SizeMarks(names, volumes, in.LossFraction, in.Bar.AreaMm2, in.TrimMm, in.KerfMm)
	type named struct {
		Name   string  `json:"name"`
		FromMm float64 `json:"fromMm"`
		ToMm   float64 `json:"toMm"`
	}
	zones := make([]named, len(marks))
	for i, m := range marks {
		zones[i] = named{m.Zone, m.FromMm, m.ToMm}
	}
	return map[string]any{"zones": zones, "cutLengthMm": cut, "startVolumeMm3": start}, nil
}

func calcTemper(in struct {
	TempC float64 `json:"tempC"`
	Hours float64 `json:"hours"`
},
) (any, error) {
	if err := positive("hours", in.Hours); err != nil {
		return nil, err
	}
	p := steel.HollomonJaffe(in.TempC, in.Hours)
	return map[string]float64{"hollomonJaffe": p, "oneHourEquivalentC": steel.OneHourEquivalentC(p)}, nil
}

func calcLargest(in struct {
	Stock        stock.Item  `json:"stock"`
	Blade        blade.Blade `json:"blade"`
	LossFraction float64     `json:"lossFraction"`
},
) (any, error) {
	if !(in.LossFraction >= 0 && in.LossFraction < 1) {
		return nil, refuse("lossFraction", "calc.share", nil)
	}
	solid, err := in.Stock.Solid()
	if err != nil {
		return nil, err
	}
	body, err := blade.New(in.Blade)
	if err != nil {
		return nil, err
	}
	k, used := whatif.UniformFactor(body.Measure().VolumeMm3, solid.VolumeMm3, in.LossFraction)
	return map[string]float64{"factor": k, "volumeMm3": used}, nil
}
