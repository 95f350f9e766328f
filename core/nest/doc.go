// Package nest lays outlines on a sheet: a plate, a disc, a flattened or forged blank, around
// its holes and bad places, several on one with the least waste.
//
// All lengths are mm; x runs along the rolling of the sheet. Lay looks on a grid and then moves
// every part together by exact distances; what it answers has been checked exactly (Check), and
// is never worse than the same parts laid in rows. It is deterministic: bounded by tries, not
// by time, and looks at the context as it goes.
package nest
