// Package calc answers single questions put as JSON: one kind a law. It is what `coldember
// calc KIND` and the calc resource run, and what the reference cases are checked through.
//
// Errors are *UnknownKindError and *InputError, which says what of the input cannot be read,
// or those of the law.
package calc
