package forge

import (
	"fmt"
	"math"

	"coldember/core/steel"
)

// minWindowC is the least working window a heat is planned with.
const minWindowC = 50

// Margins under the steel's and the forge's temperature that a piece is taken
// to.
const (
	UnderSteelC = 20.0
	UnderForgeC = 30
)

// Setup is who works with what on which steel.
type Setup struct {
	Smith Smith
	Fire  Fire
	Steel steel.Grade

	// ByBlow draws which blows land, one by one, or has them land Evenly; 0: they are taken on the mean, as plans do.
	ByBlow uint64
}

// WindowError says that the forge or the steel leaves no window to work in;
// NeedForgeC is the forge temperature that would do (0: no forge will).
type WindowError struct{ SoakC, LowC, NeedForgeC float64 }

func (e *WindowError) Error() string {
	return fmt.Sprintf("forge: soaking to %.0f °C leaves under %d °C above %.0f °C", e.SoakC, minWindowC, e.LowC)
}

// leastShare of an operation is what a heat must do, or the hammer does not move the piece.
const leastShare = 1e-3

// StallError says that the hammer cannot move this piece: in a whole heat it does less than
// a thousandth of the operation. TooCold says that there was no time for it at all: the
// piece comes to the anvil colder than it may be struck. TimesEnergy is how much more energy
// in a blow would do.
type StallError struct {
	Operation   string
	TooCold     bool
	TimesEnergy float64
}

func (e *StallError) Error() string { return "forge: the hammer does not move " + e.Operation }

// LowC is where a heat ends: the smith's own figure, or the steel's lower limit.
func (s Setup) LowC() float64 {
	if own := s.Fire.StopC; own > 0 {
		return own
	}
	return s.Steel.ForgeLowC
}

// SoakC is the temperature a piece is taken to, the smith's own or by steel and
// forge, or a *WindowError.
func (s Setup) SoakC() (float64, error) {
	bySteel, low := s.Steel.ForgeHighC-UnderSteelC, s.LowC()
	if own := s.Fire.SoakC; own > 0 {
		bySteel = own
		if own > s.Fire.TempC-UnderForgeC {
			return 0, &WindowError{SoakC: s.Fire.TempC - UnderForgeC, LowC: low, NeedForgeC: own + UnderForgeC}
		}
	}
	soak := math.Min(bySteel, s.Fire.TempC-UnderForgeC)
	if soak-low < minWindowC {
		need := low + minWindowC + UnderForgeC
		if bySteel-low < minWindowC {
			need = 0
		}
		return 0, &WindowError{SoakC: soak, LowC: low, NeedForgeC: need}
	}
	return soak, nil
}
