package plan

import (
	"errors"

	"coldember/core/blade"
	"coldember/core/fact"
	"coldember/core/forge"
	"coldember/core/section"
)

// FieldError puts what the geometry or the physics refused beside the field
// that would mend it.
func FieldError(err error) error {
	var be *blade.Error
	var we *forge.WindowError
	var weak *forge.TooWeakError
	var sec *section.Error
	var burnt *forge.BurntError
	switch {
	case errors.As(err, &burnt):
		return fact.FieldErrors{{Field: "allowances.forgingEdgeMm", Code: "plan.burnsAway." + burnt.Zone, Figures: fact.Figures{"heats": float64(burnt.Heats)}}}
	case errors.As(err, &be):
		return fact.FieldErrors{{Field: "design." + be.Field, Code: be.Code, Figures: fact.Figures{"atMm": be.AtMm}}}
	case errors.As(err, &sec):
		return fact.FieldErrors{{Field: "design.grind." + sec.Field, Code: sec.Code, Figures: fact.Figures{"limitMm": sec.LimitMm}}}
	case errors.As(err, &weak):
		return fact.FieldErrors{{Field: "smith.machine.forceKN", Code: "forge.pressWeak", Figures: fact.Figures{"needKN": weak.NeedKN}}}
	case errors.As(err, &we):
		return fact.FieldErrors{{Field: "fire.tempC", Code: "forge.noWindow", Figures: fact.Figures{"soakC": we.SoakC, "lowC": we.LowC, "needC": we.NeedForgeC}}}
	}
	return err
}
