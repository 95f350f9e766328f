// Package heats works a route through the fire: how much bar agrees with what burns off
// (Settle), which heats a smith counts (Schedule), what the piece looks like after each and
// what the calipers should say. Continue goes on from a piece that was left.
//
// All figures of a Settled are of one run. Errors are those of forge.Run; a Budget bounds all
// rounds together.
package heats
