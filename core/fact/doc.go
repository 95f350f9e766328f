// Package fact holds how the core tells what it found: codes with figures, never prose.
// The message catalogue turns them into words, in whatever language and units.
//
// A Warning is about a plan that can be made; FieldErrors are an error of a request that
// cannot, one for each field, with what would be right. Names of figures carry their unit.
package fact
