// Package shelf serves the view at the anvil, and only that, to the local network, so that a tablet on the shelf can be
// read and touched there. It is off until the smith turns it on, and off again at the next start unless it is kept on.
//
// What it does for it: HTTPS with a certificate of this machine, whose fingerprint both screens show; a screen is paired
// with a code of six digits that the bench shows for five minutes, and that allows five tries; it then has a long random
// token in a cookie that scripts cannot read, that goes nowhere else, and that counts for that browser alone; it may read
// what is at the fire and tell what happens there, and nothing more: no settings, no prices, no export, no delete; requests
// are counted, and other hosts refused. docs/shelf.md tells what it protects against, and what not.
package shelf
