package steel

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"math"
)

// HeatColour is a colour of hot steel: the word for it is named by what it is in the usual school, °C.
type HeatColour int

// heatNames are the colours from the darkest, and where each lies in dim light, °C, by two schools: one
// calls 980 °C orange, the other 900. What is painted is the same steel for both. The page reads the
// same file.
//
//go:embed heatcolours.json
var heatNamesJSON []byte

var heatNames = func() (out []struct {
	Name    HeatColour `json:"name"`
	UsualC  float64    `json:"usualC"`
	SoonerC float64    `json:"soonerC"`
},
) {
	if err := json.Unmarshal(heatNamesJSON, &out); err != nil {
		panic(fmt.Sprintf("steel: embedded colours: %v", err))
	}
	return out
}()

// HeatColourAt is the colour that is nearest to a temperature in dim light, °C, by the school that
// names them sooner or by the usual one.
func HeatColourAt(tempC float64, sooner bool) HeatColour {
	best, off := heatNames[0].Name, math.Inf(1)
	for _, n := range heatNames {
		at := n.UsualC
		if sooner {
			at = n.SoonerC
		}
		if by := math.Abs(tempC - at); by < off {
			best, off = n.Name, by
		}
	}
	return best
}
