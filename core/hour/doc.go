// Package hour reads a shop out of an hour at the forge with a scrap bar: how much of a blow lands, how hot the fire really
// is and how long its hot stretch, how deep it scales and what it burns. Each of these is a law's factor, or a figure of
// the fire, with its own doubt. Pure.
package hour
