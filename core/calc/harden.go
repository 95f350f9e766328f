package calc

import (
	"coldember/core/harden"
	"coldember/core/steel"
)

// composed is a composition as it is asked about, per cent.
type composed struct {
	CarbonPct   float64 `json:"carbonPct"`
	MnPct       float64 `json:"mnPct"`
	SiPct       float64 `json:"siPct"`
	NiPct       float64 `json:"niPct"`
	CrPct       float64 `json:"crPct"`
	MoPct       float64 `json:"moPct"`
	VPct        float64 `json:"vPct"`
	CuPct       float64 `json:"cuPct"`
	GrainNumber float64 `json:"grainNumber"`
}

func (c composed) steel() harden.Steel {
	return harden.Steel{CarbonPct: c.CarbonPct, GrainNumber: c.GrainNumber, Composition: steel.Composition{
		ManganesePct: c.MnPct, SiliconPct: c.SiPct, NickelPct: c.NiPct, ChromiumPct: c.CrPct, MolybdenumPct: c.MoPct, VanadiumPct: c.VPct, CopperPct: c.CuPct,
	}}
}

func calcHarden(in struct {
	composed
	SeverityPerIn   float64 `json:"severityPerIn"`
	MartensiteShare float64 `json:"martensiteShare"`
	Oil             bool    `json:"oil"`
	Water           bool    `json:"water" doc:"water or brine"`
},
) (any, error) {
	if err := positive("carbonPct", in.CarbonPct, "severityPerIn", in.SeverityPerIn); err != nil {
		return nil, err
	}
	fluid := harden.Dry
	switch {
	case in.Oil && in.Water:
		return nil, &harden.RangeError{Field: "water", Lowest: 0, Highest: 0}
	case in.Oil:
		fluid = harden.OilFluid
	case in.Water:
		fluid = harden.WaterFluid
	}
	d := harden.IdealDiameterMm(in.steel())
	t, err := harden.CriticalThicknessMm(d, in.SeverityPerIn, in.MartensiteShare, fluid)
	if err != nil {
		return nil, err
	}
	return map[string]float64{"idealDiameterMm": d, "criticalThicknessMm": t}, nil
}

func calcWindow(in struct {
	composed
	WidthMm            float64 `json:"widthMm"`
	ThicknessMm        float64 `json:"thicknessMm"`
	OutC               float64 `json:"outC"`
	MartensiteFraction float64 `json:"martensiteFraction"`
},
) (any, error) {
	if err := positive("carbonPct", in.CarbonPct, "widthMm", in.WidthMm, "thicknessMm", in.ThicknessMm); err != nil {
		return nil, err
	}
	share := in.MartensiteFraction
	if share == 0 {
		share = harden.Half
	}
	if !(share > 0 && share < 1) {
		return nil, &harden.RangeError{Field: "martensiteFraction", Lowest: 0, Highest: 1}
	}
	start := harden.MartensiteStartC(in.steel())
	out := map[string]any{"martensiteStartC": start, "endC": harden.FormedAtC(start, share), "seconds": nil}
	if s, ok := harden.StraightenS(in.steel(), in.WidthMm, in.ThicknessMm, in.OutC, share); ok {
		out["seconds"] = s
	}
	return out, nil
}

func calcDraw(in struct {
	HeightMm    float64 `json:"heightMm"`
	HotFromMm   float64 `json:"hotFromMm"`
	HotC        float64 `json:"hotC"`
	ColdC       float64 `json:"coldC"`
	YMm         float64 `json:"yMm"`
	TimeS       float64 `json:"timeS"`
	ThicknessMm float64 `json:"thicknessMm"`
	UntilC      float64 `json:"untilC"`
},
) (any, error) {
	s := harden.Spine{HeightMm: in.HeightMm, HotFromMm: in.HotFromMm, HotC: in.HotC, ColdC: in.ColdC}
	c, err := s.SlabC(in.ThicknessMm, in.YMm, in.TimeS)
	if err != nil {
		return nil, err
	}
	out := map[string]any{"tempC": c}
	if in.UntilC > 0 {
		out["untilS"] = nil
		at, ok, err := s.SlabUntilS(in.ThicknessMm, in.YMm, in.UntilC)
		if err != nil {
			return nil, err
		}
		if ok {
			out["untilS"] = at
		}
	}
	return out, nil
}

func calcGrain(in struct {
	StartUm float64 `json:"startUm"`
	TempC   float64 `json:"tempC"`
	TimeS   float64 `json:"timeS"`
},
) (any, error) {
	if err := positive("startUm", in.StartUm, "tempC", in.TempC); err != nil {
		return nil, err
	}
	um := harden.GrownUm(in.StartUm, in.TempC, in.TimeS)
	return map[string]float64{"grainUm": um, "grainNumber": harden.GrainNumber(um)}, nil
}
