// Package simulate is a hidden piece of steel, for demonstrations and tests: it is forged by
// the engine with an arm, a fire and a steel of its own, drawn from a seed around those that
// were planned, and answers what a session at the fire asks. It knows how many heats it really
// takes, when it is cold, what calipers and scale would say, and tells the events of a whole
// session as a smith's screen would.
//
// It is deterministic for a request and a seed. Errors are those of planner.Make.
package simulate
