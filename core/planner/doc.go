// Package planner puts a plan together. Make is the one door: preview, saving, card, demo,
// tests and command line all come through it.
//
// It is deterministic (the same request gives the same plan to the last bit), gives no
// partial result, looks at its context, and bounds its work. Errors are fact.FieldErrors for
// what cannot be, with the field and what would do, or the context's.
package planner
