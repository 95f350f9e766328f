package plan

import (
	"math"

	"coldember/core/thermal"
)

// HotX is how far from the point a place of a piece lies that is as hot as it is drawn, mm; atMm is where it lies cold. Each
// stretch between two stations is longer by its own temperature; of a piece that is bent back on itself each counts once.
func HotX(shape []Station, atMm float64) (mm float64) {
	reach := 0.0
	for i := range shape {
		s := &shape[i]
		tempC := s.TempC
		if i > 0 {
			tempC = (shape[i-1].TempC + s.TempC) / 2
		}
		if to := math.Min(s.XMm, atMm); to > reach {
			mm, reach = mm+thermal.Hot(to-reach, tempC), to
		}
	}
	return mm
}
