// Package colour computes what a smith sees of hot steel: how it glows, in the light of a room and to an eye that has got
// used to it, and the colours that tempering leaves on bright steel; and it trains an eye on them: it asks, judges, and learns
// by how much and which way an eye is off.
//
// A screen shows far less light than a fire, and none of the deepest reds; one that was never set shows other colours than
// were meant. What is trained here is the order of colours and the feel for a room, not a thermometer.
package colour
