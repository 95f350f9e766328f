// Package cutting lays parts on bars with the least waste: which part is cut from which
// bar, what is left of it, and how near that is to the best there is.
//
// Lay is exact where it says so (Layout.Optimal); where its bound of steps ends the search
// first, the lower bound tells how far it may be off. It looks at the context as it goes.
package cutting
