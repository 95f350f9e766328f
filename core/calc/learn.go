package calc

import "coldember/core/learn"

func calcLearn(in struct {
	Ratios      []float64 `json:"ratios"`
	PriorSdLog  float64   `json:"priorSdLog"`
	PriorWeight float64   `json:"priorWeight"`
},
) (any, error) {
	f, err := learn.Fit(in.Ratios, in.PriorSdLog, in.PriorWeight)
	if err != nil {
		return nil, err
	}
	return map[string]float64{"factor": f.Factor, "scaleLog": f.ScaleLog, "low80": f.Low80, "high80": f.High80}, nil
}
