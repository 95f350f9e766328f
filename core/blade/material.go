package blade

import "coldember/core/steel"

// Material of a handle or a fitting, by class.
type Material string

// materials holds the density (g/cm³) of each class: usual handbook means; wood
// varies by a third either way.
var materials = map[Material]float64{
	"hardwood": 0.70, "denseWood": 1.05, "stabilisedWood": 1.15, "barkOrCork": 0.55, "leather": 0.95, "cord": 0.80,
	"horn": 1.30, "boneOrAntler": 1.85, "laminate": 1.40, "glassLaminate": 1.85,
	"steel": steel.DensityGPerCm3, "brass": 8.50, "bronze": 8.80, "nickelSilver": 8.60, "aluminium": 2.70,
}

// GripMaterials and FittingMaterials list the classes in the order they are
// offered.
func GripMaterials() []Material {
	return []Material{"hardwood", "denseWood", "stabilisedWood", "barkOrCork", "leather", "cord", "horn", "boneOrAntler", "laminate", "glassLaminate"}
}

// FittingMaterials of guards, bolsters and pommels.
func FittingMaterials() []Material {
	return []Material{"steel", "brass", "bronze", "nickelSilver", "aluminium", "horn", "boneOrAntler", "denseWood", "laminate"}
}

// DensityGPerCm3 of the class; 0 for one that is not known.
func (m Material) DensityGPerCm3() float64 { return materials[m] }
