package calc

import "coldember/core/billet"

func calcBillet(b billet.Billet) (any, error) {
	states, err := b.Run()
	if err != nil {
		return nil, err
	}
	return map[string]any{"steps": states}, nil
}

func calcPattern(in struct {
	Bar    billet.Bar     `json:"bar"`
	Points []billet.Point `json:"points"`
},
) (any, error) {
	if err := in.Bar.Validate(); err != nil {
		return nil, err
	}
	layers := make([]float64, len(in.Points))
	for i, p := range in.Points {
		layers[i] = in.Bar.LayerAt(p)
	}
	return map[string]any{"layers": layers}, nil
}
