package calc

import "coldember/core/finish"

func calcDip(in struct {
	RemovalMm3PerS float64 `json:"removalMm3PerS"`
	MassG          float64 `json:"massG"`
	LimitC         float64 `json:"limitC"`
	StartC         float64 `json:"startC"`
},
) (any, error) {
	s, err := finish.DipS(in.RemovalMm3PerS, in.MassG, in.LimitC, in.StartC)
	if err != nil {
		return nil, err
	}
	return map[string]float64{"seconds": s}, nil
}
