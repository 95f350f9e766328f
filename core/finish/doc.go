// Package finish is what comes after the fire: what is to be ground off where, in which order and
// how cool, how handle and fittings are cut, the sheath, the edge, what a blade that was measured
// at the grinder can still be, and what the whole knife takes. It knows designs and bodies, and
// nothing of how they were forged.
package finish
