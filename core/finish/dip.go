package finish

import "fmt"

// RangeError says which figure a law does not answer for, and from where to where it does.
type RangeError struct {
	Field           string
	Lowest, Highest float64
}

func (e *RangeError) Error() string {
	return fmt.Sprintf("finish: %s is to be %g to %g", e.Field, e.Lowest, e.Highest)
}

func within(field string, v, lowest, highest float64) error {
	if !(v >= lowest && v <= highest) {
		return &RangeError{field, lowest, highest}
	}
	return nil
}

// Heat of grinding: so much a cubic millimetre of steel taken off, and the share of it that goes
// into the work (judgement, from what belts and wheels are known to take).
const (
	grindJPerMm3 = 15.0
	intoWork     = .5
	heatJPerGK   = .49
	roomC        = 20.0
	// UnderTemperC: the edge is kept so much below its temper.
	UnderTemperC = 30.0
)

// DipS is how long steel of massG that takes up the heat of grinding removalMm3PerS off it can be
// at the wheel before it comes from startC (0: room) to limitC, s. Errors are *RangeError.
func DipS(removalMm3PerS, massG, limitC, startC float64) (float64, error) {
	if startC == 0 {
		startC = roomC
	}
	if err := within("removalMm3PerS", removalMm3PerS, .001, 1000); err != nil {
		return 0, err
	}
	if err := within("massG", massG, .01, 100_000); err != nil {
		return 0, err
	}
	if err := within("startC", startC, -20, 400); err != nil {
		return 0, err
	}
	if err := within("limitC", limitC, startC, 700); err != nil {
		return 0, err
	}
	return massG * heatJPerGK * (limitC - startC) / (removalMm3PerS * grindJPerMm3 * intoWork), nil
}
