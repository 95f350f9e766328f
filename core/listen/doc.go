// Package listen hears the blows of a hammer in a stream of sound: when each fell, how loud it was, and whether it fell on
// hot steel, on the bare anvil, or across the room. It keeps no sound: of every few milliseconds only how loud two bands of
// it were.
//
// A blow is a sudden rise over what is there already, in the band where an anvil rings or in the one below it where steel
// thuds; what is there already is a floor that follows the roar of the forge, and the ring of the last blow. Steel that is
// hot is soft: it thuds, and keeps the anvil from ringing. What falls on the bare face is louder, brighter and rings on.
// Which is which is learned from the blows themselves (Bello and others, "A tutorial on onset detection in music signals",
// IEEE Transactions on Speech and Audio Processing 13, 2005, for detection by rising energy; the rest is judgement, held
// against synthetic sound by the tests).
package listen
