// Package thermal computes heating, cooling, scale and decarburisation of a bar in the
// forge and on the anvil.
//
// The bar is taken as uniform through its section, good to about 25 mm of thickness
// (LumpedLimitMm); thicker pieces are answered and flagged by the caller. Temperatures are
// °C, times s, depths mm of metal lost from each face. A temperature that surroundings do
// not allow is an *UnreachableError; every step is stable however long it is.
package thermal
