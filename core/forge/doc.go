// Package forge is the work itself: the state of the bar, tools and machines, blows,
// spread and bend, fire and scale.
//
// A Bar is cells of steel from the point back; volume never moves between cells and leaves
// them only as scale. A Run takes one through operations (Do), heat by heat, until each is
// done. It may be left after any heat (StateAfter) and taken up again (Resume) with the same
// outcome to the last bit. It ends with a typed error where the fire is too cool
// (*WindowError), the hammer too light (*StallError), the press too weak (*TooWeakError) or a
// spot burns away (*BurntError); a Budget bounds it and carries its context. A Run is one
// goroutine's.
package forge
