package calc

import (
	"coldember/core/forge"
	"coldember/core/thermal"
)

func calcArm(in struct {
	HammerKg float64 `json:"hammerKg"`
},
) (any, error) {
	if err := positive("hammerKg", in.HammerKg); err != nil {
		return nil, err
	}
	v, n := forge.Arm(in.HammerKg)
	return map[string]float64{"speedMPerS": v, "ratePerS": n}, nil
}

func calcCoverage(in struct {
	LengthMm  float64 `json:"lengthMm"`
	WidthMm   float64 `json:"widthMm"`
	BiteMm    float64 `json:"biteMm"`
	BreadthMm float64 `json:"breadthMm"`
	Faces     int     `json:"faces"`
},
) (any, error) {
	if err := positive("lengthMm", in.LengthMm, "widthMm", in.WidthMm, "biteMm", in.BiteMm, "breadthMm", in.BreadthMm, "faces", float64(in.Faces)); err != nil {
		return nil, err
	}
	return map[string]float64{"strokes": forge.Coverage(in.LengthMm, in.WidthMm, in.BiteMm, in.BreadthMm, in.Faces)}, nil
}

func calcStroke(in struct {
	HeightMm  float64 `json:"heightMm"`
	BiteMm    float64 `json:"biteMm"`
	BreadthMm float64 `json:"breadthMm"`
	StressMPa float64 `json:"stressMPa"`
	UsefulJ   float64 `json:"usefulJ"`
	ForceKN   float64 `json:"forceKN"`
	TargetMm  float64 `json:"targetMm"`
	TempC     float64 `json:"tempC"`
},
) (any, error) {
	if err := positive("heightMm", in.HeightMm, "biteMm", in.BiteMm, "breadthMm", in.BreadthMm, "stressMPa", in.StressMPa, "targetMm", in.TargetMm); err != nil {
		return nil, err
	}
	if in.UsefulJ > 0 == (in.ForceKN > 0) {
		return nil, refuse("usefulJ", "calc.load", nil)
	}
	s := forge.Stroke{
		HeightMm: in.HeightMm, BiteMm: in.BiteMm, BreadthMm: in.BreadthMm, StressMPa: in.StressMPa,
		UsefulJ: in.UsefulJ, ForceKN: in.ForceKN, TargetMm: in.TargetMm, TempC: in.TempC,
	}.Strike()
	if s.Stalls {
		return map[string]any{"stalls": true}, nil
	}
	out := map[string]any{"heightAfterMm": s.HeightAfterMm, "strain": s.Strain, "riseC": s.RiseC}
	if in.ForceKN > 0 {
		out["biteMm"], out["forceKN"] = s.BiteMm, s.ForceKN
	}
	return out, nil
}

func calcExpand(in struct {
	TempC float64 `json:"tempC"`
},
) (any, error) {
	share, err := thermal.Expansion(in.TempC)
	if err != nil {
		return nil, err
	}
	return map[string]float64{"lengthShare": share}, nil
}
