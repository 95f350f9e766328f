// Package photo reads one photograph of a blank that lies on its printed template. The sheet has four ring
// marks at its corners, the first with a dot in it; by them the picture is squared, and the blank, which is
// darker than the paper, is found on it: how high it is along its length. Where glare or shade hide its
// edge, that is said, and no figure is given. What stands higher than the sheet is drawn larger by its
// height over the camera's distance: 6 mm seen from half a metre, 1.2 per cent.
package photo
