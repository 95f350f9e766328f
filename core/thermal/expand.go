package thermal

import (
	"fmt"
	"math"
)

// ExpandMostC and ExpandLeastC are from where to where Expansion answers, °C.
const (
	ExpandLeastC = 20.0
	ExpandMostC  = 1200.0
)

// Expansion is the share by which carbon steel is longer at tempC (°C) than at 20 °C: EN 1993-1-2,
// 3.4.1.1, 20 to 1200 °C. Between 750 and 860 °C it stands still while the steel turns. Errors are
// *RangeError.
func Expansion(tempC float64) (share float64, err error) {
	switch {
	case !(tempC >= ExpandLeastC && tempC <= ExpandMostC):
		return 0, &RangeError{"tempC", ExpandLeastC, ExpandMostC}
	case tempC <= 750:
		return 1.2e-5*tempC + .4e-8*tempC*tempC - 2.416e-4, nil
	case tempC <= 860:
		return .011, nil
	}
	return 2e-5*tempC - 6.2e-3, nil
}

// Hot is what mm of cold steel measure at tempC, °C; beyond the law as at its ends.
func Hot(mm, tempC float64) float64 {
	share, err := Expansion(math.Max(ExpandLeastC, math.Min(ExpandMostC, tempC)))
	if err != nil {
		return mm // a temperature that is no number
	}
	return mm * (1 + share)
}

// RangeError says which figure a law is not for, and from where to where it is.
type RangeError struct {
	Field           string
	Lowest, Highest float64
}

func (e *RangeError) Error() string {
	return fmt.Sprintf("thermal: %s outside %g–%g", e.Field, e.Lowest, e.Highest)
}
