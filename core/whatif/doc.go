// Package whatif asks around a plan by making others: which piece of the rack suits best
// (Rank), the largest blade that a lump gives (Largest), ways out where a bar will not do
// (Hopes), how sure the length is (BeSure), the bands of the totals (Doubts), and what a
// millimetre more costs (Costs).
//
// Everything is deterministic for its seed, looks at its context, and returns
// fact.FieldErrors for what cannot be asked.
package whatif
