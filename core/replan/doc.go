// Package replan takes a piece as calipers and a scale find it on its way, and tells what it can still
// become: what was planned where that still fits, else what gives up least. The measured stations are laid
// over the planned shape of the moment, monotone between them; its volume, in order from the point, is what
// there is to forge from, since drawing moves steel on but never past what lies before it. Each way is
// planned from the piece as it is by the same engine as a plan from the bar. What is done stays done.
package replan
