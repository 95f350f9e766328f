package steel

import "math"

// heatColours is the scale of heat in dim light, °C.
var heatColours = []int{480, 550, 650, 730, 790, 850, 920, 980, 1050, 1120, 1180, 1250, 1300}

// HeatColour is the nearest of the scale of hot steel in dim light, °C: what its colour is
// known by.
func HeatColour(tempC float64) int {
	best := heatColours[0]
	for _, c := range heatColours {
		if math.Abs(tempC-float64(c)) < math.Abs(tempC-float64(best)) {
			best = c
		}
	}
	return best
}
